import type { Meter, Ticks } from "../../theory/time/meter";

/** An aim in words, and whether it is met. */
export type Target = [words: string, met: boolean];

/** What in the material keeps a line from an aim. */
export interface Cause {
  code: string;
  message: string;
  tick?: Ticks;
}

/** A cause with the measures of the report that it explains. */
export interface Conflict extends Cause {
  measures: string[];
}

/**
 * A measure of a written line: everything that is known of it stands in its definition. `Ctx` is what the line stands
 * in, `F` are the fields it adds to the report, `Basics` those that every measure may read, `Aim` is what was asked
 * for, `Line` the line as its writer holds it.
 */
export interface MeasureOf<Ctx, F extends object, Basics extends object, Aim, Line> {
  id: string;
  title: string;
  unit: "share" | "beats" | "notes" | "pitches" | "weight" | "times" | "words";
  /** How it is computed; shown beside it. */
  how: string;
  /** Works it out. */
  take(ctx: Ctx): F;
  /** What it was worked out from: ids of the notes it points at. */
  notes?(ctx: Ctx): string[];
  /** Places that have no note to point at. */
  ticks?(own: F): Ticks[];
  /** In words; null where there is nothing to say. */
  show(own: F, meter: Meter): string | null;
  /** What it should be, by the style, bent by the settings (common practice); null where nothing is aimed at. */
  target?(own: F & Basics, aim: Aim): Target | null;
  /** What in the material keeps a line from the target; null where the line itself fell short. */
  cause?(ctx: Ctx, line: Line, own: F & Basics): Cause | null;
}

/** Ids of the notes each measure rests on. */
export interface Links {
  links: Record<string, string[]>;
}

/** One row of a report: what was measured, what is aimed at, and the notes it rests on. */
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

/** Everything that a list of measures finds in a line, with the notes each rests on. */
export const takeAll = <Ctx, B extends object, R extends B & Links>(
  measures: readonly MeasureOf<Ctx, R, B, never, never>[],
  ctx: Ctx,
  basics: B,
): R =>
  Object.assign(
    { ...basics, links: Object.fromEntries(measures.map((m) => [m.id, m.notes?.(ctx) ?? []])) },
    ...measures.map((m) => m.take(ctx)),
  ) as R;

/** A report as rows to read. */
export const rowsOf = <R extends B & Links, B extends object, Aim>(
  measures: readonly MeasureOf<never, R, B, Aim, never>[],
  report: R,
  aim: Aim,
  meter: Meter,
): Measure[] =>
  measures.flatMap((m): Measure[] => {
    const value = m.show(report, meter);
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

/** Why aims are missed, where the material says so; measures that are explained already are passed over. */
export const causesOf = <Ctx, R extends B, B extends object, Aim, Line>(
  measures: readonly MeasureOf<Ctx, R, B, Aim, Line>[],
  known: readonly Conflict[],
  { ctx, line, report, aim }: { ctx: Ctx; line: Line; report: R; aim: Aim },
): Conflict[] => {
  const explained = new Set(known.flatMap((c) => c.measures));
  return measures.flatMap((measure): Conflict[] => {
    if (explained.has(measure.id) || measure.target?.(report, aim)?.[1] !== false) return [];
    const found = measure.cause?.(ctx, line, report);
    return found ? [{ ...found, measures: [measure.id] }] : [];
  });
};

/** How many aims a line misses. */
export const missesOf = (rows: readonly Measure[]): number => rows.filter((m) => m.met === false).length;

export { percent } from "../../theory/words/english";
export const idsOf = (notes: readonly { id: string }[]): string[] => [...new Set(notes.map((n) => n.id))];
