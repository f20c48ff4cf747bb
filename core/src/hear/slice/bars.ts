/** A realized song by its bars: what sounds in one is the same list for as long as nothing in it changes. */
import { nth, sameEntries } from "../../base/list";
import type { Meter, Ticks } from "../../theory/time/meter";
import type { RealizedChord, RealizedHit, RealizedNote, RealizedSection } from "../../song/realize";
import type { KickHit } from "./accents";
import type { RoleSpan } from "./roles";

/** A bar on the axis of what is realized. The first has what is struck before it, the last what hangs over its end. */
export interface BarFrame {
  from: Ticks;
  to: Ticks;
  /** The pass it lies in, and where that begins. */
  pass: string;
  origin: Ticks;
  meter: Meter;
}

/** Notes of one part that sound in a bar, in order, with the spans of each. */
export interface PartBar extends Ends {
  notes: readonly RealizedNote[];
  spans: readonly (readonly RoleSpan[])[];
}

/** Chords of a bar, with the names that the bass makes of them where it does. */
export interface ChordBar extends Ends {
  chords: readonly RealizedChord[];
  names: readonly (string | undefined)[];
}

/** The beginning of a bar where something ends there: nothing else of that matters to the bar. */
interface Ends {
  ends: readonly Ticks[];
}

/** Drums that are struck in a bar, and its kicks. */
export interface HitBar {
  hits: readonly RealizedHit[];
  kicks: readonly KickHit[];
}

type Ground = Pick<RealizedSection, "pass" | "start" | "duration" | "meter">;

/** The bars of some passes, one after the other. */
export function barFrames(sections: readonly Ground[]): BarFrame[] {
  const frames = sections.flatMap(({ pass, start: origin, duration, meter }): BarFrame[] =>
    Array.from({ length: Math.ceil(duration / meter.bar) }, (_, b) => ({
      from: origin + b * meter.bar,
      to: origin + Math.min(duration, (b + 1) * meter.bar),
      pass,
      origin,
      meter,
    })),
  );
  const [first, last] = [frames[0], frames.at(-1)];
  if (first) first.from = -Infinity;
  if (last) last.to = Infinity;
  return frames;
}

/** What sounds in each bar, and whether something ends where it begins; the list is in order of its starts. */
export function inBars<T extends { start: Ticks; duration: Ticks }>(
  frames: readonly BarFrame[],
  list: readonly T[],
): (Ends & { entries: T[] })[] {
  const bars = frames.map(() => ({ entries: [] as T[], ends: [] as Ticks[] }));
  let first = 0;
  for (const entry of list) {
    const end = entry.start + entry.duration;
    while (first < frames.length - 1 && nth(frames, first).to <= entry.start) first++;
    for (let b = first; b < frames.length && nth(frames, b).from <= end; b++)
      if (nth(frames, b).from < end) nth(bars, b).entries.push(entry);
      else nth(bars, b).ends = [end];
  }
  return bars;
}

/** What is struck in each bar. */
export function struckInBars<T extends { start: Ticks }>(frames: readonly BarFrame[], list: readonly T[]): T[][] {
  const bars = frames.map((): T[] => []);
  let b = 0;
  for (const entry of list) {
    while (b < frames.length - 1 && nth(frames, b).to <= entry.start) b++;
    bars[b]?.push(entry);
  }
  return bars;
}

/** The bars before where each of their lists has the same things in it: those themselves, not what they say. */
export const keptBars = <B extends object>(before: readonly B[], now: readonly B[]): readonly B[] => {
  const bars = now.map((bar, i) => {
    const old = before[i];
    const same = old && (Object.keys(bar) as (keyof B)[]).every((k) => sameEntries(bar[k] as [], old[k] as []));
    return same ? old : bar;
  });
  return sameEntries(bars, before) ? before : bars;
};
