import type { Ticks } from "../../time/meter";
import type { RealizedNote } from "../../song/realize";
import type { RoleSpan } from "../../slice/roles";
import type { BassContext } from "../context";
import type { Chosen } from "../reasons";
import type { BassSettings } from "../settings";
import type { BassStyle } from "../style";

/** What a style and its settings aim at, and the meter in which it is said. */
export interface Aim {
  style: BassStyle;
  settings: BassSettings;
  meter: BassContext["meter"];
}

/** An aim in words, and whether it is met. */
export type Target = [words: string, met: boolean];

/** Kinds of what keeps a line from its targets. */
export type ConflictCode =
  | "noChord"
  | "pin"
  | "held"
  | "pitchClasses"
  | "range"
  | "noKick"
  | "sounding"
  | "silence"
  | "tune"
  | "leaps"
  | "offKick"
  | "figure"
  | "repeats"
  | "short"
  | "outside";

export interface Cause {
  code: ConflictCode;
  message: string;
  tick?: Ticks;
}

/** What every measure may read of a line beside what it took itself. */
export interface Basics {
  /** Number of notes. */
  notes: number;
  /** Whether there is a kick on at least half of the beats. */
  steadyKick: boolean;
}

/** A measure of a bass line: everything that is known of it stands in its definition. `F` are the fields it adds to the report. */
export interface BassMeasure<F extends object> {
  id: string;
  title: string;
  unit: "share" | "beats" | "notes" | "pitches" | "weight" | "times" | "words";
  /** How it is computed; shown beside it. */
  how: string;
  /** Works it out. */
  take(ctx: BassContext): F;
  /** What it was worked out from: ids of the notes it points at. */
  notes?(ctx: BassContext): string[];
  /** Places that have no note to point at. */
  ticks?(own: F): Ticks[];
  /** In words; null where there is nothing to say. */
  show(own: F, meter: BassContext["meter"]): string | null;
  /** What it should be, by the style, bent by the settings (common practice); null where nothing is aimed at. */
  target?(own: F & Basics, aim: Aim): Target | null;
  /** What in the material keeps a line from the target; null where the line itself fell short. */
  cause?(ctx: BassContext, line: readonly Chosen[], own: F & Basics): Cause | null;
}

/** Defines a measure; its fields join the report, its row the list, its cause the conflicts. */
export const defineMeasure = <F extends object>(measure: BassMeasure<F>): BassMeasure<F> => measure;

export const percent = (share: number): string => `${Math.round(share * 100)} %`;

export const spansOf = (ctx: BassContext, note: RealizedNote): readonly RoleSpan[] => ctx.roles.get(note) ?? [];
export const idsOf = (notes: readonly { id: string }[]): string[] => [...new Set(notes.map((n) => n.id))];
