import { firstOf } from "../../src/base/list";
import { applyEdit } from "../../src/song/edits";
import { factsOf } from "../../src/facts/memory";
import { must } from "../../src/base/result";
import { VOCAL_SCHOOLS } from "../../src/write/vocal/schools";
import { vocalLines, vocalRequest, type VocalLines } from "../../src/write/vocal/write";
import { vocalRows } from "../../src/write/vocal/measures";
import type { Conflict, Measure } from "../../src/write/lines/measure";
import type { Song } from "../../src/song/schema/song";
import { COUNTER_GRID, counterSong, type CounterCase } from "../../../bench/counterGrid";

export type VocalCase = Omit<CounterCase, "style"> & { school: string; voices: number };

/**
 * Tunes, keys and meters of the grid of counter melodies, for every school; the schools of several voices with as many
 * as they can have.
 */
export const VOCAL_GRID: readonly VocalCase[] = VOCAL_SCHOOLS.flatMap((s) =>
  COUNTER_GRID.filter((c) => c.style === firstOf(COUNTER_GRID).style).map(({ style: _, ...c }, i) => ({
    ...c,
    school: s.id,
    voices: s.voices[0] === s.voices[1] ? s.voices[0] + 1 : 2 + (i % s.voices[1]),
  })),
);

const songs = new Map<Song, Song>();

/** The song of a case, with a voice beside its tune. */
export function vocalSong(c: VocalCase): Song {
  const bare = counterSong(c);
  let song = songs.get(bare);
  if (song) return song;
  song = must(applyEdit(bare, { do: "addPart", name: "Beside", role: "vocal", instrument: "mezzo" })).song;
  song = { ...song, parts: song.parts.map((p) => (p.name === "Beside" ? { ...p, id: "beside" } : p)) };
  songs.set(bare, song);
  return song;
}

export interface VocalOutcome {
  song: Song;
  lines: VocalLines[];
  unmet: Measure[];
  /** Unmet aims that no conflict explains. */
  unexplained: Measure[];
  conflicts: Conflict[];
}

/** Writes one combination and compares its first way with its aims. */
export function judgeVocal(c: VocalCase): VocalOutcome {
  const song = vocalSong(c);
  const request = { section: "s1", part: "beside", lead: "melody", school: c.school, voices: c.voices };
  const lines = must(vocalLines(song, request));
  const { ctx, style: school } = must(vocalRequest(factsOf(song), request));
  const { report, conflicts } = firstOf(lines);
  const unmet = vocalRows(report, school.targets, ctx.meter).filter((m) => m.met === false);
  const named = new Set(conflicts.flatMap((x) => x.measures));
  return { song, lines, unmet, unexplained: unmet.filter((m) => !named.has(m.id)), conflicts };
}
