import type { Ticks } from "../../time/meter";
import type { BassContext } from "../context";
import { approaches, chordTime, longestOutside, overMajor, overMinor, reasons, sounding } from "./chordTones";
import { lastBar, likeness, pitchClasses, repeats, syncopation } from "./figure";
import { accents, offKick } from "./kick";
import { backbeats, lengths, silence } from "./lengths";
import type { Aim, BassMeasure, Basics } from "./measure";
import { close, register, stepwise, tune } from "./motion";

/** Every measure of a bass line, in the order in which they are shown; a new one is one definition and one line here. */
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
export function reportOf(ctx: BassContext): BassReport {
  return Object.assign(
    {
      notes: ctx.notes.length,
      steadyKick: ctx.kicks.length * 2 >= ctx.bars * ctx.meter.beats.length,
      links: Object.fromEntries(EVERY_MEASURE.map((m) => [m.id, m.notes?.(ctx) ?? []])),
    },
    ...EVERY_MEASURE.map((m) => m.take(ctx)),
  ) as BassReport;
}

/** One row of the report: what was measured, what is aimed at, and the notes it rests on. */
export interface Measure {
  id: string;
  title: string;
  how: string;
  value: string;
  /** In words; null where nothing is aimed at. */
  target: string | null;
  /** Null where nothing is aimed at. */
  met: boolean | null;
  notes: string[];
  /** Places that have no note to point at. */
  ticks: Ticks[];
}

/** A report as rows to read. */
export function measuresOf(report: BassReport, aim: Aim): Measure[] {
  return EVERY_MEASURE.flatMap((m): Measure[] => {
    const value = m.show(report, aim.meter);
    if (value === null) return [];
    const target = m.target?.(report, aim) ?? null;
    return [
      {
        id: m.id,
        title: m.title,
        how: m.how,
        value,
        target: target && target[0],
        met: target && target[1],
        notes: report.links[m.id] ?? [],
        ticks: m.ticks?.(report) ?? [],
      },
    ];
  });
}
