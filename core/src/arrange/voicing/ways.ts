import { firstOf, lastOf, nth } from "../../base/list";
import { madeOf, type Steps } from "../../base/steps";
import {
  cheapestPaths,
  cheapestPrepared,
  pathCost,
  prepare,
  type Lattice,
  type Path,
  type Prepared,
} from "../../search/lattice";
import { cheapestPruned } from "../../search/pruned";
import type { VoicingSpace } from "./space";

/** A path, and whether no cheaper one differs from those before it. */
export interface FoundPath {
  path: Path;
  exact: boolean;
}

/** Paths looked at before alternatives are no longer sought in order of cost. */
const LOOKED_AT = 400;

/** Copies of the costs in which what was chosen before costs more. */
const withSurcharge = (prepared: Prepared, marked: readonly Set<number>[], by: number): Prepared => ({
  ...prepared,
  nodes: prepared.nodes.map((list, c) => list.map((cost, i) => (nth(marked, c).has(i) ? cost + by : cost))),
});

/**
 * Other ways are made of so many layouts of each chord, the cheapest beside the cheapest path (measured over 64 chords:
 * with twice as many the five others cost less by a two-hundredth at most).
 */
const WIDTH = 80;

/** A lattice of some candidates of each column, by their indices. */
interface Narrow {
  prepared: Prepared;
  at: number[][];
  /** Nothing was left out. */
  whole: boolean;
}

/** The candidates of which other ways are made. */
export function narrowed(lattice: Lattice, best: readonly number[]): Narrow {
  const { sizes, closed = false } = lattice;
  const n = sizes.length;
  const beside = (c: number, i: number): number => {
    const before = c > 0 || closed ? lattice.step((c + n - 1) % n, nth(best, (c + n - 1) % n), i) : 0;
    const after = c + 1 < n || closed ? lattice.step(c, i, nth(best, (c + 1) % n)) : 0;
    return lattice.node(c, i) + (n > 1 ? before + after : 0);
  };
  const at = sizes.map((size, c) => {
    const all = Array.from({ length: size }, (_, i) => i);
    if (size <= WIDTH) return all;
    // The cheapest path itself is one of them, however many cost the same.
    const costs = all.map((i) => (i === best[c] ? -Infinity : beside(c, i)));
    return all
      .sort((a, b) => nth(costs, a) - nth(costs, b))
      .slice(0, WIDTH)
      .sort((a, b) => a - b);
  });
  const prepared = prepare({
    ...{ sizes: at.map((list) => list.length), closed },
    node: (c, i) => lattice.node(c, nth(nth(at, c), i)),
    step: (c, i, j) => lattice.step(c, nth(nth(at, c), i), nth(nth(at, (c + 1) % n), j)),
  });
  return { prepared, at, whole: at.every((list, c) => list.length === sizes[c]) };
}

/**
 * The cheapest path, exactly, and up to k − 1 alternatives that a musician would notice: from each path before it an
 * alternative differs in the top or the lowest note of at least a quarter of the chords. They are sought in order of
 * cost among what lies near; where hundreds of near twins lie between, what was chosen before is made dearer until
 * another path wins. Unless nothing was left out and they came in order, they are marked as not proven. Each is told as
 * it is found.
 */
export function* pathSteps(space: VoicingSpace, k: number): Steps<readonly FoundPath[], FoundPath[]> {
  const { path: best, memory } = cheapestPruned(space.lattice, space.searched.memory);
  space.searched.memory = memory;
  if (!best) return [];
  const found: FoundPath[] = [{ path: best, exact: true }];
  if (k === 1 || (yield found) === false) return found;
  const { columns } = space;
  const least = Math.max(1, Math.ceil(columns.length / 4));
  const pairs = columns.map((c) => c.candidates.map((v) => firstOf(v.pitches) * 128 + lastOf(v.pitches)));
  const { prepared, at, whole } = narrowed(space.lattice, best.picks);
  const outer = at.map((list, c) => list.map((i) => nth(nth(pairs, c), i)));
  const differs = (a: readonly number[], b: readonly number[]) =>
    a.filter((x, c) => nth(outer, c)[x] !== nth(outer, c)[nth(b, c)]).length >= least;
  const marked = columns.map(() => new Set<number>());
  const mark = ({ picks }: Path) =>
    picks.forEach((x, c) => nth(outer, c).forEach((o, i) => o === nth(outer, c)[x] && nth(marked, c).add(i)));
  const wide = ({ picks, cost }: Path): Path => ({ picks: picks.map((x, c) => nth(nth(at, c), x)), cost });
  const taken: Path[] = [{ picks: best.picks.map((x, c) => nth(at, c).indexOf(x)), cost: best.cost }];
  const isNew = (path: Path) => taken.every((other) => differs(path.picks, other.picks));
  const take = (path: Path, exact: boolean) => {
    taken.push(path);
    found.push({ path: wide(path), exact });
  };
  for (const path of cheapestPaths(prepared, { k, differs, limit: LOOKED_AT })
    .filter(isNew)
    .slice(0, k - 1))
    take(path, whole);
  taken.forEach(mark);
  while (found.length < k && (yield found) !== false) {
    let next: Path | null = null;
    for (let by = 0.25; by <= 64 && !next; by *= 2) {
      const path = cheapestPrepared(withSurcharge(prepared, marked, by));
      if (path && isNew(path)) next = path;
    }
    if (!next) break;
    take({ picks: next.picks, cost: pathCost(prepared, next.picks) }, false);
    mark(next);
  }
  const [first, ...rest] = found;
  return first ? [first, ...rest.sort((a, b) => a.path.cost - b.path.cost)] : [];
}

/** The paths that `pathSteps` finds when nobody looks. */
export const pathsOf = (space: VoicingSpace, k: number): FoundPath[] => madeOf(pathSteps(space, k));
