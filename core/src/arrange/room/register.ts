import { lastOf, sure } from "../../base/list";
import type { Midi } from "../../theory/pitch/pitch";
import type { RealizedSong } from "../../song/realize";
import type { Song } from "../../song/schema";
import { meanLevel, shareOf } from "./share";

/** Where a part lies over the whole form. */
export interface Register {
  part: string;
  name: string;
  low: Midi;
  high: Midi;
  /** Between these it spends four fifths of its time. */
  middle: [Midi, Midi];
}

/**
 * Who covers whom, as shares of the time of a part: row by row those that are covered, column by column those that
 * cover.
 */
export interface Covering {
  parts: { id: string; name: string }[];
  share: number[][];
}

/** Share of its time that may lie beyond either end of the middle. */
const TAIL = 0.1;
/**
 * Semitones around a note that belong to its octave, and decibels by which what covers may be softer (common practice).
 */
const NEAR = 6;
const SOFTER = 3;

/** The pitch below which a share of the time of some notes lies. */
function quantile(notes: readonly { midi: Midi; duration: number }[], share: number): Midi {
  const sorted = [...notes].sort((a, b) => a.midi - b.midi);
  const wanted = sorted.reduce((sum, n) => sum + n.duration, 0) * share;
  let sum = 0;
  for (const n of sorted) {
    sum += n.duration;
    if (sum >= wanted) return n.midi;
  }
  return lastOf(sorted).midi;
}

const pitched = (real: RealizedSong) => real.parts.filter((p) => p.role !== "drums" && p.notes.length > 0);

/** Registers of the parts that play, high to low. */
export const registersOf = (real: RealizedSong): Register[] =>
  pitched(real)
    .map(({ id, name, notes }): Register => ({
      part: id,
      name,
      low: Math.min(...notes.map((n) => n.midi)),
      high: Math.max(...notes.map((n) => n.midi)),
      middle: [quantile(notes, TAIL), quantile(notes, 1 - TAIL)],
    }))
    .sort((a, b) => b.middle[0] + b.middle[1] - a.middle[0] - a.middle[1]);

/**
 * For how much of its time each part is covered by each other: something sounds in its octave then, about as loud or
 * louder.
 */
export function coveringOf(song: Song, real: RealizedSong): Covering {
  const bar = real.sections[0]?.meter.bar ?? 1;
  const parts = pitched(real).map((p) => ({
    id: p.id,
    name: p.name,
    notes: p.notes,
    part: sure(song.parts.find((x) => x.id === p.id)),
  }));
  const loud = new Map(parts.map((p) => [p.id, meanLevel(p)]));
  return {
    parts: parts.map(({ id, name }) => ({ id, name })),
    share: parts.map((a) =>
      parts.map((b) =>
        a === b || sure(loud.get(b.id)) < sure(loud.get(a.id)) - SOFTER
          ? 0
          : shareOf(a.notes, b.notes, bar, (n, m) => Math.abs(n.midi - m.midi) <= NEAR),
      ),
    ),
  };
}
