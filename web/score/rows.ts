import {
  type EngravedChord,
  type EngravedPart,
  type EngravedStaff,
  firstOf,
  lastOf,
  Notation,
  type Tablature,
} from "../../core/src/index";

/** A part as it is drawn. */
export interface StaffPart extends EngravedPart {
  tab?: Tablature;
  /** What stands where on a percussion staff. */
  legend?: string;
  /** Printed small, to be followed rather than played. */
  small?: boolean;
  /** Ends of notes after which a singer breathes. */
  breaths?: readonly number[];
}

/** Where the first line of a staff is, below the top of its box; distance of lines, and of two verses. */
const HEAD = 40;
const SMALL_HEAD = 28;
export const TAB_GAP = 12;
export const VERSE = 17;
const BREATH = 8;
/** From the last line of a staff down to the first of the next one, in a part and between parts. */
const IN_PART = 40;
const BETWEEN_PARTS = 52;
/**
 * Half the distance of two lines; the room a dot or a line takes beside a head, and a stem that points away from the
 * staff.
 */
const STEP = 5;
const SIGN = 12;
const STEM = 36;
/** Room for a sign of loudness, and for a line of octaves. */
const LOUD = 28;
const OCTAVES = 20;

const hasWords = (staff: EngravedStaff, bars: readonly number[]): boolean => versesOf(staff, bars) > 0;
const versesOf = (staff: EngravedStaff, bars: readonly number[]): number =>
  Math.max(
    0,
    ...bars.flatMap((bar) => Notation.voicesIn(staff, bar).flatMap((v) => v.map((c) => c.words?.length ?? 0))),
  );

/**
 * How far notes, stems and signs reach above the top line and below the bottom line of a staff in some bars, in pixels.
 */
function reachOf(staff: EngravedStaff, bars: readonly number[], small = false): { up: number; down: number } {
  let [up, down] = [0, 0];
  const reach = (c: EngravedChord, stems: "free" | "up" | "down", top: number) => {
    if (!c.notes.length) return;
    const sign = c.articulation ? SIGN : 0;
    const high = (Notation.staffStep(lastOf(c.notes).pitch) - top) * STEP;
    const low = (top - 8 - Notation.staffStep(firstOf(c.notes).pitch)) * STEP;
    // One voice has its stems towards the middle line, from the note that is furthest away.
    const rises = stems === "up" || (stems === "free" && high < low);
    const stem = c.value === "w" ? 0 : STEM;
    const three = c.triplet ? SIGN + 2 : 0;
    up = Math.max(up, high + STEP + (rises ? stem + three : sign));
    down = Math.max(down, low + STEP + (rises ? sign : stem + three));
  };
  let [loud, over, under] = [false, false, false];
  for (const bar of bars) {
    const reading = staff.readings[Math.max(0, bar)];
    const top = Notation.TOP_LINE[reading?.clef ?? staff.clef];
    const voices = Notation.voicesIn(staff, bar);
    voices.forEach((voice, v) => {
      for (const c of voice) {
        const stems = () => {
          if (voices.length < 2) return "free";
          if (v === 0) return "up";
          return "down";
        };
        reach(c, stems(), top);
        loud ||= c.dynamic !== undefined || c.swell === true;
      }
    });
    over ||= reading?.shift === 1;
    under ||= reading?.shift === -1;
  }
  if (loud && hasWords(staff, bars)) up = Math.max(0, up) + LOUD;
  else if (loud) down = Math.max(6, down) + LOUD;
  if (over) up = Math.max(8, up) + OCTAVES;
  if (under) down = Math.max(8, down) + OCTAVES;
  return small ? { up: up * 0.7, down: down * 0.7 } : { up, down };
}

/** One staff of a line, in pixels from the top of the line. */
export interface Row {
  /** Top of its box, its first and its last line. */
  y: number;
  top: number;
  foot: number;
  /** Where its notes and signs end, above and below. */
  high: number;
  low: number;
  /** Base of the first line of words. */
  words: number;
  /** Top of the box of its tablature, and its last line. */
  tab: { y: number; foot: number } | null;
}

/** The staves of each part on a line, and how high it is. */
export interface Rows {
  parts: Row[][];
  height: number;
}

/** Staves under each other, further apart where notes, signs and words hang between them. */
export function rowsOf(parts: readonly StaffPart[], bars: readonly number[], above: number): Rows {
  let ink = above - 24;
  let foot: number | null = null;
  const out = parts.map((part) =>
    part.staves.map((staff, i): Row => {
      const { up, down } = reachOf(staff, bars, part.small);
      const least: number = foot === null ? above + 10 : foot + (i === 0 ? BETWEEN_PARTS : IN_PART);
      const top: number = Math.max(least, ink + Math.max(0, up) + BREATH);
      const head = part.small ? SMALL_HEAD : HEAD;
      const own = top + (part.small ? 28 : 40);
      let low = own + Math.max(0, down);
      foot = own;
      const verses = versesOf(staff, bars);
      const words = Math.max(own + 24, low + 16);
      if (verses) low = words + (verses - 1) * VERSE + 5;
      let tab: Row["tab"] = null;
      if (part.tab && i === 0) {
        const y = Math.max(own - 8, low - 34);
        tab = { y, foot: y + 48 + (part.tab.strings - 1) * TAB_GAP };
        foot = tab.foot;
      }
      ink = Math.max(low, foot);
      return { y: top - head, top, foot: own, high: top - Math.max(0, up), low, words, tab };
    }),
  );
  // A clef hangs below its staff, an eight below the clef.
  const eight = parts.at(-1)?.staves.at(-1)?.octave === -1;
  return { parts: out, height: Math.max(ink, (foot ?? 0) + (eight ? 32 : 16)) + 8 };
}
