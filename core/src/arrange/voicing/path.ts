import { firstOf, lastOf, nth } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import { madeOf, type Steps } from "../../base/steps";
import { mod, pitchName, plainName, type Midi, type PitchName } from "../../theory/pitch/pitch";
import { chordToneName, type Chord } from "../../theory/chord/chord";
import { parseChord } from "../../theory/chord/parse";
import { cheapestPaths, cheapestPrepared, prepare, type Path, type Prepared } from "../../search/lattice";
import type { Shape } from "../../theory/instrument/fretboard";
import { commonTones, motionBetween } from "../../theory/motion/motion";
import { cheapestPruned } from "../../search/pruned";
import { layoutStep, stepTerms, sumTerms, trade, type TermName, type Terms, type Weights } from "./cost";
import { voicingSpace, type VoicingSpace } from "./space";
import type { PathOptions } from "./setting";

export interface VoicedChord {
  pitches: PitchName[];
  /** Terms of the voicing itself and of the step from the chord before. */
  terms: Terms;
  cost: number;
  /** Semitones moved from the chord before, and tones kept; null for the first chord of an open path. */
  motion: number | null;
  kept: number | null;
  /** How it lies on a neck. */
  shape?: Shape;
  /** What it is made of, where that has a name. */
  says?: string;
}

export interface VoicedPath {
  chords: VoicedChord[];
  cost: number;
  /** Total motion in semitones. */
  motion: number;
  /** Sums of the terms over the whole path. */
  terms: Terms;
  /** Candidates looked at for each chord. */
  candidates: number[];
  /** Chords, by index, that the style does not suit: they are laid out freely. */
  freely: number[];
  /** No cheaper path differs from those before it; otherwise it is the cheapest that was found. */
  exact: boolean;
}

/** Spelled as the chord wants it. */
export const spellVoicing = (pitches: readonly Midi[], chord: Chord): PitchName[] =>
  pitches.map((midi) => pitchName(midi, chordToneName(chord, mod(midi, 12)) ?? plainName(midi, true)));

/** A path of a voicing space with its terms. */
export function describe(space: VoicingSpace, { picks, cost }: Path, exact = true): VoicedPath {
  const n = picks.length;
  const at = (c: number) => nth(nth(space.columns, c).candidates, nth(picks, c));
  const total: Terms = {};
  const chords = picks.map((_, c): VoicedChord => {
    const here = at(c);
    const before = c > 0 || space.closed ? at((c + n - 1) % n) : null;
    const step = before ? stepTerms(before, here, space.judge) : {};
    const terms: Terms = { ...here.terms };
    for (const [name, value] of Object.entries(step) as [TermName, number][]) terms[name] = (terms[name] ?? 0) + value;
    for (const [name, value] of Object.entries(terms) as [TermName, number][]) total[name] = (total[name] ?? 0) + value;
    return {
      pitches: spellVoicing(here.pitches, nth(space.columns, c).chord),
      terms,
      cost: sumTerms(terms),
      motion: before ? motionBetween(before.pitches, here.pitches) : null,
      kept: before ? commonTones(before.pitches, here.pitches) : null,
      ...(here.shape ? { shape: here.shape } : {}),
      ...(here.says ? { says: here.says } : {}),
    };
  });
  return {
    chords,
    cost,
    motion: chords.reduce((sum, c) => sum + (c.motion ?? 0), 0),
    terms: total,
    candidates: space.columns.map((c) => c.candidates.length),
    freely: space.columns.flatMap((c, i) => (c.fallback ? [i] : [])),
    exact,
  };
}

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
function narrowed({ lattice }: VoicingSpace, best: readonly number[]): Narrow {
  const { sizes, closed } = lattice;
  const n = sizes.length;
  const beside = (c: number, i: number): number => {
    const before = c > 0 || closed ? lattice.step((c + n - 1) % n, nth(best, (c + n - 1) % n), i) : 0;
    const after = c + 1 < n || closed ? lattice.step(c, i, nth(best, (c + 1) % n)) : 0;
    return lattice.node(c, i) + (n > 1 ? before + after : 0);
  };
  const at = sizes.map((size, c) => {
    const all = Array.from({ length: size }, (_, i) => i);
    if (size <= WIDTH) return all;
    const costs = all.map((i) => beside(c, i));
    return all
      .sort((a, b) => nth(costs, a) - nth(costs, b))
      .slice(0, WIDTH)
      .sort((a, b) => a - b);
  });
  const prepared = prepare({
    ...{ sizes: at.map((list) => list.length), closed: closed ?? false },
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
  const { prepared, at, whole } = narrowed(space, best.picks);
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
    take({ picks: next.picks, cost: costOf(prepared, next.picks) }, false);
    mark(next);
  }
  const [first, ...rest] = found;
  return first ? [first, ...rest.sort((a, b) => a.path.cost - b.path.cost)] : [];
}

/** The paths that `pathSteps` finds when nobody looks. */
export const pathsOf = (space: VoicingSpace, k: number): FoundPath[] => madeOf(pathSteps(space, k));

function costOf(p: Prepared, picks: readonly number[]): number {
  const n = picks.length;
  let cost = 0;
  picks.forEach((x, c) => {
    cost += nth(nth(p.nodes, c), x);
    if (c + 1 < n || p.closed) cost += nth(nth(p.steps, c), x * nth(p.sizes, (c + 1) % n) + nth(picks, (c + 1) % n));
  });
  return cost;
}

/** The cheapest voicing path and its alternatives, as `pathsOf` says. */
export function voicePaths(chords: readonly Chord[], options: PathOptions & { k?: number }): Result<VoicedPath[]> {
  if (!chords.length) return ok([]);
  const space = voicingSpace(chords, options);
  if (!space.ok) return space;
  return ok(pathsOf(space.value, options.k ?? 1).map(({ path, exact }) => describe(space.value, path, exact)));
}

export interface ProgressionRequest {
  chords: string[];
  instrument?: string;
  style?: string;
  loop?: boolean;
  voices?: number;
  bassCovered?: boolean;
  capo?: number;
  /** Pitch classes of the key, from which colors are taken that a symbol does not name. */
  scale?: readonly number[];
  weights?: Partial<Weights>;
  pins?: Record<number, PitchName[]>;
  outer?: NonNullable<PathOptions["outer"]>;
}

export interface VoicedProgression {
  voicings: PitchName[][];
  motion: number;
  terms: Terms[];
  /** Fret shapes of a fretted instrument. */
  shapes?: Shape[];
  /** Chords, by index, that the style does not suit: they are laid out freely. */
  fallbacks: number[];
}

/** Voices a list of chord symbols; best first. Errors name the chord that cannot be read or voiced. */
export function voicedProgressions(request: ProgressionRequest & { k?: number }): Result<VoicedProgression[]> {
  const chords: Chord[] = [];
  for (const symbol of request.chords) {
    const chord = parseChord(symbol);
    if (!chord.ok) return chord;
    chords.push(chord.value);
  }
  const paths = voicePaths(chords, request);
  if (!paths.ok) return paths;
  return ok(
    paths.value.map((p) => {
      const shapes = p.chords.flatMap((c) => c.shape ?? []);
      return {
        voicings: p.chords.map((c) => c.pitches),
        motion: p.motion,
        terms: p.chords.map((c) => c.terms),
        fallbacks: p.freely,
        ...(shapes.length ? { shapes } : {}),
      };
    }),
  );
}

/** The list alone, best first; empty where `voicedProgressions` would name an error. */
export function voiceProgression(request: ProgressionRequest & { k?: number }): VoicedProgression[] {
  const result = voicedProgressions(request);
  return result.ok ? result.value : [];
}

export interface Alternative {
  pitches: PitchName[];
  terms: Terms;
  cost: number;
  /** What it trades against the one that is chosen. */
  trades: string[];
  shape?: Shape;
}

/** The cheapest layouts of one chord while its neighbors stay; each has another pair of bottom and top note. */
export function alternativesAt(
  space: VoicingSpace,
  free: VoicingSpace,
  picks: readonly number[],
  { c, most = 8 }: { c: number; most?: number | undefined },
): Alternative[] {
  const n = picks.length;
  const { closed } = space;
  const neighbor = (at: number) =>
    closed
      ? nth(space.columns, mod(at, n)).candidates[nth(picks, mod(at, n))]
      : space.columns[at]?.candidates[nth(picks, at)];
  const before = n > 1 ? neighbor(c - 1) : undefined;
  const after = n > 1 ? neighbor(c + 1) : undefined;
  const both = (v: (typeof free.columns)[number]["candidates"][number]): Terms => {
    const sum: Terms = { ...v.terms };
    for (const step of [before ? stepTerms(before, v, space.judge) : {}, after ? stepTerms(v, after, space.judge) : {}])
      for (const [name, value] of Object.entries(step) as [TermName, number][]) sum[name] = (sum[name] ?? 0) + value;
    return sum;
  };
  const chosen = both(nth(nth(space.columns, c).candidates, nth(picks, c)));
  const ranked = nth(free.columns, c)
    .candidates.map((v) => ({
      v,
      cost:
        v.cost + (before ? layoutStep(before, v, space.judge) : 0) + (after ? layoutStep(v, after, space.judge) : 0),
    }))
    .sort((a, b) => a.cost - b.cost);
  const seen = new Set<string>();
  const out: Alternative[] = [];
  for (const { v, cost } of ranked) {
    const id = `${mod(firstOf(v.pitches), 12)}:${v.pitches.at(-1)}`;
    if (seen.has(id)) continue;
    seen.add(id);
    const terms = both(v);
    out.push({
      pitches: spellVoicing(v.pitches, nth(free.columns, c).chord),
      terms,
      cost,
      trades: trade(chosen, terms)
        .slice(0, 3)
        .map((t) => t.words),
      ...(v.shape ? { shape: v.shape } : {}),
    });
    if (out.length === most) break;
  }
  return out;
}

/** An error for a song that has no such place. */
export const noPlace = (section: string, part: string): Result<never> =>
  fail("voicing.place", `No section "${section}" or part "${part}"`);
