import { mod, type Midi, type Semitones } from "../../theory/pitch/pitch";
import { VOICING_TERMS, type Profile } from "../../song/schema";
import type { Counted } from "../../theory/motion/threads";
import { belowLimit, commonTones, motionBetween, parallelPerfect } from "../../theory/motion/motion";
import type { RawVoicing } from "./style";

/** The named terms a voicing path is judged by. Weights are common practice. */
export const TERMS = {
  motion: "semitones moved in all",
  leap: "one voice leaping past a third",
  common: "voices that do not stay",
  topLine: "top line against its shape",
  parallels: "parallels, and tones that do not resolve",
  register: "away from the middle register",
  spacing: "uneven or clashing spacing",
  lowIntervals: "close intervals too low",
  roughness: "rougher than the smoothest layout",
  missing: "tones left out",
  doubling: "tones doubled",
  hand: "strain on the hand",
} as const satisfies Record<(typeof VOICING_TERMS)[number], string>;

export type TermName = (typeof VOICING_TERMS)[number];
export type Terms = Partial<Record<TermName, number>>;
export type Weights = Record<TermName, number>;

export const TERM_NAMES: readonly TermName[] = VOICING_TERMS;

/** What more and less of each term sounds like: what an alternative trades. */
export const TRADE_WORDS: Record<TermName, [more: string, less: string]> = {
  motion: ["moves more", "moves less"],
  leap: ["larger leaps", "smaller leaps"],
  common: ["keeps fewer tones", "keeps more tones"],
  topLine: ["a rougher top line", "a better top line"],
  parallels: ["more parallels", "fewer parallels"],
  register: ["farther from the middle", "nearer to the middle"],
  spacing: ["spaced less evenly", "spaced more evenly"],
  lowIntervals: ["muddier below", "clearer below"],
  roughness: ["sounds rougher", "sounds smoother"],
  missing: ["leaves more out", "more complete"],
  doubling: ["doubles more", "doubles less"],
  hand: ["harder on the hand", "easier on the hand"],
};

/** Shapes a top line can be asked for. */
export const TOP_SHAPES = {
  smooth: "by step",
  still: "as still as it can be",
  rising: "rising",
  falling: "falling",
} as const;
export type TopShape = keyof typeof TOP_SHAPES;

/** What a path is judged by. */
export interface Judge {
  profile: Profile;
  weights: Weights;
  top: TopShape;
}

/** Weights with some of them changed, as much as a style lets them count; 0 switches a term off. */
export const weightsWith = (changed: Partial<Weights> = {}, style: Partial<Weights> = {}): Weights =>
  Object.fromEntries(TERM_NAMES.map((t) => [t, (changed[t] ?? 1) * (style[t] ?? 1)])) as Weights;

export const PARALLEL_WEIGHT: Record<Profile, number> = { chorale: 16, band: 2, jazz: 0.5, loop: 0 };

export const sumTerms = (terms: Terms): number => Object.values(terms).reduce((a, b) => a + b, 0);

/**
 * Terms of one voicing on its own, apart from roughness and hand. `center` is the pitch it should lie around, `bass`
 * the note the bass part is expected to play under it.
 */
export function nodeTerms(
  { pitches, missing, doubling }: RawVoicing,
  center: number,
  weights: Weights,
  bass?: Midi,
): Terms {
  let mean = 0;
  let low = bass === undefined ? 0 : belowLimit(bass, pitches[0]!);
  let spacing = 0;
  for (let i = 0; i < pitches.length; i++) {
    mean += pitches[i]! / pitches.length;
    const gap = i > 0 ? pitches[i]! - pitches[i - 1]! : 0;
    if (i > 0) low += belowLimit(pitches[i - 1]!, pitches[i]!);
    if (gap === 1) spacing += 0.8;
    if (gap > 9) spacing += (gap - 9) * 0.6;
    // Wide below, close above (Huron 2001): a gap much wider than the one under it is unusual.
    if (i > 1 && gap > pitches[i - 1]! - pitches[i - 2]! + 4) spacing += 0.3;
  }
  if (pitches.length > 1 && pitches.at(-1)! - pitches.at(-2)! === 1) spacing += 1.2;
  return {
    register: Math.max(0, Math.abs(mean - center) - 2) * 0.5 * weights.register,
    spacing: spacing * weights.spacing,
    lowIntervals: low * 3 * weights.lowIntervals,
    missing: missing * weights.missing,
    doubling: doubling * weights.doubling,
  };
}

/** The largest move of one voice beyond a major third. */
function leapCost(a: readonly Midi[], b: readonly Midi[]): number {
  if (a.length !== b.length) return 0;
  let leap = 4;
  for (let i = 0; i < a.length; i++) {
    const move = Math.abs(a[i]! - b[i]!);
    if (move > leap) leap = move;
  }
  return (leap - 4) * 0.5;
}

/** A move of the top line against its shape. */
export function topCost(move: Semitones, shape: TopShape): number {
  const far = Math.max(0, Math.abs(move) - 2) * 0.5;
  if (shape === "smooth") return far;
  if (shape === "still") return Math.abs(move) * 0.8;
  const against = shape === "rising" ? -move : move;
  const turned = () => {
    if (against > 0) return 1.5 + against * 0.5;
    if (against === 0) return 0.5;
    return 0;
  };
  return far + turned();
}

/**
 * Between which voices a school counts parallels: in four parts between any two, elsewhere between the outermost, in
 * loops not at all.
 */
export const countedBy = (profile: Profile): Counted => {
  if (profile === "chorale") return "every";
  if (PARALLEL_WEIGHT[profile]) return "outer";
  return "none";
};

function parallelCost(a: readonly Midi[], b: readonly Midi[], profile: Profile): number {
  if (profile !== "chorale" || a.length !== b.length)
    return parallelPerfect(a[0]!, b[0]!, a[a.length - 1]!, b[b.length - 1]!) ? PARALLEL_WEIGHT[profile] : 0;
  let found = 0;
  for (let low = 0; low < a.length; low++)
    for (let high = low + 1; high < a.length; high++)
      if (parallelPerfect(a[low]!, b[low]!, a[high]!, b[high]!)) found++;
  return found * PARALLEL_WEIGHT.chorale;
}

/**
 * Faults of part writing: a seventh that does not fall, a leading tone that does not rise, an augmented second (Kostka
 * & Payne).
 */
const UNRESOLVED = 16;

function tendencyCost(from: RawVoicing, to: RawVoicing): number {
  const [a, b] = [from.pitches, to.pitches];
  if (a.length !== b.length) return 0;
  let cost = 0;
  for (const { voice, way } of from.tends ?? []) {
    const [was, now] = [a[voice]!, b[voice]!];
    const up = voice > 0 && voice < a.length - 1 ? INNER_UP : UP;
    if (isLeft(b, was, now, way === "down" ? DOWN : up)) cost += UNRESOLVED;
  }
  if (from.minorOn === undefined) return cost;
  for (let v = 0; v < a.length; v++) {
    const low = Math.min(a[v]!, b[v]!);
    if (Math.abs(a[v]! - b[v]!) === 3 && mod(low - from.minorOn, 12) === 8) cost += UNRESOLVED;
  }
  return cost;
}

/** Where a tone wants to go, in semitones, and where else it may. A leading tone in an inner voice may fall. */
interface Way {
  wanted: readonly number[];
  allowed: readonly number[];
}
const DOWN: Way = { wanted: [-1, -2], allowed: [-1, -2] };
const UP: Way = { wanted: [1], allowed: [1] };
const INNER_UP: Way = { wanted: [1], allowed: [1, -3, -4] };

/** Whether a voice leaves its tone otherwise than allowed, where the next chord has what it wants and not the tone. */
function isLeft(next: readonly Midi[], was: Midi, now: Midi, { wanted, allowed }: Way): boolean {
  const has = (semitones: number) => next.some((m) => (m - was - semitones) % 12 === 0);
  return !has(0) && !allowed.includes(now - was) && wanted.some(has);
}

/** A shape that is fretted all over; one with open strings is found without looking. */
const isHigh = ({ position, frets }: NonNullable<RawVoicing["shape"]>): boolean => position > 0 && !frets.includes(0);

/** Going from one place on the neck to another; open shapes are reached from anywhere. */
const shiftCost = (a: RawVoicing, b: RawVoicing): number =>
  a.shape && b.shape && isHigh(a.shape) && isHigh(b.shape) ? Math.abs(a.shape.position - b.shape.position) * 0.3 : 0;

/** A voice that does not stay costs a little, whatever way it goes. */
const STAY = 0.2;

/** Terms of the step from one voicing to the next. */
export const stepTerms = (a: RawVoicing, b: RawVoicing, { profile, weights, top }: Judge): Terms => ({
  motion: motionBetween(a.pitches, b.pitches) * weights.motion,
  leap: leapCost(a.pitches, b.pitches) * weights.leap,
  common: (b.pitches.length - commonTones(a.pitches, b.pitches)) * STAY * weights.common,
  topLine: topCost(b.pitches.at(-1)! - a.pitches.at(-1)!, top) * weights.topLine,
  parallels: (parallelCost(a.pitches, b.pitches, profile) + tendencyCost(a, b)) * weights.parallels,
  ...(b.shape ? { hand: shiftCost(a, b) * weights.hand } : {}),
});

/** The sum of `stepTerms`, without making them: this runs for every pair of candidates. */
export function layoutStep(from: RawVoicing, to: RawVoicing, { profile, weights, top }: Judge): number {
  const a = from.pitches;
  const b = to.pitches;
  const rest =
    (b.length - commonTones(a, b)) * STAY * weights.common +
    topCost(b[b.length - 1]! - a[a.length - 1]!, top) * weights.topLine +
    (parallelCost(a, b, profile) + (from.tends || from.minorOn !== undefined ? tendencyCost(from, to) : 0)) *
      weights.parallels +
    (to.shape ? shiftCost(from, to) * weights.hand : 0);
  if (a.length !== b.length) return motionBetween(a, b) * weights.motion + rest;
  let motion = 0;
  let leap = 4;
  for (let i = 0; i < a.length; i++) {
    const move = Math.abs(a[i]! - b[i]!);
    motion += move;
    if (move > leap) leap = move;
  }
  return motion * weights.motion + (leap - 4) * 0.5 * weights.leap + rest;
}

/** Differences that are heard, largest first; positive is more of the term. */
export function trade(from: Terms, to: Terms): { term: TermName; by: number; words: string }[] {
  return TERM_NAMES.map((term) => ({ term, by: (to[term] ?? 0) - (from[term] ?? 0) }))
    .filter(({ by }) => Math.abs(by) >= 0.3)
    .sort((a, b) => Math.abs(b.by) - Math.abs(a.by))
    .map(({ term, by }) => ({ term, by, words: TRADE_WORDS[term][by > 0 ? 0 : 1] }));
}
