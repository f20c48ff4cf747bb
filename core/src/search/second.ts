import { nth, sure } from "../base/list";
import type { Path } from "./lattice";

/**
 * Columns of candidates whose cost may depend on three in a row: how a leap is answered, how a suspension is prepared
 * and resolved. Open.
 */
export interface SecondOrder {
  sizes: readonly number[];
  node(column: number, i: number): number;
  step(column: number, i: number, j: number): number;
  /** Cost of candidates i, j, k of three columns in a row, beside that of their two steps. */
  turn(column: number, i: number, j: number, k: number): number;
}

/** The exact cheapest path, or null where every one is forbidden. Time: Σ size·size·size over columns in a row. */
export function cheapestSecond({ sizes, node, step, turn }: SecondOrder): Path | null {
  const n = sizes.length;
  if (!n || sizes.includes(0)) return null;
  const nodes = sizes.map((size, c) => Float64Array.from({ length: size }, (_, i) => node(c, i)));
  if (n === 1) return cheapest(nth(nodes, 0), () => [], 1);
  // rest[i * cols + j]: from candidate i of a column and j of the next one to the end, with their own costs.
  let rest: Float64Array | null = null;
  const picks: Int32Array[] = [];
  for (let c = n - 2; c >= 0; c--) {
    const [rows, cols, after] = [nth(sizes, c), nth(sizes, c + 1), sizes[c + 2] ?? 0];
    const here = new Float64Array(rows * cols).fill(Infinity);
    const pick = new Int32Array(rows * cols);
    for (let i = 0; i < rows; i++) {
      if (nodes[c]![i] === Infinity) continue;
      for (let j = 0; j < cols; j++) {
        const own = nodes[c]![i]! + step(c, i, j);
        if (own === Infinity) continue;
        if (!rest) {
          here[i * cols + j] = own + nodes[c + 1]![j]!;
          continue;
        }
        let best = Infinity;
        for (let k = 0; k < after; k++) {
          const ahead = rest[j * after + k]!;
          if (ahead >= best) continue;
          const cost = ahead + turn(c, i, j, k);
          if (cost < best) {
            best = cost;
            pick[i * cols + j] = k;
          }
        }
        here[i * cols + j] = own + best;
      }
    }
    rest = here;
    picks[c] = pick;
  }
  const cols = nth(sizes, 1);
  return cheapest(
    sure(rest),
    (at) => {
      const path = [Math.floor(at / cols), at % cols];
      for (let c = 0; c + 2 < n; c++)
        path.push(nth(nth(picks, c), nth(path, c) * nth(sizes, c + 1) + nth(path, c + 1)));
      return path;
    },
    2,
  );
}

function cheapest(costs: Float64Array, pathFrom: (at: number) => number[], known: number): Path | null {
  let at = 0;
  for (let i = 1; i < costs.length; i++) if (nth(costs, i) < nth(costs, at)) at = i;
  return costs[at] === Infinity ? null : { picks: known === 1 ? [at] : pathFrom(at), cost: nth(costs, at) };
}
