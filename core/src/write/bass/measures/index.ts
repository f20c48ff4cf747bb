import { rowsOf, takeAll, type Measure } from "../../lines/measure";
import type { BassContext } from "../context";
import { approaches, chordTime, longestOutside, overMajor, overMinor, reasons, sounding } from "./chordTones";
import { lastBar, likeness, pitchClasses, repeats, syncopation } from "./figure";
import { accents, offKick } from "./kick";
import { backbeats, lengths, silence } from "./lengths";
import type { Aim, BassMeasure, Basics } from "./measure";
import { close, register, stepwise, tune } from "./motion";

/**
 * Every measure of a bass line, in the order in which they are shown; a new one is one definition and one line here.
 */
export const BASS_MEASURES = [
  chordTime,
  longestOutside,
  accents,
  offKick,
  pitchClasses,
  silence,
  lengths,
  backbeats,
  syncopation,
  approaches,
  overMajor,
  overMinor,
  stepwise,
  tune,
  close,
  register,
  sounding,
  likeness,
  repeats,
  lastBar,
  reasons,
] as const;

type FieldsOf<M> = M extends BassMeasure<infer F> ? F : never;
type All<U> = (U extends unknown ? (x: U) => void : never) extends (x: infer I) => void ? I : never;

/** What was measured of a line: the fields of every measure, and the notes each rests on, by its id. */
export type BassReport = Basics & All<FieldsOf<(typeof BASS_MEASURES)[number]>> & { links: Record<string, string[]> };

/** A measure without its own fields: for a report, which has those of all. */
export const EVERY_MEASURE = BASS_MEASURES as unknown as readonly BassMeasure<BassReport>[];

/** Measures a line: the one that stands, or a candidate put in its place. */
export const reportOf = (ctx: BassContext): BassReport =>
  takeAll<BassContext, Basics, BassReport>(EVERY_MEASURE, ctx, {
    notes: ctx.notes.length,
    steadyKick: ctx.kicks.length * 2 >= ctx.bars * ctx.meter.beats.length,
  });

/** A report as rows to read. */
export const measuresOf = (report: BassReport, aim: Aim): Measure[] => rowsOf(EVERY_MEASURE, report, aim, aim.meter);
