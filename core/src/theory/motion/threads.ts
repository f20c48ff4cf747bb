import { nth } from "../../base/list";
import type { Midi, Semitones } from "../pitch/pitch";
import { parallelPerfect } from "./motion";

export type ThreadKind = "common" | "step" | "leap";

/** The way of one voice from a sonority to the next: indices into the two, low to high. */
export interface Thread {
  from: number;
  to: number;
  semitones: Semitones;
  /** Kept, moved by at most a whole tone, or farther. */
  kind: ThreadKind;
  /** It moves in a parallel fifth or octave with another voice. */
  parallel: "fifth" | "octave" | null;
}

/** Between which voices parallels count: every pair, as in four parts, the outermost two, or none. */
export type Counted = "every" | "outer" | "none";

/** Whether a pair of voices counts, by their places among so many. */
export const counts = (counted: Counted, low: number, high: number, voices: number): boolean =>
  counted === "every" || (counted === "outer" && low === 0 && high === voices - 1);

/**
 * Which note of a sonority goes to which of the next, both low to high: no two ways cross, every note takes part, and
 * the sum of the ways is the smallest there is (the matching that `motionBetween` measures).
 */
export function threads(a: readonly Midi[], b: readonly Midi[], counted: Counted = "every"): Thread[] {
  if (!a.length || !b.length) return [];
  const cost = a.map(() => new Array<number>(b.length).fill(Infinity));
  for (let i = 0; i < a.length; i++)
    for (let j = 0; j < b.length; j++) {
      const before =
        i + j === 0
          ? 0
          : Math.min(cost[i - 1]?.[j] ?? Infinity, nth(cost, i)[j - 1] ?? Infinity, cost[i - 1]?.[j - 1] ?? Infinity);
      nth(cost, i)[j] = before + Math.abs(nth(a, i) - nth(b, j));
    }
  const pairs: [number, number][] = [];
  if (a.length === b.length) a.forEach((_, i) => pairs.push([i, i]));
  else
    for (let i = a.length - 1, j = b.length - 1; ;) {
      pairs.unshift([i, j]);
      if (i + j === 0) break;
      const options: [number, number][] = [
        [i - 1, j - 1],
        [i - 1, j],
        [i, j - 1],
      ];
      [i, j] = options.reduce((best, o) =>
        (cost[o[0]]?.[o[1]] ?? Infinity) < (cost[best[0]]?.[best[1]] ?? Infinity) ? o : best,
      );
    }
  return pairs.map(([from, to], own): Thread => {
    const semitones = nth(b, to) - nth(a, from);
    const other = pairs
      .map(([i, j], k) => {
        if (i === from || j === to || !counts(counted, Math.min(k, own), Math.max(k, own), pairs.length)) return null;
        if (i < from) return parallelPerfect(nth(a, i), nth(b, j), nth(a, from), nth(b, to));
        return parallelPerfect(nth(a, from), nth(b, to), nth(a, i), nth(b, j));
      })
      .find((p) => p !== null);
    const kindOf = () => {
      if (semitones === 0) return "common";
      if (Math.abs(semitones) <= 2) return "step";
      return "leap";
    };
    return {
      from,
      to,
      semitones,
      kind: kindOf(),
      parallel: other ?? null,
    };
  });
}
