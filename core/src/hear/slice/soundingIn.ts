import { onceFor } from "../../base/once";
import type { Ticks } from "../../theory/time/meter";

/** Notes by the bars they sound in, so that what sounds somewhere is found at once. */
export function soundingIn<N extends { start: Ticks; duration: Ticks }>(
  notes: readonly N[],
  bar: Ticks,
): { at(tick: Ticks): N[]; within(from: Ticks, to: Ticks): N[] } {
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

const indexOf = <N extends { start: Ticks; duration: Ticks }>(notes: readonly N[]) =>
  onceFor([notes], `sounding ${STRETCH}`, () => soundingIn(notes, STRETCH));

/** The notes of a list that sound at a moment, in the order of the list; the list is looked through once. */
export const soundingOf = <N extends { start: Ticks; duration: Ticks }>(notes: readonly N[], tick: Ticks): N[] =>
  indexOf(notes).at(tick);

/** The notes of a list in order that sound between two moments; the list is looked through once. */
export const soundingBetween = <N extends { start: Ticks; duration: Ticks }>(
  notes: readonly N[],
  from: Ticks,
  to: Ticks,
): N[] => indexOf(notes).within(from, to);
