import { onceFor } from "../../../../base/once";
import { mod } from "../../../../theory/pitch/pitch";
import { shareOf } from "../../../../arrange/room/share";
import type { RealizedNote } from "../../../../song/realize";
import type { Part } from "../../../../song/schema";
import type { CheckContext } from "../../rule";

/** A part with what it plays, chopped and arpeggiated. */
export interface Sounded {
  part: Part;
  notes: readonly RealizedNote[];
}

/** Pitched parts that play in the section; those that only repeat another part are left out. */
export const playingIn = (ctx: CheckContext): Sounded[] =>
  ctx.song.parts
    .filter((p) => p.role !== "drums" && p.echoes === undefined)
    .map((part): Sounded => ({ part, notes: ctx.played(part.id) }))
    .filter((p) => p.notes.length > 0);

/** Attacks of some notes by the bar they fall into; what begins before the section or after it is left out. */
export const attacksByBar = (notes: readonly RealizedNote[], bar: number, bars: number): ReadonlySet<number>[] =>
  onceFor([notes], `attacks ${bar} ${bars}`, () => {
    const out = Array.from({ length: bars }, () => new Set<number>());
    for (const n of notes) out[Math.floor(n.start / bar)]?.add(n.start);
    return out;
  });

/** Whether one part doubles the other throughout, in unison or octaves: one voice in two colors. */
export const doubles = (a: Sounded, b: Sounded, bar: number): boolean =>
  onceFor([a.notes, b.notes], `doubles ${bar}`, () =>
    shareOf(a.notes, b.notes, bar, (x, y) => mod(x.midi - y.midi, 12) === 0 && x.start === y.start),
  ) > 0.8;
