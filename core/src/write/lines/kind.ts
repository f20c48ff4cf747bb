import type { Result } from "../../base/result";
import type { Reader } from "../../facts/memory";
import type { NewNote, Reason } from "../../song/schema";
import type { Conflict, Links, Measure } from "./measure";

/** A way of playing within a kind of line: a style of a bass, a school of voices. One file each. */
export interface LineStyle<Settings> {
  id: string;
  title: string;
  /** One paragraph, shown in the interface. */
  explanation: string;
  source: string;
  /** Settings that are its usual ones. */
  usual?: Partial<Settings>;
}

/** The styles of a kind of line, and how parts store which of them they play. */
export interface LineStyles<Settings extends object, S extends LineStyle<Settings>> {
  /** As parts store how it is played; the errors of a kind begin with it: `bass.style`. */
  id: "bass" | "counter" | "vocal";
  /** The name under which a part stores the id of its style. */
  field: "style" | "school";
  /** How messages speak of one: `No … is called "x"`; and of all. */
  words: { one: string; all: string };
  styles: readonly S[];
  /** The style of a part that has chosen none. */
  first: S;
  usual: Settings;
  /** What a style makes usual beside its own `usual`. */
  follows?(style: S): Partial<Settings>;
}

/** Where a line is wanted, and how. */
export interface LineRequest<Settings> {
  section: string;
  part: string;
  seed?: number;
  /** Over what is stored in the part, and what is usual for the style. */
  settings?: Partial<Settings>;
}

/** A note of a line that may not be in the song yet; ids of new ones are given when the line is taken. */
export type LineNote = NewNote & { id?: string };

/** A line as it is offered. */
export interface WrittenLine<Report extends Links = Links> {
  /** The whole part for the section: pinned notes kept, everything else new. */
  notes: LineNote[];
  /** Where several lines are written at once, all of them; `notes` are then those of the first. */
  parts?: readonly { notes: LineNote[] }[];
  /** Why each note is there, read from the finished line. */
  reasons: (Reason | undefined)[];
  report: Report;
  conflicts: Conflict[];
  /** What sets this candidate apart, in words. */
  title: string;
  /** Which of the lines of its request it is, in the order in which they were found, from 0: it keeps that number. */
  found?: number;
}

/** A request with its surroundings, its settings among them, and its style. */
export interface Setting<Context, Style> {
  ctx: Context;
  style: Style;
}

/**
 * A kind of line: bass, counter melody, voices, and those to come. All that the engine does not know by itself is said
 * here. `Q` is what is asked, `S` a style, `C` what a line is written against, `L` a line.
 */
export interface LineKind<
  Settings extends object,
  Q extends LineRequest<Settings>,
  S extends LineStyle<Settings>,
  C,
  L extends WrittenLine,
> extends LineStyles<Settings, S> {
  /** The style that is asked for; absent for the one the part has. */
  asked(request: Q): string | undefined;
  /** What a line is written against. */
  context(read: Reader, request: Q, playing: { settings: Settings; style: S }): Result<C>;
  /** What a line cannot be written without and is not there; null where nothing is lacking. */
  lacks(setting: Setting<C, S>): Result<never> | null;
  /** Lines in the order in which they are found, null for an attempt that came to nothing; `found` are those so far. */
  candidates(setting: Setting<C, S>, seed: number, found: readonly L[]): Iterable<L | null>;
  /** So many are looked at. */
  most: number;
  /** A report against what is aimed at. */
  rows(report: L["report"], setting: Setting<C, S>): Measure[];
  /** The first line found is what was asked for: so many missed aims it may have more than another that goes ahead. */
  lead?: number;
  /** Of lines in their order, those that say something else than those before them. */
  unlike?(lines: readonly L[]): L[];
  /** In words, what sets a line apart from the first one, what differs most first. */
  apart(line: L, first: L): string[];
  /** What is said where no line was found. */
  none: { message: string; hint: string };
}
