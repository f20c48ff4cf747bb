import { firstOf, nth } from "../../../base/list";
import { mod } from "../../../theory/pitch/pitch";
import type { Ticks } from "../../../theory/time/meter";
import type { RealizedNote } from "../../../song/realize";
import { motionAgainst } from "../../../theory/motion/motion";
import type { CounterContext } from "../context";
import { at, defineMeasure, idsOf, percent, topOf } from "./measure";

const doubled = (ctx: CounterContext): RealizedNote[] =>
  topOf(ctx).filter((n) => {
    const tune = ctx.tuneAt(n.start);
    return tune?.start === n.start && mod(tune.midi - n.midi, 12) === 0;
  });

export const doubling = defineMeasure({
  id: "doubling",
  title: "Doubles the tune",
  unit: "notes",
  how: "Notes struck with a note of the tune, in unison or octaves with it",
  take: (ctx): { doubling: number | null } => ({ doubling: ctx.tune.length ? doubled(ctx).length : null }),
  notes: (ctx) => idsOf(doubled(ctx)),
  show: (own) => (own.doubling === null ? null : String(own.doubling)),
  target: (own, { style }) =>
    own.doubling === null || style.targets.strict
      ? null
      : ["one in ten at most", own.doubling <= Math.max(1, own.notes * 0.1)],
  cause: (ctx) => ({
    code: "doubling",
    message: `${ctx.against} takes the tones that are left over the chords${at(ctx, doubled(ctx)[0]?.start)}.`,
  }),
});

/** Moves of the line while the tune sounds at both ends, with how the two go. */
function moves(ctx: CounterContext): { note: RealizedNote; independent: boolean; parallel: boolean }[] {
  const line = topOf(ctx);
  return line.slice(1).flatMap((note, i) => {
    const before = nth(line, i);
    const [a, b] = [ctx.tuneAt(before.start), ctx.tuneAt(note.start)];
    if (!a || !b || note.start - (before.start + before.duration) > firstOf(ctx.meter.beats).duration) return [];
    const { kind, parallel } = motionAgainst(before.midi, note.midi, a.midi, b.midi);
    return kind === "none" ? [] : [{ note, independent: kind === "contrary" || kind === "oblique", parallel }];
  });
}

export const motion = defineMeasure({
  id: "motion",
  title: "Goes its own way",
  unit: "share",
  how: "The share of moves against the tune, or while one of the two stands. It points at the others",
  take(ctx): { independent: number | null } {
    const all = moves(ctx);
    return { independent: all.length ? all.filter((m) => m.independent).length / all.length : null };
  },
  notes: (ctx) => idsOf(moves(ctx).flatMap((m) => (m.independent ? [] : [m.note]))),
  show: (own) => (own.independent === null ? null : percent(own.independent)),
  target: (own, { style: { targets } }) =>
    targets.independent === undefined || own.independent === null
      ? null
      : [`${percent(targets.independent)} or more`, own.independent >= targets.independent - 1e-9],
  cause: (ctx) => ({
    code: "motion",
    message: `The chords move the way ${ctx.against} does, and leave the line no other.`,
  }),
});

export const parallels = defineMeasure({
  id: "parallels",
  title: "Parallel fifths, octaves",
  unit: "notes",
  how: "Moves from a fifth, octave or unison with the tune into another of the same",
  take: (ctx): { parallels: number | null } => ({
    parallels: ctx.tune.length ? moves(ctx).filter((m) => m.parallel).length : null,
  }),
  notes: (ctx) => idsOf(moves(ctx).flatMap((m) => (m.parallel ? [m.note] : []))),
  show: (own) => (own.parallels === null ? null : String(own.parallels)),
  target: (own, { style }) => (own.parallels === null || style.targets.given ? null : ["none", own.parallels === 0]),
  cause: (ctx) => ({
    code: "parallels",
    message:
      "Every other tone there would rub or leave the " +
      `range${at(ctx, moves(ctx).find((m) => m.parallel)?.note.start)}.`,
  }),
});

/** How long a note sounds together with the tune. */
function overlapOf(ctx: CounterContext, note: RealizedNote): Ticks {
  const end = note.start + note.duration;
  return ctx
    .tuneWithin(note.start, end)
    .reduce((sum, t) => sum + Math.max(0, Math.min(end, t.start + t.duration) - Math.max(note.start, t.start)), 0);
}
const sounding = (notes: readonly RealizedNote[]): Ticks => notes.reduce((sum, n) => sum + n.duration, 0);

export const overlap = defineMeasure({
  id: "overlap",
  title: "Under the tune",
  unit: "share",
  how: "The share of its time in which the tune sounds as well",
  take(ctx): { overlap: number | null } {
    const line = topOf(ctx);
    return {
      overlap:
        ctx.tune.length && line.length ? line.reduce((sum, n) => sum + overlapOf(ctx, n), 0) / sounding(line) : null,
    };
  },
  notes: (ctx) => idsOf(topOf(ctx).filter((n) => overlapOf(ctx, n) > 0)),
  show: (own) => (own.overlap === null ? null : percent(own.overlap)),
  target: (own, { style: { targets } }) =>
    targets.overlap === undefined || own.overlap === null
      ? null
      : [`under ${percent(targets.overlap)}`, own.overlap < targets.overlap],
  cause: (ctx) => ({
    code: "gaps",
    message: `${ctx.against} rests too little: pinned notes sound under it${at(ctx, ctx.pinned[0]?.start)}.`,
  }),
});

/** Notes that do not answer: they begin outside a gap, or the last one of a gap sounds into the next phrase. */
const astray = (ctx: CounterContext): RealizedNote[] =>
  topOf(ctx).filter((n) => !ctx.gaps.some((g) => n.start >= g.from && n.start < g.to && n.start + n.duration <= g.to));

export const answering = defineMeasure({
  id: "answers",
  title: "Outside the gaps",
  unit: "notes",
  how: "Notes that begin while the tune sounds, or last into its next phrase",
  take: (ctx): { astray: number | null } => ({ astray: ctx.tune.length ? astray(ctx).length : null }),
  notes: (ctx) => idsOf(astray(ctx)),
  show: (own) => (own.astray === null ? null : String(own.astray)),
  target: (own, { style: { targets } }) => (targets.answers && own.astray !== null ? ["none", own.astray === 0] : null),
  cause: (ctx) => ({
    code: "gaps",
    message: `A pinned note stands outside the gaps of ${ctx.against}${at(ctx, astray(ctx)[0]?.start)}.`,
  }),
});

const struckTogether = (ctx: CounterContext): RealizedNote[] =>
  topOf(ctx).filter((n) => ctx.tuneAt(n.start)?.start === n.start);

export const together = defineMeasure({
  id: "together",
  title: "Struck with the tune",
  unit: "share",
  how: "The share of its notes that begin with a note of the tune",
  take(ctx): { together: number | null } {
    const line = topOf(ctx);
    return { together: ctx.tune.length && line.length ? struckTogether(ctx).length / line.length : null };
  },
  notes: (ctx) => idsOf(struckTogether(ctx)),
  show: (own) => (own.together === null ? null : percent(own.together)),
  target: (own, { style: { targets } }) =>
    targets.together === undefined || own.together === null
      ? null
      : [`${percent(targets.together)} at most`, own.together <= targets.together + 1e-9],
  cause: (ctx) => ({
    code: "together",
    message: `${ctx.against} strikes at every change of chord, where the line moves as well.`,
  }),
});

const crossings = (ctx: CounterContext): RealizedNote[] =>
  ctx.notes.filter((n) => {
    const tune = ctx.tuneAt(n.start);
    return tune !== null && (ctx.side === "below" ? n.midi > tune.midi : n.midi < tune.midi);
  });

export const crossing = defineMeasure({
  id: "crossing",
  title: "Crosses the tune",
  unit: "notes",
  how: "Notes on the other side of the tune that sounds with them",
  take: (ctx): { crossing: number | null } => ({ crossing: ctx.tune.length ? crossings(ctx).length : null }),
  notes: (ctx) => idsOf(crossings(ctx)),
  show: (own) => (own.crossing === null ? null : String(own.crossing)),
  target: (own) =>
    own.crossing === null ? null : ["one in ten at most", own.crossing <= Math.max(0, own.notes * 0.1)],
  cause: (ctx) => ({
    code: "crossing",
    message: `${ctx.against} comes into the register of the line${at(ctx, crossings(ctx)[0]?.start)}.`,
  }),
});
