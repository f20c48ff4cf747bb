import { nth } from "../base/list";
import { madeOf, type Steps } from "../base/steps";
import { cheapestPrepared, pathCost, type Path, type Prepared } from "./lattice";

export interface Varied {
  k: number;
  /** How alike two candidates of a column are, 0 to 1. */
  alike(column: number, i: number, j: number): number;
  /** How many columns every two paths must differ in, likeness counted off. */
  atLeast: number;
}

/** Charges for likeness are doubled from the first this often; then nothing different is left. */
const DOUBLINGS = 12;
const FIRST = 0.05;

/**
 * Paths that differ from each other, best first. The first is the exact cheapest; every other is the exact cheapest
 * when each column it shares with an earlier one is charged, with the lowest charge (to within a factor of two) that
 * makes it differ enough. Time: at most k · `DOUBLINGS` single searches, whatever the number of paths that hardly
 * differ. Fewer than k where no others are left. Each is told as it is found.
 */
export function* variedSteps(prepared: Prepared, { k, alike, atLeast }: Varied): Steps<readonly Path[], Path[]> {
  const first = cheapestPrepared(prepared);
  if (!first) return [];
  const found = [first];
  const differ = (a: Path, b: Path) =>
    a.picks.reduce((sum, i, c) => sum + 1 - alike(c, i, nth(b.picks, c)), 0) >= atLeast - 1e-9;
  while (found.length < k && (yield found) !== false) {
    const shares = prepared.nodes.map((nodes, c) =>
      Float64Array.from(nodes, (_, i) => found.reduce((sum, path) => sum + alike(c, i, nth(path.picks, c)), 0)),
    );
    let next: Path | null = null;
    for (let d = 0, charge = FIRST; d < DOUBLINGS && !next; d++, charge *= 2) {
      const nodes = prepared.nodes.map((costs, c) => costs.map((cost, i) => cost + charge * nth(nth(shares, c), i)));
      const path = cheapestPrepared({ ...prepared, nodes });
      if (path && found.every((other) => differ(other, path)))
        next = { picks: path.picks, cost: pathCost(prepared, path.picks) };
    }
    if (!next) break;
    found.push(next);
  }
  return found.sort((a, b) => a.cost - b.cost);
}

/** The paths that `variedSteps` finds when nobody looks. */
export const variedPaths = (prepared: Prepared, wanted: Varied): Path[] => madeOf(variedSteps(prepared, wanted));
