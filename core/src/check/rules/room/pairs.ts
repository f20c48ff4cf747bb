import { mod } from "../../../pitch/pitch";
import { soundingIn } from "../../../writer/notes";
import { strengthOf, decibels } from "../../../instrument/loudness";
import type { RealizedNote } from "../../../song/realize";
import type { Part } from "../../../song/schema";
import type { CheckContext } from "../../rule";

/** A part with what it plays, chopped and arpeggiated. */
export interface Playing {
  part: Part;
  notes: readonly RealizedNote[];
}

/** Pitched parts that play in the section; those that only repeat another part are left out. */
export const playingIn = (ctx: CheckContext): Playing[] =>
  ctx.song.parts
    .filter((p) => p.role !== "drums" && p.echoes === undefined)
    .map((part): Playing => ({ part, notes: ctx.played(part.id) }))
    .filter((p) => p.notes.length > 0);

export const attacksOf = (notes: readonly RealizedNote[]): Set<number> => new Set(notes.map((n) => n.start));

/** Mean loudness of a part in decibels under the strongest note, its level counted in. */
export const loudnessOf = ({ part, notes }: Playing): number =>
  decibels(strengthOf(notes.reduce((sum, n) => sum + n.velocity, 0) / notes.length)) + (part.level ?? 0);

/** Share of the time of some notes in which another part sounds something that a test accepts. */
export function shareOf(
  own: readonly RealizedNote[],
  other: readonly RealizedNote[],
  bar: number,
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

/** Whether one part doubles the other throughout, in unison or octaves: one voice in two colors. */
export const doubles = (a: Playing, b: Playing, bar: number): boolean =>
  shareOf(a.notes, b.notes, bar, (x, y) => mod(x.midi - y.midi, 12) === 0 && x.start === y.start) > 0.8;
