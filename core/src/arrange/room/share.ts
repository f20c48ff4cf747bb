import type { Ticks } from "../../theory/time/meter";
import { decibels, strengthOf } from "../../theory/instrument/loudness";
import type { RealizedNote } from "../../song/realize";
import type { Part } from "../../song/schema";
import { soundingIn } from "../../hear/slice/soundingIn";

export const attackTimes = (notes: readonly RealizedNote[]): Set<number> => new Set(notes.map((n) => n.start));

/** Mean loudness of a part in decibels under the strongest note, its level counted in. */
export const meanLevel = ({ part, notes }: { part: Pick<Part, "level">; notes: readonly RealizedNote[] }): number =>
  decibels(strengthOf(notes.reduce((sum, n) => sum + n.velocity, 0) / notes.length)) + (part.level ?? 0);

/** Share of the time of some notes in which another part sounds something that a test accepts. */
export function shareOf(
  own: readonly RealizedNote[],
  other: readonly RealizedNote[],
  bar: Ticks,
  test: (a: RealizedNote, b: RealizedNote) => boolean,
): number {
  const around = soundingIn(other, bar);
  let [all, met] = [0, 0];
  for (const n of own) {
    const end = n.start + n.duration;
    all += n.duration;
    let last = n.start;
    const there = around
      .within(n.start, end)
      .filter((m) => test(n, m))
      .sort((a, b) => a.start - b.start);
    for (const m of there) {
      const [from, to] = [Math.max(last, m.start), Math.min(end, m.start + m.duration)];
      if (to > from) {
        met += to - from;
        last = to;
      }
    }
  }
  return all ? met / all : 0;
}
