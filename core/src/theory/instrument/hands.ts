import { firstOf, lastOf, nth } from "../../base/list";
import type { Midi, Semitones } from "../pitch/pitch";

export interface Hand {
  /** Low to high. */
  pitches: Midi[];
  span: Semitones;
  fingers: number;
}

export interface Hands {
  left: Hand;
  right: Hand;
  /**
   * None up to an octave; `wide` up to a tenth less a step; `far` beyond: only some hands reach it (common practice).
   */
  stretch: "none" | "wide" | "far";
}

/** An octave lies under every grown hand; a ninth under many; a tenth under few (common practice). */
export const OCTAVE_SPAN: Semitones = 12;
export const NINTH_SPAN: Semitones = 14;

const hand = (pitches: Midi[]): Hand => ({
  pitches,
  span: pitches.length > 1 ? lastOf(pitches) - firstOf(pitches) : 0,
  fingers: pitches.length,
});

/** Discomfort of one hand: what lies past an octave, and five fingers at once. */
const strain = ({ span, fingers }: Hand): number => Math.max(0, span - OCTAVE_SPAN) * 0.5 + (fingers >= 5 ? 0.4 : 0);

/**
 * Shares notes (low to high) between two hands, or one: the sharing that strains least; among equals the right hand
 * takes what it can. Null when a hand would need more than five fingers or reach past `reach` semitones.
 */
export function twoHands(pitches: readonly Midi[], reach: Semitones = NINTH_SPAN, hands: 1 | 2 = 2): Hands | null {
  let best: { hands: Hands; cost: number } | null = null;
  for (let split = 0; split <= (hands === 1 ? 0 : pitches.length); split++) {
    const left = hand(pitches.slice(0, split));
    const right = hand(pitches.slice(split));
    if (left.fingers > 5 || right.fingers > 5 || left.span > reach || right.span > reach) continue;
    // Hands part where the notes lie apart.
    const gap = split > 0 && split < pitches.length ? Math.min(12, nth(pitches, split) - nth(pitches, split - 1)) : 12;
    const cost = strain(left) + strain(right) + (12 - gap) * 0.01 + split * 0.001;
    const wide = Math.max(left.span, right.span);
    if (!best || cost < best.cost) {
      const stretchOf = () => {
        if (wide <= OCTAVE_SPAN) return "none";
        if (wide <= NINTH_SPAN) return "wide";
        return "far";
      };
      best = {
        cost,
        hands: { left, right, stretch: stretchOf() },
      };
    }
  }
  return best?.hands ?? null;
}

/** How much a layout strains the hands, 0 when it lies easily. */
export function handStrain(pitches: readonly Midi[], reach: Semitones = NINTH_SPAN, hands: 1 | 2 = 2): number {
  let least = Infinity;
  for (let split = 0; split <= (hands === 1 ? 0 : pitches.length); split++) {
    const left = split > 1 ? nth(pitches, split - 1) - firstOf(pitches) : 0;
    const right = pitches.length - split > 1 ? lastOf(pitches) - nth(pitches, split) : 0;
    if (split > 5 || pitches.length - split > 5 || left > reach || right > reach) continue;
    const cost =
      (Math.max(0, left - OCTAVE_SPAN) + Math.max(0, right - OCTAVE_SPAN)) * 0.5 +
      (split >= 5 || pitches.length - split >= 5 ? 0.4 : 0);
    if (cost < least) least = cost;
  }
  return least;
}
