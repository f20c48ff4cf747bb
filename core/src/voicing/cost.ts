import type { Midi } from "../pitch/pitch";
import type { Profile } from "../song/schema";
import { belowLimit, motionBetween, parallelPerfect } from "../motion/motion";
import type { RawVoicing } from "./style";

/** The named terms a voicing path is judged by. Weights are common practice. */
export const TERMS = {
  motion: "semitones moved in all",
  leap: "one voice leaping past a third",
  topLine: "leaps of the top line",
  parallels: "parallel fifths and octaves",
  register: "away from the middle register",
  spacing: "uneven or rubbing spacing",
  lowIntervals: "close intervals too low",
  missing: "tones left out",
  doubling: "tones doubled",
} as const;

export type TermName = keyof typeof TERMS;
export type Terms = Partial<Record<TermName, number>>;

const PARALLEL_WEIGHT: Record<Profile, number> = { chorale: 8, band: 2, jazz: 0.5, loop: 0 };

export const sumTerms = (terms: Terms): number => Object.values(terms).reduce((a, b) => a + b, 0);

/** Terms of one voicing on its own. `center` is the pitch the voicing should lie around, `bass` the note the bass part is expected to play under it. */
export function nodeTerms({ pitches, missing, doubling }: RawVoicing, center: number, bass?: Midi): Terms {
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
  return { register: Math.max(0, Math.abs(mean - center) - 2) * 0.5, spacing, lowIntervals: low * 3, missing, doubling };
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

const topCost = (a: readonly Midi[], b: readonly Midi[]): number => Math.max(0, Math.abs(a[a.length - 1]! - b[b.length - 1]!) - 2) * 0.5;

/** Chorale style counts every pair of voices, all others the outer one. */
function parallelCost(a: readonly Midi[], b: readonly Midi[], profile: Profile): number {
  if (profile !== "chorale" || a.length !== b.length)
    return parallelPerfect(a[0]!, b[0]!, a[a.length - 1]!, b[b.length - 1]!) ? PARALLEL_WEIGHT[profile] : 0;
  let found = 0;
  for (let low = 0; low < a.length; low++)
    for (let high = low + 1; high < a.length; high++) if (parallelPerfect(a[low]!, b[low]!, a[high]!, b[high]!)) found++;
  return found * PARALLEL_WEIGHT.chorale;
}

/** Terms of the step from one voicing to the next. */
export const stepTerms = (a: readonly Midi[], b: readonly Midi[], profile: Profile): Terms => ({
  motion: motionBetween(a, b),
  leap: leapCost(a, b),
  topLine: topCost(a, b),
  parallels: parallelCost(a, b, profile),
});

/** The sum of `stepTerms`, without making them: this runs for every pair of candidates. */
export const stepCost = (a: readonly Midi[], b: readonly Midi[], profile: Profile): number =>
  motionBetween(a, b) + leapCost(a, b) + topCost(a, b) + parallelCost(a, b, profile);
