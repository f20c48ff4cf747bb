import { firstOf } from "../../base/list";
import { treeLevel, type Meter, type Ticks } from "../../theory/time/meter";

export interface Syncopation {
  /** The attack that is syncopated, and the stronger position after it that is held or silent. */
  start: Ticks;
  stronger: Ticks;
  /** Difference of their metrical levels. */
  weight: number;
}

/** The finest positions that are looked at: sixteenths. */
const FINE: Ticks = 120;

/**
 * Syncopations of a rhythm (Longuet-Higgins & Lee 1984): after an attack on a weak position, a stronger one before the
 * next attack is silent or only the held part of the note. Each attack counts once, against the strongest such
 * position. With `loop`, what comes after the end is the beginning.
 */
export function syncopations(starts: readonly Ticks[], meter: Meter, length: Ticks, loop = true): Syncopation[] {
  const attacks = [...new Set(starts)].filter((s) => s >= 0 && s < length).sort((a, b) => a - b);
  const out: Syncopation[] = [];
  attacks.forEach((start, i) => {
    const next = attacks[i + 1] ?? (loop ? firstOf(attacks) + length : length);
    const level = treeLevel(meter, start);
    let best: Syncopation | null = null;
    for (let at = Math.floor(start / FINE) * FINE + FINE; at < next; at += FINE) {
      const weight = treeLevel(meter, at % length) - level;
      if (weight > 0 && (!best || weight > best.weight)) best = { start, stronger: at % length, weight };
    }
    if (best) out.push(best);
  });
  return out;
}

/** All weights of a rhythm together. */
export const syncopation = (starts: readonly Ticks[], meter: Meter, length: Ticks, loop = true): number =>
  syncopations(starts, meter, length, loop).reduce((sum, s) => sum + s.weight, 0);
