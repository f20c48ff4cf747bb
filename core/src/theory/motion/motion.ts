import { nth } from "../../base/list";
import { mod, type Midi } from "../pitch/pitch";

export type MotionKind = "none" | "oblique" | "contrary" | "similar" | "parallel";

/** Kind of motion between two voices, each given as its pitch before and after. */
export function motionKind(lowFrom: Midi, lowTo: Midi, highFrom: Midi, highTo: Midi): MotionKind {
  const low = Math.sign(lowTo - lowFrom);
  const high = Math.sign(highTo - highFrom);
  if (!low && !high) return "none";
  if (!low || !high) return "oblique";
  if (low !== high) return "contrary";
  return highFrom - lowFrom === highTo - lowTo ? "parallel" : "similar";
}

/**
 * Parallel perfect interval between two voices that both move in the same direction from a fifth (octave, unison) into
 * another of the same class (Huron 2001; any harmony textbook). Null when there is none.
 */
export function parallelPerfect(lowFrom: Midi, lowTo: Midi, highFrom: Midi, highTo: Midi): "fifth" | "octave" | null {
  if (lowFrom === lowTo || Math.sign(lowTo - lowFrom) !== Math.sign(highTo - highFrom)) return null;
  const from = mod(highFrom - lowFrom, 12);
  if (from !== mod(highTo - lowTo, 12)) return null;
  if (from === 7) return "fifth";
  if (from === 0) return "octave";
  return null;
}

/**
 * How a voice goes against another one that may lie above or below it: the kind of motion, and whether a perfect
 * interval is parallel.
 */
export function motionAgainst(
  from: Midi,
  to: Midi,
  otherFrom: Midi,
  otherTo: Midi,
): { kind: MotionKind; parallel: boolean } {
  const voices =
    from < otherFrom ? ([from, to, otherFrom, otherTo] as const) : ([otherFrom, otherTo, from, to] as const);
  return { kind: motionKind(...voices), parallel: parallelPerfect(...voices) !== null };
}

/**
 * Total motion in semitones between two sonorities, sorted low to high, every note of each matched to at least one of
 * the other: the smallest sum over all matchings that do not cross (for equal numbers this is voice to voice). Exact,
 * by dynamic programming.
 */
export function motionBetween(a: readonly Midi[], b: readonly Midi[]): number {
  if (a.length === b.length) {
    let sum = 0;
    for (let i = 0; i < a.length; i++) sum += Math.abs(nth(a, i) - nth(b, i));
    return sum;
  }
  // One row of the table is enough; this runs for every pair of candidates, so nothing is allocated.
  for (let i = 0; i < a.length; i++) {
    let diagonal = Infinity;
    for (let j = 0; j < b.length; j++) {
      const up = i > 0 ? nth(row, j) : Infinity;
      const left = j > 0 ? nth(row, j - 1) : Infinity;
      const before = i === 0 && j === 0 ? 0 : Math.min(up, left, diagonal);
      diagonal = up;
      row[j] = before + Math.abs(nth(a, i) - nth(b, j));
    }
  }
  return nth(row, b.length - 1);
}

const row = new Float64Array(256);

/** Number of pitches two sonorities (low to high) share. */
export function commonTones(a: readonly Midi[], b: readonly Midi[]): number {
  let count = 0;
  for (let i = 0, j = 0; i < a.length && j < b.length;) {
    const apart = nth(a, i) - nth(b, j);
    if (apart === 0) count++;
    if (apart <= 0) i++;
    if (apart >= 0) j++;
  }
  return count;
}

/**
 * Smallest voice leading between two sets of pitch classes of equal size: sum of semitones, octaves free (Tymoczko
 * 2006; Cohn 1996). For sorted sets the best matching is one of the rotations.
 */
export function voiceLeadingDistance(a: readonly number[], b: readonly number[]): number {
  const from = [...a].sort((x, y) => x - y);
  const to = [...b].sort((x, y) => x - y);
  const ring = (x: number, y: number) => Math.min(mod(x - y, 12), mod(y - x, 12));
  let best = Infinity;
  for (let rotation = 0; rotation < to.length; rotation++)
    best = Math.min(
      best,
      from.reduce((sum, x, i) => sum + ring(x, nth(to, (i + rotation) % to.length)), 0),
    );
  return best;
}

/**
 * Lowest sounding bottom note for each interval (arranging handbooks, value from memory; handbooks differ by a step),
 * by semitones from 1 to 16; the octave has none.
 */
export const LOW_INTERVAL_LIMITS: Readonly<Record<number, Midi>> = {
  1: 52,
  2: 51,
  3: 48,
  4: 46,
  5: 46,
  6: 46,
  7: 34,
  8: 43,
  9: 41,
  10: 41,
  11: 41,
  13: 40,
  14: 39,
  15: 36,
  16: 34,
};

/** Semitones by which the bottom note lies below its limit; 0 when the interval is high enough or wide enough. */
export function belowLimit(low: Midi, high: Midi): number {
  const limit = LOW_INTERVAL_LIMITS[high - low];
  return limit === undefined ? 0 : Math.max(0, limit - low);
}
