import { positionText, type Ticks } from "../../../theory/time/meter";
import type { RealizedNote } from "../../../song/realize";
import type { MeasureOf } from "../../lines/measure";
import type { CounterContext } from "../context";
import type { CounterSettings } from "../settings";
import type { CounterSlot, CounterStyle } from "../style";

export { idsOf, percent } from "../../lines/measure";

/** What a style and its settings aim at. */
export interface Aim {
  style: CounterStyle;
  settings: CounterSettings;
}

/** What every measure may read of a line beside what it took itself. */
export interface Basics {
  /** Number of notes, and of those of the line it answers. */
  notes: number;
  tune: number;
}

export type CounterMeasure<F extends object> = MeasureOf<
  CounterContext,
  F,
  Basics,
  Aim,
  readonly { slot: CounterSlot }[]
>;

/** Defines a measure; its fields join the report, its row the list, its cause the conflicts. */
export const defineMeasure = <F extends object>(measure: CounterMeasure<F>): CounterMeasure<F> => measure;

/** The line, and of notes struck together the highest. */
export const topOf = (ctx: CounterContext): RealizedNote[] =>
  ctx.notes.filter((n, i) => ctx.notes[i + 1]?.start !== n.start);

/** A place as a sentence ends with it: " at bar 2, beat 1". */
export const at = (ctx: CounterContext, tick: Ticks | undefined): string =>
  tick === undefined ? "" : ` at ${positionText(ctx.meter, tick)}`;
