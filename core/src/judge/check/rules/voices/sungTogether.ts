import { pairwise } from "../../../../base/list";
import { onceFor } from "../../../../base/once";
import { isSung } from "../../../../hear/singer/range";
import type { RealizedNote } from "../../../../song/realize";
import type { Ticks } from "../../../../theory/time/meter";
import type { Part } from "../../../../song/schema";
import type { CheckContext } from "../../rule";

/** So much of the attacks of the one with fewer in common, and so many, make two singers sing together. */
export const TOGETHER = 0.75;
const FEWEST = 6;

/** A sung part with its notes, and those by where they begin. */
export interface Sung {
  part: Part;
  notes: readonly RealizedNote[];
  at: ReadonlyMap<Ticks, RealizedNote>;
  /** The note before the one that begins there. */
  before: ReadonlyMap<Ticks, RealizedNote>;
}

const inOrder = (played: readonly RealizedNote[]): Omit<Sung, "part"> =>
  onceFor([played], "in order", () => {
    const notes = [...played].sort((a, b) => a.start - b.start);
    const before = new Map(pairwise(notes).map(([n, next]) => [next.start, n]));
    return { notes, at: new Map(notes.map((n) => [n.start, n])), before };
  });

/** Pairs of sung parts that have one rhythm for most of the section; the tune leads, else who stands first. */
export function sungTogether(ctx: CheckContext): [upper: Sung, lower: Sung][] {
  const sung = ctx.song.parts
    .filter((p) => isSung(ctx.song, p) && p.echoes === undefined)
    .map((part): Sung => ({ part, ...inOrder(ctx.played(part.id)) }));
  sung.sort((a, b) => Number(b.part.role === "melody") - Number(a.part.role === "melody"));
  return sung.flatMap((a, i) =>
    sung.slice(i + 1).flatMap((b): [Sung, Sung][] => {
      const common = a.notes.filter((n) => b.at.has(n.start)).length;
      return common >= FEWEST && common >= TOGETHER * Math.min(a.at.size, b.at.size) ? [[a, b]] : [];
    }),
  );
}
