import { type Edit, Song, sure, Take, type TakeDifference, Text } from "../../../core/src/index";
import { tellUndoable } from "./undoable";
import { usePlayback } from "../store/playback";
import { passInView } from "../store/passes";
import { useSelection } from "../store/selection";
import { edit, say, sectionNow, songNow, storedSong } from "../store/song";

export type Keep = Omit<Extract<Edit, { do: "keepTake" }>, "do" | "section" | "name" | "made"> & { name?: string };
export type KeptTake = Song["takes"][number];

/** The bars that are looped, where some are; otherwise none, which means all. */
export function barsAtHand(section: string): readonly [number, number] | undefined {
  const { loop } = usePlayback.getState();
  const here = sectionNow(section);
  if (!loop?.on || !here) return undefined;
  const { bar } = Song.meterOf(songNow(), here);
  const [from, to] = [Math.floor(loop.from / bar), Math.min(here.bars, Math.ceil(loop.to / bar))];
  return from < to && !(from === 0 && to === here.bars) ? [from, to] : undefined;
}

/** What a take is called where nobody names it: what it is of, and which one. */
function nameOf(section: string, { parts, part, chords, drums }: Keep): string {
  const song = storedSong();
  const names = [part, ...(parts ?? [])].flatMap((id) => song.parts.find((p) => p.id === id)?.name.split(",")[0] ?? []);
  const what = [...names, ...(chords ? ["chords"] : []), ...(drums ? ["drums"] : [])].join(", ") || "everything";
  const number = song.takes.filter((t) => t.sectionId === section).length + 1;
  return `Take ${number}, ${what}`;
}

/** Keeps what stands in a section, or in the bars that are looped. */
export function keep(section: string, what: Keep): boolean {
  const before = songNow().takes.length;
  const bars = what.bars ?? barsAtHand(section);
  const pass = useSelection.getState().here ? passInView(storedSong(), useSelection.getState().pass, section) : null;
  const name = what.name ?? nameOf(section, what);
  const made = edit({
    do: "keepTake",
    section,
    ...what,
    ...(bars ? { bars: [bars[0], bars[1]] } : {}),
    ...(pass ? { pass } : {}),
    name,
    made: new Date().toISOString(),
  });
  if (!made) return false;
  if (songNow().takes.length > before) tellUndoable(`${name} is kept.`);
  else if (!Take.hasRoom(songNow()))
    say({ code: "take.full", message: "There is no room for another take", hint: "Forget some that nobody needs." });
  else say({ code: "take.same", message: "This is kept already, or there is nothing to keep" });
  return true;
}

/** Keeps what one works on, by one key: the part of the chosen notes, else everything. */
export function keepAtHand(): boolean {
  const { section, notes } = useSelection.getState();
  const part = Song.part(songNow(), notes.part);
  return keep(section, part && !part.link ? { part: part.id } : {});
}

const BARS = (bars: readonly number[]): string => {
  const runs: [number, number][] = [];
  for (const b of bars) {
    const last = runs.at(-1);
    if (last && last[1] === b) last[1] = b + 1;
    else runs.push([b, b + 1]);
  }
  const words = runs.map(([a, b]) => (b - a > 1 ? `${a + 1}–${b}` : String(a + 1)));
  return `${bars.length === 1 ? "bar" : "bars"} ${words.join(", ")}`;
};

/** How a take differs from what stands there, in words. */
export function differenceText(difference: TakeDifference): string {
  if (!difference.bars.length) return "as it stands now";
  const { rhythm, pitches, chords, drums, notes } = difference;
  const more = notes > 0 ? `${Text.counted(notes, "note")} more` : `${Text.counted(-notes, "note")} fewer`;
  const what = [
    ...(rhythm ? ["another rhythm"] : []),
    ...(pitches ? ["other pitches"] : []),
    ...(chords ? ["other chords"] : []),
    ...(drums ? ["other drums"] : []),
    ...(notes ? [more] : []),
  ];
  return `${BARS(difference.bars)}: ${what.join(", ") || "other loudness"}`;
}

/** What a take is of, in words. */
export function ofText(song: Song, take: KeptTake): string {
  const parts = Object.keys(take.notes ?? {}).flatMap(
    (id) => song.parts.find((p) => p.id === id)?.name.split(",")[0] ?? [],
  );
  const section = sure(Song.section(song, take.sectionId));
  const [from, to] = Take.bars(take, section);
  const bars = take.bars ? `, ${to - from > 1 ? `bars ${from + 1}–${to}` : `bar ${from + 1}`}` : "";
  return (
    [
      ...(take.chords ? ["chords"] : []),
      ...parts,
      ...(take.groove?.lanes.some((l) => l.hits.length) ? ["drums"] : []),
    ].join(", ") + bars
  );
}

/** The edit that brings a take back, in the bars that are named. */
export const bringEdit = (
  take: KeptTake,
  more: { bars?: [number, number]; only?: "rhythm" | "pitches" } = {},
): Edit => ({
  do: "bringTake",
  section: take.sectionId,
  take: take.id,
  ...more,
});
