import { firstOf, lastOf, nth } from "../../base/list";
import { ok, type Result } from "../../base/result";
import { parsePattern } from "../../song/comp/patterns";
import { mod } from "../../theory/pitch/pitch";

/** How near a rhythm comes to a reference, both as attacks on the steps of one cycle. */
export interface Nearness {
  /** Steps on which both are struck, of all that either strikes, 0–1. */
  share: number;
  /** The same at the rotation of the reference that comes nearest, and by how many steps it is rotated. */
  rotatedShare: number;
  rotatedBy: number;
  /**
   * Steps that attacks would have to be moved in all, to make one of the other (directed swap distance, Díaz-Báñez et
   * al. 2004).
   */
  swaps: number;
  together: number[];
}

/**
 * Reads a reference like "x..x..x...x.x...": x and X are struck, all else is not. Errors: `pattern.mark`,
 * `pattern.long`.
 */
export function parseReference(text: string): Result<boolean[]> {
  const read = parsePattern(text);
  return read.ok ? ok([...read.value].map((c) => /x/i.test(c))) : read;
}

const onsets = (steps: readonly boolean[]): number[] => steps.flatMap((s, i) => (s ? [i] : []));

/** A rhythm repeated or cut to a number of steps. */
export const fitted = (steps: readonly boolean[], length: number): boolean[] =>
  Array.from({ length }, (_, i) => steps.length > 0 && nth(steps, i % steps.length));

function share(a: readonly boolean[], b: readonly boolean[]): number {
  let [both, either] = [0, 0];
  a.forEach((x, i) => {
    if (x && b[i]) both++;
    if (x || b[i]) either++;
  });
  return either ? both / either : 0;
}

/**
 * Sum of the steps that the attacks of the fuller rhythm move to reach those of the other, each of which at least one
 * must reach, in order (Díaz-Báñez, Farigu, Gómez, Rappaport & Toussaint 2004). Exact, by dynamic programming.
 */
export function swapDistance(a: readonly boolean[], b: readonly boolean[]): number {
  const [many, few] = [onsets(a), onsets(b)].sort((x, y) => y.length - x.length) as [number[], number[]];
  if (!few.length) return 0;
  // best[j]: cheapest way in which the attacks so far reach the first j+1 of the other.
  let best = few.map((f, j) => (j === 0 ? Math.abs(firstOf(many) - f) : Infinity));
  for (const m of many.slice(1))
    best = best.map((cost, j) => Math.min(cost, j > 0 ? nth(best, j - 1) : Infinity) + Math.abs(m - nth(few, j)));
  return lastOf(best);
}

/** Compares a rhythm with a reference over the length of the longer one. */
export function nearness(own: readonly boolean[], reference: readonly boolean[]): Nearness {
  const length = Math.max(own.length, reference.length);
  const [a, b] = [fitted(own, length), fitted(reference, length)];
  let [rotatedShare, rotatedBy] = [0, 0];
  for (let by = 0; by < length; by++) {
    const here = share(
      a,
      a.map((_, i) => nth(b, mod(i - by, length))),
    );
    if (here > rotatedShare + 1e-9) [rotatedShare, rotatedBy] = [here, by];
  }
  return {
    share: share(a, b),
    rotatedShare,
    rotatedBy,
    swaps: swapDistance(a, b),
    together: a.flatMap((x, i) => (x && b[i] ? [i] : [])),
  };
}

/**
 * Attacks to move until a rhythm shares less than a limit with a reference: one at a time, by one or two steps, the
 * weakest place first; the first step of the cycle stays. Fewer moves where no more help.
 */
export function moveAway(
  own: readonly boolean[],
  reference: readonly boolean[],
  below: number,
): [from: number, to: number][] {
  const length = Math.max(own.length, reference.length);
  const now = fitted(own, length);
  const b = fitted(reference, length);
  const moves: [number, number][] = [];
  while (share(now, b) >= below) {
    let best: { from: number; to: number; score: number } | null = null;
    for (let from = 1; from < length; from++) {
      if (!now[from] || !b[from]) continue;
      for (const by of [1, -1, 2, -2]) {
        const to = from + by;
        if (to <= 0 || to >= length || now[to] || b[to]) continue;
        // Beats stay before offbeats do; short moves before long ones.
        const placeCost = () => {
          if (from % 4 === 0) return 4;
          if (from % 2 === 0) return 1;
          return 0;
        };
        const score = placeCost() + Math.abs(by) + (to % 2 ? 0.5 : 0);
        if (!best || score < best.score) best = { from, to, score };
      }
    }
    if (!best) break;
    now[best.from] = false;
    now[best.to] = true;
    moves.push([best.from, best.to]);
  }
  return moves;
}
