import type { Drum } from "../../theory/instrument/drums";
import { nth, sure } from "../../base/list";
import type { Midi, PitchName } from "../../theory/pitch/pitch";
import type { Ticks } from "../../theory/time/meter";
import type { Clef } from "../../theory/instrument/instruments";
import type { NoteValue } from "./durations";
import type { Dynamic, SungSyllable } from "./marks";
import type { Head } from "./percussion";
import type { Articulation } from "./rhythm";

/** A sign before a head: what it makes of the letter, and whether it only reminds. */
export interface Accidental {
  alter: number;
  courtesy: boolean;
}

export interface EngravedNote {
  id: string;
  /** As it is read: an octave nearer under a line of octaves. */
  pitch: PitchName;
  /** As it sounds. */
  midi: Midi;
  /** Goes on into the next chord. */
  tied: boolean;
  accidental?: Accidental;
  /** What is struck, on a percussion staff. */
  drum?: Drum;
  head?: Head;
  /** Where it slides to at its end, as it is read. */
  slide?: PitchName;
}

/** One written note, chord or rest. */
export interface EngravedChord {
  /** From the beginning of the section. */
  start: Ticks;
  ticks: Ticks;
  value: NoteValue;
  dots: 0 | 1;
  triplet: boolean;
  /** Low to high; empty for a rest. */
  notes: EngravedNote[];
  articulation: Articulation | null;
  /** A rest of a second voice that is silent: it takes its time and is not drawn. */
  hidden?: boolean;
  /** Words sung at its beginning, one a verse; null where a verse has none. */
  words?: (SungSyllable | null)[];
  dynamic?: Dynamic;
  /** Rises out of silence over its length. */
  swell?: boolean;
}

export type StaffClef = Exclude<Clef, "grand"> | "percussion";

/** How a bar of a staff is read: its clef, and 1 under 8va, −1 over 8vb. */
export interface BarReading {
  clef: StaffClef;
  shift: -1 | 0 | 1;
}

export interface EngravedStaff {
  clef: StaffClef;
  /**
   * Written an octave above (−1) or below (1) where it sounds, with an eight at the clef: a tenor's or a guitar's
   * treble, a bass in a score at sounding pitch.
   */
  octave: 0 | -1 | 1;
  /** Clefs and lines of octaves, bar by bar. */
  readings: BarReading[];
  /** The upbeat, where there is one, without its leading rests. */
  pickup: EngravedChord[];
  measures: EngravedChord[][];
  /** The lower of two voices, bar by bar; empty where one voice moves. */
  second: EngravedChord[][];
}

/** Steps of the top line of a staff above C0; the bottom line is eight steps lower. */
export const TOP_LINE: Record<StaffClef, number> = { treble: 38, bass: 26, alto: 32, tenor: 30, percussion: 38 };
const LETTERS = "CDEFGAB";
/** Steps of a written note above C0. */
export const staffStep = (pitch: PitchName): number =>
  LETTERS.indexOf(sure(pitch[0])) + 7 * Number(sure(/-?\d+$/.exec(pitch))[0]);

/** Ledger lines a note at a step needs under a clef. */
export const ledgersOf = (step: number, clef: StaffClef): number =>
  Math.max(0, Math.floor((step - TOP_LINE[clef]) / 2), Math.floor((TOP_LINE[clef] - 8 - step) / 2));

/** Chords of a staff in a bar, voice by voice; bar −1 is the pickup. */
export const voicesIn = (staff: EngravedStaff, bar: number): EngravedChord[][] =>
  bar < 0
    ? [staff.pickup]
    : [nth(staff.measures, bar), ...(nth(staff.second, bar).length ? [nth(staff.second, bar)] : [])];

/** A staff with each of its chords exchanged; `change` is told the bar, −1 for the pickup. */
export const mapChords = (
  staff: EngravedStaff,
  change: (chord: EngravedChord, bar: number) => EngravedChord,
): EngravedStaff => ({
  ...staff,
  pickup: staff.pickup.map((c) => change(c, -1)),
  measures: staff.measures.map((bar, k) => bar.map((c) => change(c, k))),
  second: staff.second.map((bar, k) => bar.map((c) => change(c, k))),
});
