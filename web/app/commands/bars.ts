import { create } from "zustand";
import { type Chosen, type Edit, Figure, type Piece, Song, sure, Text } from "../../../core/src/index";
import { showSection } from "../store/selection";
import { edit, sectionNow, songNow, storedSong, useSong } from "../store/song";
import { clearLoop } from "../store/playback";
import { groundOf, listOf } from "./figures";
import { tell } from "../store/notice";
import { tellUndoable } from "./undoable";

/** What bars were copied last, with what they stood on. */
interface BarsCopied {
  piece: Piece;
  ground: ReturnType<typeof groundOf>;
}
export const useBarsCopied = create<{ copied: BarsCopied | null }>(() => ({ copied: null }));

/** Bars of a section, from one up to another. */
export interface Span {
  section: string;
  bars: readonly [number, number];
}

export const barsText = ([from, to]: readonly [number, number]): string =>
  to - from > 1 ? `bars ${from + 1}–${to}` : `bar ${from + 1}`;

const span = ({ bars: [from, to] }: Span): [number, number] => [from, to];

export function copyBars(at: Span, chosen: Chosen): void {
  const song = songNow();
  const section = sure(sectionNow(at.section));
  const piece = Figure.piece(song, section, { bars: at.bars, ...chosen });
  const { bar } = Song.meterOf(song, section);
  useBarsCopied.setState({ copied: { piece, ground: groundOf(song, section, at.bars[0] * bar) } });
  tell({ text: `${Text.counted(piece.bars, "bar")} copied.` });
}

export function cutBars(at: Span, chosen: Chosen): boolean {
  copyBars(at, chosen);
  if (!edit({ do: "clearBars", section: at.section, bars: span(at), ...listed(chosen) })) return false;
  tellUndoable(`${Text.counted(at.bars[1] - at.bars[0], "bar")} cut.`);
  return true;
}

/** What is chosen of bars, as the edits have it. */
export const listed = ({ chords, drums, parts }: Chosen) => ({
  ...(chords === undefined ? {} : { chords }),
  ...(drums === undefined ? {} : { drums }),
  ...(parts ? { parts: [...parts] } : {}),
});

/** How copied bars are set down: as they are, or their lines refitted to the chords that stand there. */
export type Refitting = "as it is" | "refitted";

/** Sets copied bars down over those from a bar on, or between them. */
export function pasteBars(
  section: string,
  at: number,
  where: "over" | "between",
  how: Refitting = "as it is",
): boolean {
  const { copied } = useBarsCopied.getState();
  if (!copied) return false;
  const { piece, ground } = copied;
  const told: string[] = [];
  const room: Edit[] = where === "between" ? [{ do: "insertBars", section, at, count: piece.bars }] : [];
  const put = { do: "pasteBars" as const, section, at, ...piece, chords: piece.chords };
  let down: Edit = put.chords ? put : withoutChords(put);
  if (how === "refitted" && where === "over") {
    const song = songNow();
    const target = groundOf(song, sure(sectionNow(section)), at * piece.bar);
    const notes = Object.fromEntries(
      Object.entries(piece.notes ?? {}).map(([part, list]) => {
        const made = Figure.refit(list, ground, target);
        told.push(...listOf(made.told, song, section, at * piece.bar));
        return [part, made.notes];
      }),
    );
    // The chords that stand there are what it is refitted to.
    down = withoutChords({ ...put, notes });
  }
  const before = useSong.getState().past.length;
  if (!edit(room.length ? { do: "all", label: "set bars down", edits: [...room, down] } : down)) return false;
  if (useSong.getState().past.length > before || told.length)
    tellUndoable([`${Text.counted(piece.bars, "bar")} set down.`, ...told.slice(0, 3)].join(" "));
  return true;
}

const withoutChords = ({ chords: _, ...put }: Extract<Edit, { do: "pasteBars" }>): Edit => put;

/** The bars once more, right behind. */
export function repeatBars(at: Span): boolean {
  const song = songNow();
  const section = sure(sectionNow(at.section));
  const piece = Figure.piece(song, section, { bars: at.bars });
  const [, to] = at.bars;
  const made = edit({
    do: "all",
    label: "repeat bars",
    edits: [
      { do: "insertBars", section: at.section, at: to, count: piece.bars },
      { do: "pasteBars", section: at.section, at: to, ...piece },
    ],
  });
  if (made) tellUndoable(`${Text.capital(barsText(at.bars))} once more behind.`);
  return made;
}

export const insertBars = (section: string, at: number, count: number): boolean =>
  edit({ do: "insertBars", section, at, count });

export function removeBars(at: Span): boolean {
  const [from, to] = at.bars;
  const kept = storedSong().takes.filter(
    (t) => t.sectionId === at.section && (t.bars?.[0] ?? 0) < to && (t.bars?.[1] ?? to) > from,
  );
  if (!edit({ do: "removeBars", section: at.section, bars: span(at) })) return false;
  clearLoop();
  const also = kept.length ? `, and out of ${Text.counted(kept.length, "take")}` : "";
  tellUndoable(`${Text.capital(barsText(at.bars))} taken out${also}.`);
  return true;
}

/** Divides a section before a bar, and shows what follows. */
export function divide(section: string, at: number): boolean {
  const made = useSong.getState().make({ do: "splitSection", section, at });
  if (!made) return false;
  clearLoop();
  tellUndoable("The section is divided.", () => showSection(section));
  return true;
}

/** The section that the form always plays behind one; what two would have to be to be joined is the edit's matter. */
export function sectionBehind(song: Song, section: string): Song["sections"][number] | undefined {
  const at = song.form.findIndex((p) => p.sectionId === section);
  const next = at < 0 ? undefined : song.form[at + 1]?.sectionId;
  return next === undefined || next === section ? undefined : Song.section(song, next);
}

export function joinBehind(section: string): boolean {
  const next = sectionBehind(storedSong(), section);
  if (!next || !edit({ do: "joinSections", section, with: next.id })) return false;
  clearLoop();
  tellUndoable(`${next.name} is part of it now.`);
  return true;
}
