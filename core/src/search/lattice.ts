import { nth } from "../base/list";
/**
 * Columns of candidates, a cost for each candidate and for each step between neighbors. Finds the exact cheapest path,
 * open or looping, and the k cheapest. Voicings, bass pitches and harmonizations are all this one problem.
 */
export interface Lattice {
  /** Number of candidates in each column; every column has at least one. */
  sizes: readonly number[];
  /** Cost of candidate i of a column; Infinity forbids it. */
  node(column: number, i: number): number;
  /**
   * Cost of stepping from candidate i of a column to candidate j of the next one (of the first column after the last,
   * when closed).
   */
  step(column: number, i: number, j: number): number;
  /** Looping: the step from the last column to the first counts as well. */
  closed?: boolean;
  /**
   * Columns with the same object here have the same candidates, and steps between two such pairs cost the same: they
   * are computed once.
   */
  alike?(column: number): object;
}

export interface Path {
  /** Chosen candidate of each column. */
  picks: number[];
  cost: number;
}

/** The lattice with all its costs computed once, in typed arrays. */
export interface Prepared {
  sizes: readonly number[];
  nodes: Float64Array[];
  /** steps[c][i * sizes[next] + j]; the last one exists only when closed. */
  steps: Float64Array[];
  closed: boolean;
}

export function prepare(lattice: Lattice): Prepared {
  const { sizes } = lattice;
  const n = sizes.length;
  const closed = (lattice.closed ?? false) && n > 1;
  const nodes = sizes.map((size, c) => Float64Array.from({ length: size }, (_, i) => lattice.node(c, i)));
  const steps: Float64Array[] = [];
  const known = new Map<object, Map<object, Float64Array>>();
  for (let c = 0; c < (closed ? n : n - 1); c++) {
    const ends = lattice.alike && ([lattice.alike(c), lattice.alike((c + 1) % n)] as const);
    const same = ends && known.get(ends[0])?.get(ends[1]);
    if (same) {
      steps.push(same);
      continue;
    }
    const rows = sizes[c]!;
    const cols = sizes[(c + 1) % n]!;
    const table = new Float64Array(rows * cols);
    for (let i = 0, k = 0; i < rows; i++) for (let j = 0; j < cols; j++, k++) table[k] = lattice.step(c, i, j);
    steps.push(table);
    if (ends) known.set(ends[0], (known.get(ends[0]) ?? new Map<object, Float64Array>()).set(ends[1], table));
  }
  return { sizes, nodes, steps, closed };
}

/** What a path costs. */
export function pathCost({ sizes, nodes, steps, closed }: Prepared, picks: readonly number[]): number {
  const n = picks.length;
  let cost = 0;
  for (let c = 0; c < n; c++) {
    cost += nth(nth(nodes, c), nth(picks, c));
    if (c + 1 < n || closed)
      cost += nth(nth(steps, c), nth(picks, c) * nth(sizes, (c + 1) % n) + nth(picks, (c + 1) % n));
  }
  return cost;
}

/** Turns the columns so that the given one comes first; only meaningful when closed. */
function rotate(p: Prepared, by: number): Prepared {
  const rotate = <T>(list: readonly T[]): T[] => [...list.slice(by), ...list.slice(0, by)];
  return { ...p, sizes: rotate(p.sizes), nodes: rotate(p.nodes), steps: rotate(p.steps) };
}

/** Cost to go from every candidate of every column to the end; `end` gives the closing cost of the last column. */
function backward(p: Prepared, end?: Float64Array): { rest: Float64Array[]; next: Int32Array[] } {
  const n = p.sizes.length;
  const rest: Float64Array[] = Array<Float64Array>(n);
  const next: Int32Array[] = Array<Int32Array>(n);
  rest[n - 1] = end ? p.nodes[n - 1]!.map((cost, i) => cost + end[i]!) : p.nodes[n - 1]!;
  for (let c = n - 2; c >= 0; c--) {
    const rows = p.sizes[c]!;
    const cols = p.sizes[c + 1]!;
    const table = p.steps[c]!;
    const ahead = rest[c + 1]!;
    const here = new Float64Array(rows);
    const pick = new Int32Array(rows);
    for (let i = 0, k = 0; i < rows; i++) {
      let best = Infinity;
      let at = 0;
      for (let j = 0; j < cols; j++, k++) {
        const cost = table[k]! + ahead[j]!;
        if (cost < best) {
          best = cost;
          at = j;
        }
      }
      here[i] = best + p.nodes[c]![i]!;
      pick[i] = at;
    }
    rest[c] = here;
    next[c] = pick;
  }
  return { rest, next };
}

const follow = (next: Int32Array[], start: number): number[] => {
  const picks = [start];
  for (let c = 0; c + 1 < next.length; c++) picks.push(next[c]![picks[c]!]!);
  return picks;
};

const argmin = (values: Float64Array): number => {
  let at = 0;
  for (let i = 1; i < values.length; i++) if (values[i]! < values[at]!) at = i;
  return at;
};

/** Closing cost of the last column when the path must come back to one of the allowed starts: the cheapest of them. */
function closing(p: Prepared, allowed: readonly number[]): { cost: Float64Array; to: Int32Array } {
  const n = p.sizes.length;
  const rows = p.sizes[n - 1]!;
  const cols = p.sizes[0]!;
  const table = p.steps[n - 1]!;
  const cost = new Float64Array(rows).fill(Infinity);
  const to = new Int32Array(rows);
  for (let i = 0; i < rows; i++)
    for (const j of allowed) {
      const step = table[i * cols + j]!;
      if (step < cost[i]!) {
        cost[i] = step;
        to[i] = j;
      }
    }
  return { cost, to };
}

/**
 * Exact cheapest closed path by branch and bound over sets of start candidates: a path that may begin at one member of
 * a set and end at another bounds all closed paths through the set from below; where its two ends agree it is a closed
 * path itself, otherwise the set is split between them. Each bound is one open pass.
 */
function cheapestClosed(p: Prepared, starts: readonly number[]): Path | null {
  interface Node {
    bound: number;
    set: readonly number[];
    from: number;
    to: number;
    picks: number[];
  }
  const solve = (set: readonly number[]): Node | null => {
    const close = closing(p, set);
    const { rest, next } = backward(p, close.cost);
    let from = -1;
    for (const s of set) if (from < 0 || nth(nth(rest, 0), s) < nth(nth(rest, 0), from)) from = s;
    if (from < 0 || nth(rest, 0)[from] === Infinity) return null;
    const picks = follow(next, from);
    return { bound: nth(nth(rest, 0), from), set, from, to: nth(close.to, picks.at(-1)!), picks };
  };
  const first = solve(starts);
  const queue = first ? [first] : [];
  while (queue.length) {
    let at = 0;
    for (let i = 1; i < queue.length; i++) if (queue[i]!.bound < queue[at]!.bound) at = i;
    const node = queue.splice(at, 1)[0]!;
    if (node.from === node.to) return { picks: node.picks, cost: node.bound };
    for (const set of split(node.set, node.from, node.to)) {
      const child = solve(set);
      if (child) queue.push(child);
    }
  }
  return null;
}

/**
 * Two halves of a set, the given members in different halves; candidates are listed low to high, so neighbors stay
 * together.
 */
function split(set: readonly number[], a: number, b: number): [number[], number[]] {
  const [low, high] = a < b ? [a, b] : [b, a];
  const middle = (low + high) / 2;
  return [set.filter((s) => s <= middle), set.filter((s) => s > middle)];
}

const all = (size: number): number[] => Array.from({ length: size }, (_, i) => i);

/** Smallest column first: a closed search branches over its candidates, and a pinned column needs one pass. */
const turned = (p: Prepared): { p: Prepared; by: number } => {
  const by = p.closed ? p.sizes.indexOf(Math.min(...p.sizes)) : 0;
  return { p: by ? rotate(p, by) : p, by };
};

const turnBack = (picks: number[], by: number): number[] =>
  by ? [...picks.slice(picks.length - by), ...picks.slice(0, picks.length - by)] : picks;

/**
 * The exact cheapest path, or null when every path is forbidden. Time: one pass of Σ size·size steps when open, several
 * when closed.
 */
export function cheapestPath(lattice: Lattice): Path | null {
  return cheapestPrepared(prepare(lattice));
}

export function cheapestPrepared(prepared: Prepared): Path | null {
  if (!prepared.sizes.length || prepared.sizes.includes(0)) return null;
  const { p, by } = turned(prepared);
  if (!p.closed) {
    const { rest, next } = backward(p);
    const from = argmin(nth(rest, 0));
    return nth(rest, 0)[from] === Infinity ? null : { picks: follow(next, from), cost: nth(nth(rest, 0), from) };
  }
  const path = cheapestClosed(p, all(nth(p.sizes, 0)));
  return path && { picks: turnBack(path.picks, by), cost: path.cost };
}

/**
 * A part of all paths: the first columns fixed, some candidates of the next one excluded; what its cheapest member
 * costs is known, and its picks are followed when it is looked at.
 */
interface Region {
  cost: number;
  picks(): number[];
  fixed: number;
  excluded: readonly number[];
}

export interface ManyOptions {
  k: number;
  /** Whether a path differs enough from one already taken to be worth showing; by default any difference counts. */
  differs?: (a: readonly number[], b: readonly number[]) => boolean;
  /** How many paths are looked at before giving up on finding k that differ. */
  limit?: number;
}

/**
 * The k cheapest paths, cheapest first (Lawler's partition: after each path, what remains is divided by the column at
 * which it first leaves that path). With `differs`, each accepted path is the cheapest that differs from all accepted
 * before it.
 */
export function cheapestPaths(lattice: Lattice | Prepared, { k, differs, limit = 2000 }: ManyOptions): Path[] {
  const prepared = "nodes" in lattice ? lattice : prepare(lattice);
  if (!prepared.sizes.length || prepared.sizes.includes(0)) return [];
  const { p, by } = turned(prepared);
  const tables = new Map<number, { rest: Float64Array[]; next: Int32Array[] }>();
  // Cost to the end, for paths that begin at a given candidate (when open the beginning does not matter).
  const tableFor = (start: number) => {
    const id = p.closed ? start : -1;
    let table = tables.get(id);
    if (!table) tables.set(id, (table = backward(p, p.closed ? closing(p, [start]).cost : undefined)));
    return table;
  };
  const queue: Region[] = [];
  const fromStarts = (excluded: readonly number[]) => {
    const starts = all(nth(p.sizes, 0)).filter((s) => !excluded.includes(s));
    if (!starts.length) return;
    let best: Path | null;
    if (p.closed) best = cheapestClosed(p, starts);
    else {
      const { rest, next } = tableFor(0);
      const from = starts.reduce((a, b) => (rest[0]![b]! < rest[0]![a]! ? b : a));
      best = nth(rest, 0)[from] === Infinity ? null : { picks: follow(next, from), cost: nth(nth(rest, 0), from) };
    }
    if (best) {
      const { picks, cost } = best;
      queue.push({ cost, picks: () => picks, fixed: 0, excluded });
    }
  };
  const fromPrefix = (path: readonly number[], c: number, prefixCost: number, excluded: readonly number[]) => {
    const last = path[c - 1]!;
    const { rest, next } = tableFor(path[0]!);
    let best = Infinity;
    let at = -1;
    for (let j = 0; j < p.sizes[c]!; j++) {
      if (excluded.includes(j)) continue;
      const cost = prefixCost + p.steps[c - 1]![last * p.sizes[c]! + j]! + rest[c]![j]!;
      if (cost < best) {
        best = cost;
        at = j;
      }
    }
    if (at < 0) return;
    const picks = () => {
      const all = [...path.slice(0, c), at];
      for (let d = c; d + 1 < p.sizes.length; d++) all.push(next[d]![all[d]!]!);
      return all;
    };
    queue.push({ cost: best, picks, fixed: c, excluded });
  };
  fromStarts([]);
  const found: Path[] = [];
  for (let looked = 0; queue.length && found.length < k && looked < limit; looked++) {
    const region = takeCheapest(queue);
    const path = region.picks();
    const picks = turnBack(path, by);
    if (!differs || found.every((f) => differs(picks, f.picks))) found.push({ picks, cost: region.cost });
    let prefixCost = 0;
    for (const [c, pick] of path.entries()) {
      if (c >= region.fixed) {
        const excluded = [...(c === region.fixed ? region.excluded : []), pick];
        if (c === 0) fromStarts(excluded);
        else fromPrefix(path, c, prefixCost, excluded);
      }
      // The node of column c is part of the prefix of every later region; the step into c + 1 is added there.
      prefixCost += p.nodes[c]![pick]! + (c > 0 ? p.steps[c - 1]![path[c - 1]! * p.sizes[c]! + pick]! : 0);
    }
  }
  return found;
}

function takeCheapest(queue: Region[]): Region {
  let at = 0;
  for (let i = 1; i < queue.length; i++) if (queue[i]!.cost < queue[at]!.cost) at = i;
  return queue.splice(at, 1)[0]!;
}
