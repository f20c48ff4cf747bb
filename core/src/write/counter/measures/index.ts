import { rowsOf, takeAll, type Links, type Measure } from "../../lines/measure";
import type { CounterContext } from "../context";
import { chordTime, clashes, guides, pitches, stepwise } from "./chords";
import type { Aim, Basics, CounterMeasure } from "./measure";
import { falls, hits, range, reasons, strict } from "./style";
import { answering, crossing, doubling, motion, overlap, parallels, together } from "./tune";

/**
 * Every measure of a counter melody, in the order in which they are shown; a new one is one definition and one line
 * here.
 */
export const COUNTER_MEASURES = [
  clashes,
  overlap,
  answering,
  motion,
  parallels,
  doubling,
  together,
  crossing,
  chordTime,
  pitches,
  stepwise,
  guides,
  falls,
  hits,
  range,
  strict,
  reasons,
] as const;

type FieldsOf<M> = M extends CounterMeasure<infer F> ? F : never;
type All<U> = (U extends unknown ? (x: U) => void : never) extends (x: infer I) => void ? I : never;

export type CounterReport = Basics & All<FieldsOf<(typeof COUNTER_MEASURES)[number]>> & Links;

export const EVERY_COUNTER_MEASURE = COUNTER_MEASURES as unknown as readonly CounterMeasure<CounterReport>[];

/** Measures a line: the one that stands, or a candidate put in its place. */
export const counterReportOf = (ctx: CounterContext): CounterReport =>
  takeAll<CounterContext, Basics, CounterReport>(EVERY_COUNTER_MEASURE, ctx, {
    notes: ctx.notes.length,
    tune: ctx.tune.length,
  });

/** Measures that say something of any counter melody; the others are shown where the style aims at them. */
const ALWAYS: ReadonlySet<string> = new Set([
  "clashes",
  "overlap",
  "motion",
  "together",
  "chordTime",
  "pitches",
  "stepwise",
  "reasons",
]);

/** A report as rows to read. */
export const counterMeasures = (report: CounterReport, aim: Aim, meter: CounterContext["meter"]): Measure[] =>
  rowsOf(EVERY_COUNTER_MEASURE, report, aim, meter).filter((m) => m.target !== null || ALWAYS.has(m.id));
