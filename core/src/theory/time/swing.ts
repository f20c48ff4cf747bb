import { lastOf, nth } from "../../base/list";
import type { Bpm, Seconds, Ticks } from "./meter";
import { QUARTER } from "./meter";

/**
 * ratio: share of a pair taken by its first half, 0.5 (straight) to 0.75; 2/3 is the triplet feel. unit: which
 * subdivision swings.
 */
export interface Swing {
  ratio: number;
  unit: 8 | 16;
}

/**
 * Where a notated position is played under swing, counted from the start of its bar: every second subdivision is
 * delayed, and what lies between is stretched in proportion. A pair that the bar cuts short (7/8) stays straight.
 */
export function swung(inBar: Ticks, bar: Ticks, swing: Swing): number {
  if (swing.ratio === 0.5) return inBar;
  const half = (QUARTER * 4) / swing.unit;
  const pair = 2 * half;
  const base = Math.floor(inBar / pair) * pair;
  if (base + pair > bar) return inBar;
  const into = inBar - base;
  return base + (into < half ? into * swing.ratio * 2 : pair * swing.ratio + (into - half) * (1 - swing.ratio) * 2);
}

/** Swing that one hears: below it the feel is called straight. */
const HEARD = 0.53;

/** The feel as it is said at the top of a part: "swung eighths"; empty where it is straight. */
export const feelText = ({ ratio, unit }: Swing): string =>
  ratio > HEARD ? `swung ${unit === 16 ? "sixteenths" : "eighths"}` : "";

/** Length of a number of ticks at a tempo. */
export const ticksToSeconds = (ticks: number, tempo: Bpm): Seconds => (ticks / QUARTER) * (60 / tempo);

/**
 * Tempo from taps, by the mean interval of the last eight; null with fewer than two taps or after a pause over two
 * seconds. Times in milliseconds.
 */
export function tappedTempo(taps: readonly number[]): Bpm | null {
  let first = taps.length - 1;
  while (first > 0 && taps.length - first < 8 && nth(taps, first) - nth(taps, first - 1) < 2000) first--;
  const count = taps.length - 1 - first;
  if (count < 1) return null;
  const tempo = (60000 * count) / (lastOf(taps) - nth(taps, first));
  return Math.min(400, Math.max(20, Math.round(tempo)));
}
