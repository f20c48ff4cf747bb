import { lastOf, sure } from "../../src/base/list";
import type { Part, Song } from "../../src/song/schema/song";
import { edit, notesOf, songWith } from "../helpers";

/**
 * A song whose lines are written as "beat pitch beats", by name; the first is the tune. Voices are a choir, so that
 * ranges say nothing.
 */
export function withLines(
  line: string,
  lines: Record<string, string[]>,
  more: { key?: string; bars?: number } = {},
): Song {
  const [first, ...others] = Object.entries(lines);
  const base = songWith({ line, ...(more.key ? { key: more.key } : {}), melody: sure(first)[1] });
  const start = more.bars ? edit(base, { do: "setSection", section: "s1", bars: more.bars }) : base;
  const song = edit(start, { do: "setPart", part: "melody", instrument: "choir", name: sure(first)[0] });
  return others.reduce((s, [name, notes]) => {
    const bass = name === "Bass";
    const added = bass ? s : edit(s, { do: "addPart", name, role: "vocal", instrument: "choir" });
    const part = bass ? "bass" : sure(added.parts.find((p) => p.name === name)).id;
    const list = notesOf(notes);
    return edit(added, { do: "setNotes", section: "s1", part, notes: list });
  }, song);
}

/** Notes written as "beat pitch beats", with as many beats added as they come later. */
export const later = (notes: readonly string[], beats: number): string[] =>
  notes.map((n) => {
    const [beat, ...rest] = n.split(" ");
    return [Number(beat) + beats, ...rest].join(" ");
  });

/** The same notes in every one of so many bars of four beats. */
export const everyBar = (bars: number, notes: readonly string[]): string[] =>
  Array.from({ length: bars }, (_, b) => later(notes, 4 * b)).flat();

export type BandPart = readonly [role: Part["role"], instrument: string, notes: readonly string[]];

/**
 * A song of written parts by name, in order; the first melody and the first bass are those of a new song, which has a
 * piano that is silent.
 */
export function band(line: string, parts: Record<string, BandPart>, more: { key?: string; bars?: number } = {}): Song {
  const start = songWith({ line, ...(more.key ? { key: more.key } : {}) });
  const long = more.bars ? edit(start, { do: "setSection", section: "s1", bars: more.bars }) : start;
  return Object.entries(parts).reduce((song, [name, [role, instrument, texts]]) => {
    const own = song.parts.find(
      (p) => p.role === role && (role === "melody" || role === "bass") && (p.name === "Voice" || p.name === "Bass"),
    );
    const added = own
      ? edit(song, { do: "setPart", part: own.id, name, instrument })
      : edit(song, { do: "addPart", name, role, instrument });
    const part = own?.id ?? sure(added.parts.find((p) => p.name === name)).id;
    const notes = notesOf(texts);
    return edit(added, { do: "setNotes", section: "s1", part, notes });
  }, long);
}

/** A second section after the first, with the same parts; notes by the name of the part. */
export function thenSection(song: Song, line: string, bars: number, notes: Record<string, readonly string[]>): Song {
  const added = edit(song, { do: "addSection", name: "Chorus", bars });
  const id = lastOf(added.sections).id;
  return Object.entries(notes).reduce(
    (s, [name, texts]) =>
      edit(s, {
        do: "setNotes",
        section: id,
        part: sure(s.parts.find((p) => p.name === name)).id,
        notes: notesOf(texts),
      }),
    edit(added, { do: "setLine", section: id, line }),
  );
}
