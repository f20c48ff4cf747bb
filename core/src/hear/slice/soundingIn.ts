import { onceFor } from "../../base/once";
import type { Ticks } from "../../theory/time/meter";

/** What sounds at a moment, and between two. */
export interface SoundingIn<N> {
  at(tick: Ticks): N[];
  within(from: Ticks, to: Ticks): N[];
}

/** Notes by the bars they sound in, so that what sounds somewhere is found at once; a list is looked through once. */
export const soundingIn = <N extends { start: Ticks; duration: Ticks }>(
  notes: readonly N[],
  bar: Ticks,
): SoundingIn<N> => onceFor([notes], `sounding ${bar}`, () => byBars(notes, bar));

function byBars<N extends { start: Ticks; duration: Ticks }>(notes: readonly N[], bar: Ticks): SoundingIn<N> {
  const bars = new Map<number, N[]>();
  for (const note of notes)
    for (let b = Math.floor(note.start / bar); b * bar < note.start + note.duration; b++) {
      const list = bars.get(b);
      if (list) list.push(note);
      else bars.set(b, [note]);
    }
  const inBar = (b: number) => bars.get(b) ?? [];
  return {
    at: (tick) => inBar(Math.floor(tick / bar)).filter((n) => n.start <= tick && tick < n.start + n.duration),
    within(from, to) {
      const found = new Set<N>();
      for (let b = Math.floor(from / bar); b * bar < to; b++)
        for (const n of inBar(b)) if (n.start < to && n.start + n.duration > from) found.add(n);
      return [...found];
    },
  };
}

/** Lists are looked up by stretches of four quarters. */
const STRETCH: Ticks = 1920;

/** The notes of a list that sound at a moment, in the order of the list. */
export const soundingOf = <N extends { start: Ticks; duration: Ticks }>(notes: readonly N[], tick: Ticks): N[] =>
  soundingIn(notes, STRETCH).at(tick);

/** The notes of a list in order that sound between two moments. */
export const soundingBetween = <N extends { start: Ticks; duration: Ticks }>(
  notes: readonly N[],
  from: Ticks,
  to: Ticks,
): N[] => soundingIn(notes, STRETCH).within(from, to);
