import type { RealizedNote } from "../../../song/realize";
import type { RoleSpan } from "../../../hear/slice/roles";
import type { MeasureOf } from "../../lines/measure";
import type { BassContext } from "../context";
import type { Chosen } from "../reasons";
import type { BassSettings } from "../settings";
import type { BassStyle } from "../style";

export { idsOf, percent } from "../../lines/measure";

/** What a style and its settings aim at, and the meter in which it is said. */
export interface Aim {
  style: BassStyle;
  settings: BassSettings;
  meter: BassContext["meter"];
}

/** What every measure may read of a line beside what it took itself. */
export interface Basics {
  /** Number of notes. */
  notes: number;
  /** Whether there is a kick on at least half of the beats. */
  steadyKick: boolean;
}

/** A measure of a bass line. */
export type BassMeasure<F extends object> = MeasureOf<BassContext, F, Basics, Aim, readonly Chosen[]>;

/** Defines a measure; its fields join the report, its row the list, its cause the conflicts. */
export const defineMeasure = <F extends object>(measure: BassMeasure<F>): BassMeasure<F> => measure;

export const spansOf = (ctx: BassContext, note: RealizedNote): readonly RoleSpan[] => ctx.roles.get(note) ?? [];
