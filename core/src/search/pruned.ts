import type { Lattice, Path } from "./lattice";
import { Columns, SAME, type BoundedLattice } from "./onward";

/**
 * What a search leaves for the next one over nearly the same columns. `rest[c][i]`: what it costs from candidate i of
 * column c on, up to a constant of the column; `next[c][i]`: the candidate of the next column by which it is so cheap,
 * or −1 where it costs at least that.
 */
export interface SearchMemory {
  names: object[];
  closed: boolean;
  rest: Float64Array[];
  next: Int32Array[];
  /** What was taken away from the potentials of a column, so that the least is 0. */
  shift: number[];
}

/** Makes the smallest 0, and says what was taken away: Infinity where all are forbidden. */
function fromZero(values: Float64Array): number {
  let least = Infinity;
  for (const v of values) if (v < least) least = v;
  if (least < Infinity) for (let i = 0; i < values.length; i++) values[i]! -= least;
  return least;
}

function alikeUpTo(a: Float64Array, b: Float64Array): boolean {
  if (a.length !== b.length) return false;
  for (let i = 0; i < a.length; i++) if (!(a[i] === b[i] || Math.abs(a[i]! - b[i]!) <= SAME)) return false;
  return true;
}

/**
 * Which column of a former search each column was: from the beginning as far as they are the same, and from the end.
 */
function formerColumns(names: readonly object[], former: readonly object[]): number[] {
  const was = Array<number>(names.length).fill(-1);
  if (names.length === former.length) return names.map((name, c) => (former[c] === name ? c : -1));
  let from = 0;
  while (from < names.length && names[from] === former[from]) was[from] = from++;
  const shift = former.length - names.length;
  for (let c = names.length - 1; c >= from && c + shift >= from && names[c] === former[c + shift]; c--)
    was[c] = c + shift;
  return was;
}

/** A ring is worked on as if it had at least so many columns. */
const LEAST = 24;

/** Turns round the ring after which it is given up that all columns agree. */
const TURNS = 6;

/**
 * The exact cheapest path, open or closed, or null where every one is forbidden; `memory` of a search over nearly the
 * same columns, where there is one, and what this one leaves.
 * Each column has potentials: what it costs from each candidate on, up to a constant. They are worked out from the end,
 * a column again only where those of the next one changed by more than a constant. On a ring they are worked out round
 * and round until every column agrees with the next (value iteration; Howard 1960): then no closed path costs less than
 * following the cheapest ways on, whose reduced costs are all zero. Where that comes back to where it began after one
 * turn it is the cheapest; where it needs several turns, starts are divided by branch and bound.
 */
export function cheapestPruned(
  lattice: BoundedLattice,
  memory?: SearchMemory,
): { path: Path | null; memory: SearchMemory | undefined } {
  const n = lattice.sizes.length;
  if (!n || lattice.sizes.includes(0)) return { path: null, memory: undefined };
  const closed = lattice.closed === true && n > 1;
  const columns = new Columns(lattice, closed);
  const names = lattice.sizes.map((_, c) => lattice.alike(c));
  let values = settled(columns, names, memory?.closed === closed ? memory : undefined);
  while (values) {
    const { agree, ...left } = values;
    const way = wayOf(columns, values);
    if (way.ask !== undefined) {
      columns.whole.add(way.ask);
      values = settled(columns, names, { names, closed, ...left }, [way.ask]);
      continue;
    }
    const picks = way.picks ?? fromWhole(columns, names, { names, closed, ...left });
    if (picks === undefined) break;
    return {
      path: picks && { picks, cost: costOf(lattice, picks, closed) },
      memory: agree ? { names, closed, ...left } : undefined,
    };
  }
  return { path: null, memory: undefined };
}

/** The cheapest picks with every column worked out whole: null where there are none, undefined where no path is. */
function fromWhole(columns: Columns, names: readonly object[], memory: SearchMemory): number[] | null | undefined {
  for (let c = 0; c < columns.n; c++) columns.whole.add(c);
  const all = settled(columns, names, memory, columns.whole);
  if (!all) return undefined;
  return wayOf(columns, all).picks ?? (columns.closed ? divided(columns, all) : null);
}

/** A way through all columns, or the column that must be worked out whole before one can be told. */
interface Way {
  picks: number[] | null;
  ask?: number;
}

interface Values extends Pick<SearchMemory, "rest" | "next" | "shift"> {
  /** Every column agrees with the next. */
  agree: boolean;
}

/** Columns that are new, or are not followed by what followed them before, of `size` columns. */
function unknownColumns({ n, closed }: Columns, was: readonly number[], size: number): boolean[] {
  return was.map((old, c) => {
    if (old < 0) return true;
    if (c === n - 1 && !closed) return old !== size - 1;
    return was[(c + 1) % n] !== (old + 1) % size;
  });
}

/** What the cheapest ways on lead to: nothing on a ring whose columns do not agree. */
function wayOf(columns: Columns, values: Values): Way {
  if (!columns.closed) return openWay(values);
  return values.agree ? roundIn(columns, values) : { picks: null };
}

/**
 * Potentials of which every column agrees with the next; those of a ring may be a few turns short of it. Null where
 * there is no path.
 */
function settled(
  columns: Columns,
  names: readonly object[],
  memory: SearchMemory | undefined,
  again: Iterable<number> = [],
): Values | null {
  const { n, closed } = columns;
  const was = memory ? formerColumns(names, memory.names) : names.map(() => -1);
  const rest: (Float64Array | undefined)[] = was.map((old) => memory?.rest[old]);
  const next: (Int32Array | undefined)[] = was.map((old) => memory?.next[old]);
  const shift = was.map((old) => memory?.shift[old] ?? 0);
  const dirty = unknownColumns(columns, was, memory ? memory.names.length : 0);
  for (const at of again) dirty[at] = true;
  let left = dirty.filter(Boolean).length;
  let c = firstToWork(dirty, closed);
  for (let steps = 0; left && steps < Math.max(n, LEAST) * TURNS; steps++, c = (c + n - 1) % n) {
    if (!dirty[c]) continue;
    dirty[c] = false;
    left--;
    const made = columns.onward(c, aheadOf(columns, rest, c), next[c]);
    shift[c] = fromZero(made.rest);
    if (shift[c] === Infinity) return null;
    const before = rest[c];
    next[c] = made.next;
    if (before && alikeUpTo(before, made.rest)) continue;
    rest[c] = made.rest;
    const earlier = (c + n - 1) % n;
    if (!dirty[earlier] && (c > 0 || closed)) {
      dirty[earlier] = true;
      left++;
    }
  }
  return { rest: rest as Float64Array[], next: next as Int32Array[], shift, agree: !left };
}

/**
 * The last column; a ring begins before one that is known, so that what is ahead of the first to be worked out is
 * right up to little.
 */
function firstToWork(dirty: readonly boolean[], closed: boolean): number {
  const n = dirty.length;
  const found = closed ? dirty.findLastIndex((is, c) => is && !dirty[(c + 1) % n]) : -1;
  return found < 0 ? n - 1 : found;
}

/** Potentials of the column after one; null behind the last, zeros where they are not known yet. */
function aheadOf({ n, closed, nodes }: Columns, rest: readonly (Float64Array | undefined)[], c: number) {
  if (c === n - 1 && !closed) return null;
  const next = (c + 1) % n;
  return rest[next] ?? new Float64Array(nodes[next]!.length);
}

const argmin = (values: Float64Array): number => {
  let at = 0;
  for (let i = 1; i < values.length; i++) if (values[i]! < values[at]!) at = i;
  return at;
};

/** The cheapest ways on from a candidate of the first column; ends early where one is not worked out. */
function followed(next: readonly Int32Array[], start: number): number[] {
  const picks = [start];
  for (let c = 0; c + 1 < next.length && next[c]![picks[c]!]! >= 0; c++) picks.push(next[c]![picks[c]!]!);
  return picks;
}

/** Where a way ends before it should. */
const endOf = (picks: readonly number[]): Way => ({ picks: null, ask: picks.length - 1 });

function openWay({ rest, next }: Values): Way {
  const picks = followed(next, argmin(rest[0]!));
  return picks.length < next.length ? endOf(picks) : { picks };
}

/**
 * The way round the ring that comes back to where it began after one turn, if there is one among the cheapest ways on.
 */
function roundIn({ n }: Columns, { rest, next }: Values): Way {
  const tried = new Set<number>();
  for (let start = argmin(rest[0]!); !tried.has(start);) {
    tried.add(start);
    const picks = followed(next, start);
    if (picks.length < n) return endOf(picks);
    const end = next[n - 1]![picks[n - 1]!]!;
    if (end < 0) return endOf(picks);
    if (end === start) return { picks };
    start = end;
  }
  return { picks: null };
}

/**
 * The cheapest closed path by branch and bound over sets of candidates of the smallest column: with any potentials
 * there, a way that begins at one member and ends at another, less the potential of the first and with that of the
 * last, bounds all closed paths through the set from below.
 */
function divided(columns: Columns, values: Values): number[] | null {
  const { lattice, n } = columns;
  const cut = lattice.sizes.indexOf(Math.min(...lattice.sizes));
  const potential = values.rest[cut]!;
  interface Branch {
    bound: number;
    set: readonly number[];
    from: number;
    to: number;
    /** From the cut on. */
    picks: number[];
  }
  const solve = (set: readonly number[]): Branch | null => {
    const begin = new Float64Array(potential.length).fill(Infinity);
    for (const s of set) begin[s] = potential[s]!;
    let ahead: Float64Array = begin;
    let bound = 0;
    const next: Int32Array[] = [];
    for (let t = n - 1; t >= 0; t--) {
      const c = (cut + t) % n;
      const made = columns.onward(c, ahead, values.next[c]);
      bound += fromZero(made.rest);
      if (bound === Infinity) return null;
      next[t] = made.next;
      ahead = made.rest;
      if (values.agree && t && alikeUpTo(ahead, values.rest[c]!)) {
        for (t--; t >= 0; t--) {
          next[t] = values.next[(cut + t) % n]!;
          bound += values.shift[(cut + t) % n]!;
        }
        ahead = potential;
      }
    }
    const over = (s: number) => ahead[s]! - potential[s]!;
    const from = set.reduce((a, b) => (over(b) < over(a) ? b : a));
    const round = (start: number) => {
      const picks = followed(next, start);
      return { bound: bound + over(start), set, from: start, to: next[n - 1]![picks[n - 1]!]!, picks };
    };
    const first = round(from);
    const second = first.to !== from && over(first.to) <= over(from) + SAME ? round(first.to) : first;
    return second.to === second.from ? second : first;
  };
  const queue: Branch[] = [];
  const add = (set: readonly number[]) => {
    const branch = set.length ? solve(set) : null;
    if (branch && branch.bound < Infinity) queue.push(branch);
  };
  add(Array.from({ length: lattice.sizes[cut]! }, (_, i) => i));
  while (queue.length) {
    const at = queue.reduce((a, branch, i) => (branch.bound < queue[a]!.bound ? i : a), 0);
    const { set, from, to, picks } = queue.splice(at, 1)[0]!;
    if (from === to) return [...picks.slice(n - cut), ...picks.slice(0, n - cut)];
    const middle = (from + to) / 2;
    add(set.filter((s) => s <= middle));
    add(set.filter((s) => s > middle));
  }
  return null;
}

/** The cost of a path, each step priced once. */
function costOf(lattice: Lattice, picks: readonly number[], closed: boolean): number {
  return picks.reduce((sum, x, c) => {
    const stepped = c + 1 < picks.length || closed ? lattice.step(c, x, picks[(c + 1) % picks.length]!) : 0;
    return sum + lattice.node(c, x) + stepped;
  }, 0);
}
