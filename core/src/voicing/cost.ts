import type { Midi } from "../pitch/pitch";
import type { Profile } from "../song/schema";
import { belowLimit, motionBetween, parallelPerfect } from "../motion/motion";
import type { RawVoicing } from "./style";

/** The named terms a voicing path is judged by. Weights are common practice. */
export const TERMS = {
  motion: "semitones moved in all",
  leap: "one voice leaping past a third",
  topLine: "leaps of the top line",
  parallels: "parallel outer voices",
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

/** Terms of the step from one voicing to the next. */
export function stepTerms(a: readonly Midi[], b: readonly Midi[], profile: Profile): Terms {
  const motion = motionBetween(a, b);
  let leap = 0;
  if (a.length === b.length) for (let i = 0; i < a.length; i++) leap = Math.max(leap, Math.abs(a[i]! - b[i]!));
  const top = Math.abs(a.at(-1)! - b.at(-1)!);
  const parallel = parallelPerfect(a[0]!, b[0]!, a.at(-1)!, b.at(-1)!);
  return { motion, leap: Math.max(0, leap - 4) * 0.5, topLine: Math.max(0, top - 2) * 0.5, parallels: parallel ? PARALLEL_WEIGHT[profile] : 0 };
}
