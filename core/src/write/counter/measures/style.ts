import { firstOf, nth } from "../../../base/list";
import type { Ticks } from "../../../theory/time/meter";
import { DRUM_KINDS } from "../../../theory/instrument/drums";
import type { RealizedNote } from "../../../song/realize";
import type { CounterContext } from "../context";
import { strictBreaks } from "../strict";
import { at, defineMeasure, idsOf, percent, topOf } from "./measure";

export const falls = defineMeasure({
  id: "falls",
  title: "Falls",
  unit: "share",
  how: "The share of moves within a figure that go down",
  take(ctx): { falls: number | null } {
    const line = topOf(ctx);
    const bar = (n: RealizedNote) => Math.floor(n.start / ctx.meter.bar);
    const moves = line.slice(1).flatMap((n, i) => {
      const before = nth(line, i);
      return n.start === before.start + before.duration && bar(n) === bar(before) ? [n.midi - before.midi] : [];
    });
    return { falls: moves.length ? moves.filter((m) => m < 0).length / moves.length : null };
  },
  show: (own) => (own.falls === null ? null : percent(own.falls)),
  target: (own, { style: { targets } }) =>
    targets.falls === undefined || own.falls === null
      ? null
      : [`${percent(targets.falls)} or more`, own.falls >= targets.falls - 1e-9],
  cause: () => ({ code: "falls", message: "The range leaves the figure too little room to fall." }),
});

const missed = (ctx: CounterContext): Ticks[] => {
  const starts = new Set(ctx.notes.map((n) => n.start));
  return ctx.hits.filter((h) => !starts.has(h));
};

export const hits = defineMeasure({
  id: "hits",
  title: "Hits it takes",
  unit: "notes",
  how: "Of the hits of the drum it doubles",
  take: (ctx): { hits: number; missed: Ticks[] } => ({ hits: ctx.hits.length, missed: missed(ctx) }),
  ticks: (own) => own.missed,
  show: (own) => (own.hits ? `${own.hits - own.missed.length} of ${own.hits}` : null),
  target: (own, { style: { targets } }) => (targets.hits && own.hits ? ["every one", own.missed.length === 0] : null),
  cause: (ctx, _line, own) => ({
    code: "hits",
    ...(own.missed.length ? { tick: firstOf(own.missed) } : {}),
    message:
      `The ${DRUM_KINDS[ctx.drum].title} strikes where there is no chord, or under a pinned ` +
      `note${at(ctx, own.missed[0])}.`,
  }),
});

const outside = (ctx: CounterContext): RealizedNote[] =>
  ctx.notes.filter((n) => n.midi < ctx.range[0] || n.midi > ctx.range[1]);

export const range = defineMeasure({
  id: "range",
  title: "Outside the range",
  unit: "notes",
  how: "Notes outside the range that is set, or that of the instrument",
  take: (ctx): { outOfRange: number } => ({ outOfRange: outside(ctx).length }),
  notes: (ctx) => idsOf(outside(ctx)),
  show: (own) => String(own.outOfRange),
  target: (own) => ["none", own.outOfRange === 0],
  cause: (ctx) => ({
    code: "range",
    message: `A pinned note or a cell lies outside the range${at(ctx, outside(ctx)[0]?.start)}.`,
  }),
});

export const strict = defineMeasure({
  id: "strict",
  title: "Strict rules broken",
  unit: "times",
  how:
    "Rules of first species against the tune: consonances only, perfect ends, no parallel or direct fifths and " +
    "octaves, no dissonant leap",
  take: (ctx): { breaks: { tick: Ticks; words: string }[] } => ({ breaks: ctx.tune.length ? strictBreaks(ctx) : [] }),
  ticks: (own) => own.breaks.map((b) => b.tick),
  show: () => null,
  target: (own, { style: { targets } }) => (targets.strict ? ["none", own.breaks.length === 0] : null),
  cause: (ctx, _line, own) => ({
    code: "strict",
    ...(own.breaks[0] ? { tick: own.breaks[0].tick } : {}),
    message: `${ctx.against} cannot be answered strictly in this range: ${own.breaks
      .slice(0, 3)
      .map((b) => `${b.words}${at(ctx, b.tick)}`)
      .join("; ")}${own.breaks.length > 3 ? `; and ${own.breaks.length - 3} more` : ""}.`,
  }),
});

const unexplained = (ctx: CounterContext): RealizedNote[] => ctx.notes.filter((n) => !n.reason && !n.pinned);

export const reasons = defineMeasure({
  id: "reasons",
  title: "Without a reason",
  unit: "notes",
  how: "Notes that say nothing of why they are there: drawn ones say nothing",
  take: (ctx): { unexplained: number } => ({ unexplained: unexplained(ctx).length }),
  notes: (ctx) => idsOf(unexplained(ctx)),
  show: (own) => String(own.unexplained),
});
