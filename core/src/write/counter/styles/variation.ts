import { firstOf, sure } from "../../../base/list";
import { positionText } from "../../../theory/time/meter";
import { because } from "../../../song/reasons";
import { noise } from "../../../hear/line/figure";
import { chordAt, type CounterContext } from "../context";
import { COSTS, type CounterSlot, type CounterStyle } from "../style";

/** Bars of the half that is varied. */
const halfOf = (ctx: CounterContext): number => Math.floor(ctx.bars / 2) * ctx.meter.bar;

/** The first half, which stays as it is. */
const firstHalf = (ctx: CounterContext): CounterSlot[] => {
  const half = halfOf(ctx);
  return ctx.notes
    .filter((n) => n.start < half)
    .map((n) => ({ start: n.start, duration: Math.min(n.duration, half - n.start), fixed: n.midi }));
};

export const variation: CounterStyle = {
  id: "variation",
  title: "Second half varied",
  explanation:
    "The first half stays as it is, and the second comes back to it with more: longer notes are filled with " +
    "steps, the line may rise, and the end is another one.",
  source: "common practice",
  targets: { chordTime: 0.6 },
  costs: { ...COSTS, repeat: 0.5 },
  uses: ["density", "side"],
  reason({ ctx, note, own }) {
    const at = note.start - halfOf(ctx);
    const first = at < 0 ? undefined : ctx.oldAt(at);
    if (!first || first.start < 0) return null;
    const where = { ...own, where: positionText(ctx.meter, first.start) };
    if (first.start < at) return because("fills", where);
    const lasts = Math.min(first.duration, halfOf(ctx) - first.start);
    const varied = first.midi !== note.midi || lasts !== note.end - note.start;
    return because(varied ? "again" : "comesBack", where);
  },
  slots(ctx, seed) {
    const half = halfOf(ctx);
    const first = firstHalf(ctx);
    if (!half || !first.length) return [];
    const beat = firstOf(ctx.meter.beats).duration;
    const second = first
      .filter((s) => s.start >= 0)
      .flatMap((s, i): CounterSlot[] => {
        const start = s.start + half;
        const chord = chordAt(ctx, start);
        if (start >= ctx.length || !chord?.chord) return [];
        // A note may sound on where the first time another chord cut it off, and ends with its own chord.
        const duration = Math.min(s.duration, chord.start + chord.duration - start);
        const varied = { near: sure(s.fixed) };
        const splits = duration >= 2 * beat && noise(seed, i % 5) < 0.35 + ctx.settings.density * 0.6;
        if (!splits) return [{ start, duration, ...varied }];
        const into = duration >= 3 * beat ? [duration - beat, beat / 2, beat / 2] : [duration - beat, beat];
        let at = start;
        return into.map((d, k) => {
          const slot = { start: at, duration: d, ...varied, ...(k ? { passes: true } : {}) };
          at += d;
          return slot;
        });
      });
    return [...first, ...second];
  },
  nothing: (ctx) =>
    halfOf(ctx)
      ? {
          message: `${ctx.part.name} has no note in the first half of ${ctx.section.name} to come back to`,
          hint: "Draw the first half, or take a line of another style first.",
        }
      : { message: `${ctx.section.name} has no second half`, hint: "A section of two bars or more has one." },
};
