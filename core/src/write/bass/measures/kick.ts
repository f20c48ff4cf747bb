import type { Ticks } from "../../../theory/time/meter";
import { chordAt, type BassContext } from "../context";
import { defineMeasure, idsOf, percent } from "./measure";

/**
 * Main accents under a chord, and whether some bass sound strikes there: where several share a line, it does not matter
 * which.
 */
function metAccents(ctx: BassContext): { start: Ticks; met: boolean }[] {
  const attacks = new Set([...ctx.notes, ...ctx.layers].map((n) => n.start));
  return ctx.kicks
    .filter((k) => k.main && chordAt(ctx, k.start)?.chord)
    .map((k) => ({ start: k.start, met: attacks.has(k.start) }));
}

export const accents = defineMeasure({
  id: "accents",
  title: "Main kick accents met",
  unit: "notes",
  how: "Main accents of the kick under a chord on which a bass note begins.",
  take(ctx): { accents: number; accentsMet: number; missed: Ticks[] } {
    const all = metAccents(ctx);
    const missed = all.filter((k) => !k.met).map((k) => k.start);
    return { accents: all.length, accentsMet: all.length - missed.length, missed };
  },
  notes: (ctx) =>
    idsOf(
      metAccents(ctx).flatMap((k) =>
        k.met ? [] : (ctx.notes.findLast((n) => n.start < k.start && n.start + n.duration > k.start) ?? []),
      ),
    ),
  ticks: (own) => own.missed,
  show: (own) => `${own.accentsMet} of ${own.accents}`,
  target: (own, { settings }) =>
    settings.lock === "chords"
      ? null
      : ["all of them: a kick on a beat or clearly loud, or marked by you", own.accentsMet === own.accents],
});

const offTheKick = (ctx: BassContext) => {
  const kickAt = new Set(ctx.kicks.map((k) => k.start));
  return ctx.notes.filter((n) => !kickAt.has(n.start));
};

export const offKick = defineMeasure({
  id: "offKick",
  title: "Notes off the kick",
  unit: "notes",
  how: "Notes that begin where no kick is struck.",
  take: (ctx): { offKick: number } => ({ offKick: offTheKick(ctx).length }),
  notes: (ctx) => idsOf(offTheKick(ctx)),
  show: (own) => String(own.offKick),
  target: (own, { style: { targets } }) =>
    targets.offKick !== undefined && own.steadyKick
      ? [
          `at most ${percent(targets.offKick)} of the notes: a few give the hook`,
          own.offKick <= targets.offKick * own.notes,
        ]
      : null,
  cause(ctx, line) {
    const off = line.filter((s) => s.slot.use === "anchor" && !ctx.kicks.some((k) => k.start === s.slot.start)).length;
    return {
      code: "offKick",
      message: off
        ? `${off} chords begin where there is no kick, and the bass must state them.`
        : "The density lets in more notes than there are kicks.",
    };
  },
});
