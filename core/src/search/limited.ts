import { sure } from "../base/list";
import { cheapestPrepared, type Path, type Prepared } from "./lattice";

/** A lattice whose columns stand in groups, each of which may use only so many kinds of candidates. */
export interface Limited {
  prepared: Prepared;
  /** Columns of each group: first and last, in order, without gaps. */
  groups: readonly (readonly [first: number, last: number])[];
  /** Kind of a candidate, 0 to 31. */
  kindOf(column: number, i: number): number;
  /** Most kinds a group may use; null where it is free. */
  most: number | null;
}

export interface LimitedPath extends Path {
  /** Groups, by index, that cannot keep to the limit: they are left free. */
  over: number[];
}

/** Costs from every entry of a group to every exit of it. */
interface Within {
  /** [i * exits + j] */
  costs: Float64Array;
  /** Kinds that the cheapest way from i to j uses, as bits. */
  kinds: Int32Array;
}

const EVERYTHING = -1;
const bits = (set: number): number => {
  let n = 0;
  for (let s = set; s; s &= s - 1) n++;
  return n;
};

/**
 * The exact cheapest path whose groups keep to the limit. A group is limited only when the best path so far breaks its
 * limit there, so that what is left free bounds the rest from below; then it is solved alone, from every entry to every
 * exit, and stands among the columns of the others as two columns of its own. Time: linear in the number of groups.
 * Null where every path is forbidden.
 */
export function cheapestLimited(limited: Limited): LimitedPath | null {
  const { prepared: p, groups, most } = limited;
  if (!p.sizes.length || p.sizes.includes(0)) return null;
  const now: (Within | null)[] = groups.map(() => null);
  const bound = new Set<number>();
  const over = new Set<number>();
  for (;;) {
    const path = joined(limited, now);
    if (!path) {
      // What cannot be met is left free again, the newest limits first.
      const relaxed = [...bound].filter((g) => !over.has(g)).pop();
      if (relaxed === undefined) return null;
      over.add(relaxed);
      now[relaxed] = null;
      continue;
    }
    const broken = groups.flatMap((g, k) =>
      most !== null && !bound.has(k) && kindsOf(limited, g, path.picks) > most ? [k] : [],
    );
    if (!broken.length) return { ...path, over: [...over].sort((a, b) => a - b) };
    for (const k of broken) {
      bound.add(k);
      const kept = limit(limited, groups[k]!, sure(most));
      if (kept) now[k] = kept;
      else over.add(k);
    }
  }
}

/** How many kinds a path uses in a group. */
function kindsOf({ kindOf }: Limited, [first, last]: readonly [number, number], picks: readonly number[]): number {
  let used = 0;
  for (let c = first; c <= last; c++) used |= 1 << kindOf(c, picks[c]!);
  return bits(used);
}

/**
 * Costs through a group with some kinds of candidates, from every entry to every exit, and the kinds that the cheapest
 * way uses.
 */
function through({ prepared: p, kindOf }: Limited, [first, last]: readonly [number, number], kinds: number): Within {
  const lists = Array.from({ length: last - first + 1 }, (_, k) => {
    const c = first + k;
    const list: number[] = [];
    for (let i = 0; i < p.sizes[c]!; i++) if ((kinds >> kindOf(c, i)) & 1 && p.nodes[c]![i]! < Infinity) list.push(i);
    return list;
  });
  const bitsOf = lists.map((list, k) => list.map((i) => 1 << kindOf(first + k, i)));
  const exits = p.sizes[last]!;
  const size = p.sizes[first]! * exits;
  const into = { costs: new Float64Array(size).fill(Infinity), kinds: new Int32Array(size) };
  if (lists.some((l) => !l.length)) return into;
  lists[0]!.forEach((i, at) => {
    let costs = lists[0]!.map((x) => (x === i ? p.nodes[first]![i]! : Infinity));
    let used = lists[0]!.map(() => bitsOf[0]![at]!);
    for (let k = 1; k < lists.length; k++) {
      const c = first + k;
      const [from, to] = [lists[k - 1]!, lists[k]!];
      const table = p.steps[c - 1]!;
      const width = p.sizes[c]!;
      const next = new Array<number>(to.length).fill(Infinity);
      const by = new Array<number>(to.length).fill(0);
      for (let a = 0; a < from.length; a++) {
        const base = costs[a]!;
        if (base === Infinity) continue;
        const row = from[a]! * width;
        for (let b = 0; b < to.length; b++) {
          const cost = base + table[row + to[b]!]!;
          if (cost < next[b]!) {
            next[b] = cost;
            by[b] = used[a]!;
          }
        }
      }
      for (let b = 0; b < to.length; b++) {
        next[b] = next[b]! + p.nodes[c]![to[b]!]!;
        by[b] = by[b]! | bitsOf[k]![b]!;
      }
      costs = next;
      used = by;
    }
    lists.at(-1)!.forEach((j, b) => {
      into.costs[i * exits + j] = costs[b]!;
      into.kinds[i * exits + j] = used[b]!;
    });
  });
  return into;
}

/**
 * Costs through a group that uses at most so many kinds; null where it cannot. From one end to the other: where the
 * cheapest way uses too many, every way that keeps the limit does without at least one of those it uses, so the search
 * branches over which. What was solved once serves all ends.
 */
function limit(limited: Limited, group: readonly [number, number], most: number): Within | null {
  const free = through(limited, group, EVERYTHING);
  const solved = new Map<number, Within>([[EVERYTHING, free]]);
  const solve = (kinds: number): Within => {
    let found = solved.get(kinds);
    if (!found) solved.set(kinds, (found = through(limited, group, kinds)));
    return found;
  };
  const into = { costs: new Float64Array(free.costs.length).fill(Infinity), kinds: new Int32Array(free.costs.length) };
  let any = false;
  for (let at = 0; at < free.costs.length; at++) {
    const queue = [EVERYTHING];
    const seen = new Set(queue);
    while (queue.length) {
      let best = 0;
      for (let q = 1; q < queue.length; q++) if (solve(queue[q]!).costs[at]! < solve(queue[best]!).costs[at]!) best = q;
      const kinds = queue.splice(best, 1)[0]!;
      const { costs, kinds: uses } = solve(kinds);
      if (costs[at] === Infinity) break;
      const used = uses[at]!;
      if (bits(used) <= most) {
        into.costs[at] = costs[at]!;
        into.kinds[at] = used;
        any = true;
        break;
      }
      for (let k = 0; k < 32; k++) {
        const without = kinds & ~(1 << k);
        if (!((used >> k) & 1) || seen.has(without)) continue;
        seen.add(without);
        queue.push(without);
      }
    }
  }
  return any ? into : null;
}

/**
 * The cheapest way through all groups: those that are limited as their entries and exits with the costs between them,
 * the others as they are.
 */
function joined({ prepared: p, groups, kindOf }: Limited, limits: readonly (Within | null)[]): Path | null {
  const nodes: Float64Array[] = [];
  const steps: Float64Array[] = [];
  groups.forEach(([first, last], k) => {
    const within = limits[k];
    const ends = [p.nodes[first]!, p.nodes[last]!].map((costs) => new Float64Array(costs.length));
    nodes.push(...(within ? ends : p.nodes.slice(first, last + 1)));
    steps.push(...(within ? [within.costs] : p.steps.slice(first, last)), ...p.steps.slice(last, last + 1));
  });
  const path = cheapestPrepared({ sizes: nodes.map((costs) => costs.length), nodes, steps, closed: p.closed });
  if (!path) return null;
  let at = 0;
  const picks = groups.flatMap(([first, last], k) => {
    const within = limits[k];
    const here = path.picks.slice(at, (at += within ? 2 : last - first + 1));
    if (!within) return here;
    const [i, j] = [here[0]!, here[1]!];
    const kinds = within.kinds[i * p.sizes[last]! + j]!;
    return inside(p, kindOf, { first, last, i, j, kinds });
  });
  return { picks, cost: path.cost };
}

/** The cheapest way from an entry of a group to an exit, with some kinds of candidates. */
function inside(
  p: Prepared,
  kindOf: Limited["kindOf"],
  { first, last, i, j, kinds }: { first: number; last: number; i: number; j: number; kinds: number },
): number[] {
  const only = (c: number): Float64Array =>
    p.nodes[c]!.map((cost, x) =>
      (kinds >> kindOf(c, x)) & 1 && (c !== first || x === i) && (c !== last || x === j) ? cost : Infinity,
    );
  const columns = Array.from({ length: last - first + 1 }, (_, k) => first + k);
  return sure(
    cheapestPrepared({
      sizes: columns.map((c) => p.sizes[c]!),
      nodes: columns.map(only),
      steps: columns.slice(0, -1).map((c) => p.steps[c]!),
      closed: false,
    }),
  ).picks;
}
