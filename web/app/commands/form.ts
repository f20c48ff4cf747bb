import { type Edit, firstOf, type FormPass, type Pass, type Playing, Song } from "../../../core/src/index";
import { play, playedPlace } from "../audio/sound";
import { usePlayback } from "../store/playback";
import { showPass, useSelection, writeHere } from "../store/selection";
import { edit, say, storedSong, useSong } from "../store/song";
import { workers } from "../workers/sync";
import { tellUndoable } from "./undoable";

/** Plays the whole song from a pass on. */
export function playFrom(pass: FormPass): void {
  usePlayback.setState({ wholeSong: true, passes: null, preview: null });
  showPass(pass.section, pass.id);
  void play(pass.start);
}

/** Plays one pass, or a row of passes, again and again; asked for again, it ends. */
export function loopPasses(from: string, to: string): void {
  const { passes, wholeSong } = usePlayback.getState();
  const same = wholeSong && passes?.from === from && passes.to === to;
  usePlayback.setState({ wholeSong: !same, passes: same ? null : { from, to }, preview: null });
  if (!same) void play();
}

/** Plays a section once more, behind the pass in view. */
export function addPass(section: string, after: string | null, like?: string): void {
  const at = storedSong().form.findIndex((p) => p.id === after) + 1;
  const made = useSong
    .getState()
    .make({ do: "addPass", section, ...(at > 0 ? { at } : {}), ...(like ? { like } : {}) });
  const id = made?.find((x) => storedSong().form.some((p) => p.id === x));
  if (id) showPass(section, id);
}

/** Moves a pass one place on or back, or to a place. */
export function movePass(id: string, by: -1 | 1): void {
  const at = storedSong().form.findIndex((p) => p.id === id);
  const to = by < 0 ? at - 1 : at + 2;
  if (to >= 0 && to <= storedSong().form.length) edit({ do: "movePass", pass: id, to });
}

export function removePass(pass: FormPass): void {
  const { form } = storedSong();
  const at = form.findIndex((p) => p.id === pass.id);
  if (!edit({ do: "removePass", pass: pass.id })) return;
  const next = storedSong().form[Math.min(at, storedSong().form.length - 1)];
  if (next) showPass(next.sectionId, next.id);
  tellUndoable(`${pass.name} was taken out of the form; the section stays.`, () => showPass(pass.section, pass.id));
}

/** A stretch of bars as it is typed, "1–4" or "3", from 1; null where it is none. */
export function typedBars(text: string): [from: number, to: number] | null {
  const match = /^\s*(\d+)\s*(?:[-–]\s*(\d+))?\s*$/.exec(text);
  if (!match) return null;
  const [from, to] = [Number(match[1]), Number(match[2] ?? match[1])];
  return from >= 1 && to >= from ? [from - 1, to] : null;
}

/** While the whole song plays, what one looks at goes along. */
export function followSong(): void {
  const at = playedPlace();
  const { section, pass } = useSelection.getState();
  if (at?.pass && (at.section !== section || at.pass !== pass)) showPass(at.section, at.pass);
}

/** Takes a part out of a pass, or lets it play there again. */
export function toggleOut(pass: string, part: string): void {
  const muted = Song.pass(storedSong(), pass)?.muted ?? [];
  edit({ do: "setPass", pass, muted: muted.includes(part) ? muted.filter((m) => m !== part) : [...muted, part] });
}

/** Every value of a way of playing, given back. */
const givenBack = (playing: Playing = {}): Record<string, Record<string, unknown>> =>
  Object.fromEntries(
    Object.entries(playing).map(([way, values]) => [
      way,
      Object.fromEntries(Object.keys(values ?? {}).map((name) => [name, null])),
    ]),
  );

/** A part plays in a pass as its section has it. */
export const playAsSection = (part: string, { id, playing }: Pass): boolean =>
  edit({ do: "setPlaying", part, pass: id, ...givenBack(playing?.[part]) });

/** Writes a bass line as the part plays in a pass, for that pass alone or for its section, and shows it. */
export async function writeBassFor(part: string, pass: FormPass, here: boolean): Promise<void> {
  writeHere(pass.section, pass.id, here);
  const lines = await workers.writer.bass({ section: pass.section, part });
  if (!lines.ok) return say(lines.error);
  const line = firstOf(lines.value);
  const more = here
    ? null
    : await workers.writer.endings({ section: pass.section, part, style: line.style, seed: line.seed }, line.notes);
  const write: Edit = { do: "setNotes", section: pass.section, part, notes: line.notes };
  edit(more?.ok && more.value.length ? { do: "all", label: "bass line", edits: [write, ...more.value] } : write);
}

/** Takes how a part plays in one pass to another; what that one had for itself, and this one has not, is given back. */
export function copyPlaying(part: string, from: string, to: string): void {
  const [source, target] = [Song.pass(storedSong(), from), Song.pass(storedSong(), to)];
  if (!source || !target || from === to) return;
  const ways: Record<string, Record<string, unknown>> = givenBack(target.playing?.[part]);
  for (const [way, values] of Object.entries(source.playing?.[part] ?? {})) ways[way] = { ...ways[way], ...values };
  if (Object.keys(ways).length) edit({ do: "setPlaying", part, pass: to, ...ways });
}
