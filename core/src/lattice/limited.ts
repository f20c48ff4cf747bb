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
  /** Kinds that are allowed on the way from i to j, as bits; all of them where the group is free. */
  kinds: Int32Array;
}

const EVERYTHING = -1;
const bits = (set: number): number => {
  let n = 0;
  for (let s = set; s; s &= s - 1) n++;
  return n;
};

/**
 * The exact cheapest path whose groups keep to the limit. Each group is solved alone, from every entry to every exit, and the groups are joined as a
 * lattice of their own; a group is limited only when the best path so far breaks its limit there, so that what is left free bounds the rest from below.
 * Time: linear in the number of groups. Null where every path is forbidden.
 */
export function cheapestLimited(limited: Limited): LimitedPath | null {
  const { prepared: p, groups, most } = limited;
  if (!p.sizes.length || p.sizes.includes(0)) return null;
  const free = groups.map((g) => within(limited, g, EVERYTHING));
  const now = [...free];
  const bound = new Set<number>();
  const over = new Set<number>();
  for (;;) {
    const path = joined(limited, now);
    if (!path) {
      // What cannot be met is left free again, the newest limits first.
      const relaxed = [...bound].filter((g) => !over.has(g)).pop();
      if (relaxed === undefined) return null;
      over.add(relaxed);
      now[relaxed] = free[relaxed]!;
      continue;
    }
    const broken = groups.flatMap((g, k) => (most !== null && !bound.has(k) && kindsOf(limited, g, path.picks) > most ? [k] : []));
    if (!broken.length) return { ...path, over: [...over].sort((a, b) => a - b) };
    for (const k of broken) {
      bound.add(k);
      const kept = limit(limited, groups[k]!, most!, free[k]!);
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

/** Candidates of each column of a group that are of some kinds. */
const allowed = ({ prepared: p, kindOf }: Limited, [first, last]: readonly [number, number], kinds: number): number[][] =>
  Array.from({ length: last - first + 1 }, (_, k) => {
    const c = first + k;
    const list: number[] = [];
    for (let i = 0; i < p.sizes[c]!; i++) if ((kinds >> kindOf(c, i)) & 1 && p.nodes[c]![i]! < Infinity) list.push(i);
    return list;
  });

/** Costs through a group with some kinds of candidates; `into` is lowered where this way is cheaper. */
function through(p: Prepared, first: number, lists: readonly number[][], kinds: number, into: Within): void {
  const last = first + lists.length - 1;
  const exits = p.sizes[last]!;
  for (const i of lists[0]!) {
    let costs = lists[0]!.map((x) => (x === i ? p.nodes[first]![i]! : Infinity));
    for (let k = 1; k < lists.length; k++) {
      const c = first + k;
      const [from, to] = [lists[k - 1]!, lists[k]!];
      const table = p.steps[c - 1]!;
      const width = p.sizes[c]!;
      const next = new Array<number>(to.length).fill(Infinity);
      for (let a = 0; a < from.length; a++) {
        const base = costs[a]!;
        if (base === Infinity) continue;
        const row = from[a]! * width;
        for (let b = 0; b < to.length; b++) {
          const cost = base + table[row + to[b]!]!;
          if (cost < next[b]!) next[b] = cost;
        }
      }
      for (let b = 0; b < to.length; b++) next[b]! += p.nodes[c]![to[b]!]!;
      costs = next;
    }
    lists.at(-1)!.forEach((j, b) => {
      if (costs[b]! < into.costs[i * exits + j]!) {
        into.costs[i * exits + j] = costs[b]!;
        into.kinds[i * exits + j] = kinds;
      }
    });
  }
}

function within(limited: Limited, group: readonly [number, number], kinds: number): Within {
  const { prepared: p } = limited;
  const size = p.sizes[group[0]]! * p.sizes[group[1]]!;
  const into = { costs: new Float64Array(size).fill(Infinity), kinds: new Int32Array(size).fill(EVERYTHING) };
  through(p, group[0], allowed(limited, group, kinds), kinds, into);
  return into;
}

/** Costs through a group that uses at most so many kinds; null where it cannot. Sets of kinds are tried from the cheapest lower bound on. */
function limit(limited: Limited, group: readonly [number, number], most: number, free: Within): Within | null {
  const { prepared: p, kindOf } = limited;
  const [first, last] = group;
  let present = 0;
  for (let c = first; c <= last; c++) for (let i = 0; i < p.sizes[c]!; i++) if (p.nodes[c]![i]! < Infinity) present |= 1 << kindOf(c, i);
  const tries = subsets(present, Math.min(most, bits(present))).flatMap((kinds) => {
    const lists = allowed(limited, group, kinds);
    if (lists.some((l) => !l.length)) return [];
    return [{ kinds, lists, least: lists.reduce((sum, l, k) => sum + Math.min(...l.map((i) => p.nodes[first + k]![i]!)), 0) }];
  });
  if (!tries.length) return null;
  const into = { costs: new Float64Array(free.costs.length).fill(Infinity), kinds: new Int32Array(free.costs.length) };
  const exits = p.sizes[last]!;
  // Steps may cost a little less than nothing.
  let cheapest = 0;
  for (let c = first; c < last; c++) for (const cost of p.steps[c]!) if (cost < cheapest) cheapest = cost;
  const bonus = cheapest * (last - first);
  for (const { kinds, lists, least } of tries.sort((a, b) => a.least - b.least)) {
    // Nothing is gained where every way in and out is already as cheap as without a limit, or as this set can be at best.
    const ends = lists.at(-1)!;
    const [into0, out0] = [Math.min(...lists[0]!.map((i) => p.nodes[first]![i]!)), Math.min(...ends.map((j) => p.nodes[last]![j]!))];
    const gains = lists[0]!.some((i) =>
      ends.some((j) => {
        const at = i * exits + j;
        const best = first === last ? least : least - into0 - out0 + p.nodes[first]![i]! + p.nodes[last]![j]!;
        return into.costs[at]! > Math.max(free.costs[at]!, best + bonus) + 1e-12;
      }),
    );
    if (gains) through(p, first, lists, kinds, into);
  }
  return into;
}

/** All subsets of a set of kinds with so many members, as bits. */
function subsets(set: number, size: number): number[] {
  const members = Array.from({ length: 32 }, (_, k) => k).filter((k) => (set >> k) & 1);
  const out: number[] = [];
  const add = (from: number, chosen: number, left: number): void => {
    if (!left) {
      out.push(chosen);
      return;
    }
    for (let k = from; k <= members.length - left; k++) add(k + 1, chosen | (1 << members[k]!), left - 1);
  };
  add(0, 0, size);
  return out;
}

/** The cheapest way through all groups, each by its own costs: a lattice of entries and exits. */
function joined({ prepared: p, groups, kindOf }: Limited, costs: readonly Within[]): Path | null {
  const ends = groups.flatMap(([first, last]) => [first, last]);
  const steps = groups.flatMap(([, last], k) => [costs[k]!.costs, ...p.steps.slice(last, last + 1)]);
  const path = cheapestPrepared({
    sizes: ends.map((c) => p.sizes[c]!),
    nodes: ends.map((c) => new Float64Array(p.sizes[c]!)),
    steps,
    closed: p.closed,
  });
  if (!path) return null;
  const picks = groups.flatMap(([first, last], k) => {
    const [i, j] = [path.picks[2 * k]!, path.picks[2 * k + 1]!];
    const kinds = costs[k]!.kinds[i * p.sizes[last]! + j]!;
    return inside(p, kindOf, first, last, i, j, kinds);
  });
  return { picks, cost: path.cost };
}

/** The cheapest way from an entry of a group to an exit, with some kinds of candidates. */
function inside(p: Prepared, kindOf: Limited["kindOf"], first: number, last: number, i: number, j: number, kinds: number): number[] {
  const only = (c: number): Float64Array =>
    p.nodes[c]!.map((cost, x) => ((kinds >> kindOf(c, x)) & 1 && (c !== first || x === i) && (c !== last || x === j) ? cost : Infinity));
  const columns = Array.from({ length: last - first + 1 }, (_, k) => first + k);
  return cheapestPrepared({
    sizes: columns.map((c) => p.sizes[c]!),
    nodes: columns.map(only),
    steps: columns.slice(0, -1).map((c) => p.steps[c]!),
    closed: false,
  })!.picks;
}
