import { add } from "../../base/list";
import { random } from "../../base/random";
import { mod } from "../../theory/pitch/pitch";
import type { Ticks } from "../../theory/time/meter";

/** Half of a beat where that lies on the grid, otherwise two thirds of it. */
export const halfOf = (duration: Ticks): Ticks => (duration % 720 === 0 ? (duration * 2) / 3 : duration / 2);

/** A number for a position of the figure: the same in every bar, so that a rhythm comes back. */
export function noise(seed: number, position: number): number {
  return random(seed * 7919 + position * 31 + 17)();
}

/** Share of bars that sound at each sixteenth of the bar: the rhythm figure of a line. */
export function attackProfile(starts: readonly Ticks[], bar: Ticks, bars: number): number[] {
  const profile = new Array<number>(Math.round(bar / 120)).fill(0);
  for (const s of starts) if (s >= 0 && s < bars * bar) add(profile, Math.floor(mod(s, bar) / 120), 1 / bars);
  return profile.map((x) => Math.min(1, x));
}

/** How much two figures are alike, 0–1: what they share of all they have (weighted Jaccard index). */
export function figureLikeness(a: readonly number[], b: readonly number[]): number {
  let shared = 0;
  let all = 0;
  for (let i = 0; i < Math.max(a.length, b.length); i++) {
    shared += Math.min(a[i] ?? 0, b[i] ?? 0);
    all += Math.max(a[i] ?? 0, b[i] ?? 0);
  }
  return all ? shared / all : 0;
}
