import type { Lattice } from "./lattice";

/**
 * A lattice whose steps are dear to price, with lower bounds that are cheap. `alike` names the candidates of a column:
 * columns with the same object have the same candidates at the same cost, in this lattice and in others that are solved
 * with the same memory.
 */
export interface BoundedLattice extends Lattice {
  alike(column: number): object;
  /** Group of each candidate of a column, from 0 without gaps: those that a step treats nearly alike. */
  groups(column: number): Int32Array;
  /** Where each candidate of a column lies on a line. */
  places(column: number): Float64Array;
  /** Kind of each group of a column. */
  kinds(column: number): Int32Array;
  /**
   * No step from a member of group g of a column to a member of group h of the next one costs less; between groups of
   * one kind, than this and how far apart the two lie.
   */
  leastBetween(column: number, g: number, h: number): number;
  /** This step costs no less. */
  least(column: number, i: number, j: number): number;
}

/** Costs nearer than this are the same. */
export const SAME = 1e-9;

/** The candidates of a column. */
interface Members {
  node: Float64Array;
  places: Float64Array;
  /** Of each group. */
  kinds: Int32Array;
  lists: Int32Array[];
  lowest: Float64Array;
  highest: Float64Array;
}

/** By what `alike` names them. */
const known = new WeakMap<object, Members>();

function membersOf(lattice: BoundedLattice, c: number): Members {
  const lists: number[][] = [];
  lattice.groups(c).forEach((g, i) => (lists[g] ??= []).push(i));
  const places = lattice.places(c);
  const over = (pick: (...values: number[]) => number) =>
    Float64Array.from(lists, (list) => pick(...list.map((i) => places[i]!)));
  return {
    node: Float64Array.from({ length: lattice.sizes[c]! }, (_, i) => lattice.node(c, i)),
    places,
    kinds: lattice.kinds(c),
    lists: lists.map((list) => Int32Array.from(list)),
    lowest: over(Math.min),
    highest: over(Math.max),
  };
}

/** The steps from a column to the next one, where it is known what it costs from there on. */
class Joint {
  /** Of each group of the next column the least; groups from the cheapest on. */
  private readonly cheapest: Float64Array;
  private readonly order: Int32Array;
  /**
   * What the step into each group costs at least, and the groups that have a chance, for the group that was chosen
   * last.
   */
  private readonly reach: Float64Array;
  private readonly short: Int32Array;
  private chosen = 0;
  private readonly chance: Int32Array;
  private readonly bounds: Float64Array;

  constructor(
    private readonly lattice: BoundedLattice,
    private readonly c: number,
    private readonly between: { from: Members; to: Members },
    private readonly ahead: Float64Array,
  ) {
    const cheapest = Float64Array.from(between.to.lists, (list) => leastOf(list, ahead));
    this.cheapest = cheapest;
    this.order = Int32Array.from(cheapest.keys()).sort((g, h) => cheapest[g]! - cheapest[h]!);
    this.reach = new Float64Array(cheapest.length);
    this.short = new Int32Array(cheapest.length);
    this.chance = new Int32Array(ahead.length);
    this.bounds = new Float64Array(ahead.length);
  }

  /** What each candidate costs at least from here on, told from the groups alone. */
  least(): Float64Array {
    const { lattice, c, cheapest, order } = this;
    const { node, lists } = this.between.from;
    const rest = new Float64Array(node.length);
    for (let g = 0; g < lists.length; g++) {
      let least = Infinity;
      for (let o = 0; o < order.length && cheapest[order[o]!]! < least; o++)
        least = Math.min(least, cheapest[order[o]!]! + lattice.leastBetween(c, g, order[o]!));
      for (const i of lists[g]!) rest[i] = node[i]! + least;
    }
    return rest;
  }

  /** Chooses the groups that have a chance against a cost for members of group g. */
  shortlist(g: number, worst: number): void {
    const { cheapest, order, reach, short } = this;
    this.chosen = 0;
    for (let o = 0; o < order.length && cheapest[order[o]!]! < worst; o++) {
      const h = order[o]!;
      reach[h] = this.lattice.leastBetween(this.c, g, h);
      if (cheapest[h]! + reach[h]! < worst) short[this.chosen++] = h;
    }
  }

  priced(i: number, j: number): number {
    return this.ahead[j]! + this.lattice.step(this.c, i, j);
  }

  /**
   * The cheapest way on from candidate i of the group that was chosen last, where `at` costs `best`: its candidate
   * there.
   */
  bestOnward(i: number, g: number, at: number, best: number): number {
    const { lattice, c, ahead, cheapest, short, reach, chance, bounds } = this;
    const { lists, places, kinds, lowest, highest } = this.between.to;
    const place = this.between.from.places[i]!;
    const kind = this.between.from.kinds[g]!;
    let chances = 0;
    let lowestBound = best;
    for (let s = 0; s < this.chosen; s++) {
      const h = short[s]!;
      if (cheapest[h]! >= best) break;
      const least = reach[h]!;
      if (cheapest[h]! + least >= best) continue;
      const far = kind === kinds[h];
      if (far && cheapest[h]! + least + Math.max(lowest[h]! - place, place - highest[h]!) >= best) continue;
      const list = lists[h]!;
      for (let k = 0; k < list.length; k++) {
        const j = list[k]!;
        if (ahead[j]! + least + (far ? Math.abs(place - places[j]!) : 0) >= best) continue;
        const bound = ahead[j]! + lattice.least(c, i, j);
        if (bound >= best) continue;
        if (bound >= lowestBound) {
          chance[chances] = j;
          bounds[chances++] = bound;
          continue;
        }
        lowestBound = bound;
        const cost = this.priced(i, j);
        if (cost < best) [best, at] = [cost, j];
      }
    }
    return this.likeliest(i, chances, { at, best });
  }

  /** The cheapest of what was put by: the likeliest first, until none can be better. */
  private likeliest(i: number, chances: number, { at, best }: { at: number; best: number }): number {
    const { chance, bounds } = this;
    while (chances) {
      let first = 0;
      for (let k = 1; k < chances; k++) if (bounds[k]! < bounds[first]!) first = k;
      if (bounds[first]! >= best) break;
      const j = chance[first]!;
      const cost = this.priced(i, j);
      if (cost < best) [best, at] = [cost, j];
      chance[first] = chance[--chances]!;
      bounds[first] = bounds[chances]!;
    }
    return at;
  }
}

/** The columns of a lattice while potentials are being worked out. */
export class Columns {
  readonly n: number;
  readonly nodes: Float64Array[];
  private readonly members: Members[];
  /** Columns of which all candidates are worked out, however little chance they seem to have. */
  readonly whole = new Set<number>();

  constructor(
    readonly lattice: BoundedLattice,
    readonly closed: boolean,
  ) {
    this.n = lattice.sizes.length;
    this.members = lattice.sizes.map((_, c) => {
      const name = lattice.alike(c);
      let made = known.get(name);
      if (!made) known.set(name, (made = membersOf(lattice, c)));
      return made;
    });
    this.nodes = this.members.map((m) => m.node);
  }

  /**
   * The cheapest way on from the candidates of a column, where `ahead` says what it costs from each of the next column
   * on; null ends there. `guesses`, where there are any, are ways on that were cheap before. A step is priced only
   * where its bound leaves it a chance; candidates from which even the bound is dear keep it, with −1 for the way on,
   * unless they were worked out before (else they could come and go for ever).
   */
  onward(c: number, ahead: Float64Array | null, guesses?: Int32Array): { rest: Float64Array; next: Int32Array } {
    const node = this.nodes[c]!;
    const next = new Int32Array(node.length);
    if (!ahead) return { rest: node.slice(), next };
    const from = this.members[c]!;
    const joint = new Joint(this.lattice, c, { from, to: this.members[(c + 1) % this.n]! }, ahead);
    const rest = joint.least();
    const enough = this.whole.has(c) ? Infinity : worthwhile(rest);
    let guess = 0;
    for (let g = 0; g < from.lists.length; g++) {
      const rows = from.lists[g]!;
      // What the guesses cost says which groups have a chance for any member of this one.
      let worst = -Infinity;
      for (let r = 0; r < rows.length; r++) {
        const i = rows[r]!;
        const before = guesses ? guesses[i]! : -1;
        next[i] = -1;
        if (node[i] === Infinity || (rest[i]! > enough && before < 0)) continue;
        next[i] = before >= 0 && before < ahead.length ? before : guess;
        rest[i] = joint.priced(i, next[i]!);
        worst = Math.max(worst, rest[i]!);
      }
      joint.shortlist(g, worst);
      for (let r = 0; r < rows.length; r++) {
        const i = rows[r]!;
        if (next[i]! < 0) continue;
        const at = joint.bestOnward(i, g, next[i]!, rest[i]!);
        if (at !== next[i]) [next[i], rest[i]] = [at, joint.priced(i, at)];
        rest[i]! += node[i]!;
        guess = at;
      }
    }
    return { rest, next };
  }
}

/** Of every four candidates the one that is cheapest at best is worked out at once, and of a few candidates all. */
const AT_ONCE = 24;
function worthwhile(least: Float64Array): number {
  const count = Math.max(AT_ONCE, Math.ceil(least.length / 4));
  return count >= least.length ? Infinity : least.slice().sort()[count]! + SAME;
}

function leastOf(list: Int32Array, values: Float64Array): number {
  let least = Infinity;
  for (const i of list) if (values[i]! < least) least = values[i]!;
  return least;
}
