import {
  staffStep,
  TOP_LINE,
  voicesIn,
  type EngravedChord,
  type EngravedPart,
  type EngravedStaff,
  type Tablature,
} from "../../core/src/index";
import { widthOf } from "./svg";

export interface StaffPart extends EngravedPart {
  tab?: Tablature;
  /** What stands where on a percussion staff. */
  legend?: string;
  /** Printed small, to be followed rather than played. */
  small?: boolean;
  /** Ends of notes after which a singer breathes. */
  breaths?: readonly number[];
}

/** A chord symbol over the sheet: how wide it is, and its text where the sheet writes it. */
export interface SheetSymbol {
  start: number;
  width: number;
  text?: string;
}

/** How parts are laid out. */
export interface SheetOptions {
  width: number;
  bars: number;
  /** Room above a line for symbols. */
  above: number;
  /** Room on the left for the names of the parts. */
  margin: number;
  symbols: readonly SheetSymbol[];
  /** The number of the first bar. */
  first: number;
  /** Silent bars are counted together. */
  countRests: boolean;
  /** How often it is played: repeat signs where that is more than once. */
  times: number;
  /** The last bar line is that of the song. */
  closes: boolean;
  /** The meter stands at the beginning. */
  time: boolean;
  /** Names of the parts are written at the first line. */
  names: boolean;
  /** Size on the page, against that on the screen, and that of the texts against the staves. */
  scale: number;
  text: number;
}

export const PLAIN_SHEET: SheetOptions = {
  width: 900,
  bars: 0,
  above: 44,
  margin: 92,
  symbols: [],
  first: 1,
  countRests: false,
  times: 1,
  closes: true,
  time: true,
  names: false,
  scale: 1,
  text: 1,
};

/** Where things stand on the sheet, in pixels. */
export interface Placed {
  labels: { text: string; legend?: string; y: number }[];
  /** Place of a tick: on which line of the sheet, and where on it. */
  at(tick: number): { x: number; top: number; height: number } | null;
}

/** One place in time, and where it stands. */
export interface Spot {
  tick: number;
  x: number;
  line: number;
  /** The beginning of silent bars that are counted. */
  counted?: boolean;
}

/** A bar on a line, or several silent ones that are counted; bar −1 is the pickup. */
export interface LineBar {
  bar: number;
  span: number;
  width: number;
}
export interface Line {
  bars: LineBar[];
  rows: Rows;
}

/** Where the first line of a staff is, below the top of its box; distance of lines, and of two verses. */
export const HEAD = 40;
export const SMALL_HEAD = 28;
export const TAB_GAP = 12;
export const VERSE = 17;
const BREATH = 8;
/** From the last line of a staff down to the first of the next one, in a part and between parts. */
const IN_PART = 40;
const BETWEEN_PARTS = 52;
/** Half the distance of two lines; the room a dot or a line takes beside a head, and a stem that points away from the staff. */
const STEP = 5;
const SIGN = 12;
const STEM = 36;
/** Room for a sign of loudness, and for a line of octaves. */
const LOUD = 28;
const OCTAVES = 20;

export const hasWords = (staff: EngravedStaff, bars: readonly number[]): boolean => versesOf(staff, bars) > 0;
export const versesOf = (staff: EngravedStaff, bars: readonly number[]): number =>
  Math.max(0, ...bars.flatMap((bar) => voicesIn(staff, bar).flatMap((v) => v.map((c) => c.words?.length ?? 0))));

/** How far notes, stems and signs reach above the top line and below the bottom line of a staff in some bars, in pixels. */
export function reachOf(staff: EngravedStaff, bars: readonly number[], small = false): { up: number; down: number } {
  let [up, down] = [0, 0];
  const reach = (c: EngravedChord, stems: "free" | "up" | "down", top: number) => {
    if (!c.notes.length) return;
    const sign = c.articulation ? SIGN : 0;
    const high = (staffStep(c.notes.at(-1)!.pitch) - top) * STEP;
    const low = (top - 8 - staffStep(c.notes[0]!.pitch)) * STEP;
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
    const top = TOP_LINE[reading?.clef ?? staff.clef];
    const voices = voicesIn(staff, bar);
    voices.forEach((voice, v) => {
      for (const c of voice) {
        reach(c, voices.length < 2 ? "free" : v === 0 ? "up" : "down", top);
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

/** Least room for a place on a staff, and between texts. */
const PLACE = 18;
const [SIGN_WIDTH, MOST_COLUMNS] = [13, 3];
const GAP = 6;

/** Width that words ask for, by where they begin. */
function roomOf(parts: readonly StaffPart[], bar: number, { symbols, text }: SheetOptions, meter: number): Map<number, number> {
  const out = new Map<number, number>();
  const add = (tick: number, width: number) => out.set(tick, Math.max(out.get(tick) ?? 0, width));
  for (const part of parts)
    for (const staff of part.staves) {
      // Signs of both voices stand in columns before their heads.
      const columns = new Map<number, number>();
      for (const c of voicesIn(staff, bar).flat())
        columns.set(c.start, (columns.get(c.start) ?? 0) + c.notes.filter((n) => n.accidental).length);
      for (const voice of voicesIn(staff, bar))
        for (const c of voice) {
          if (c.hidden) continue;
          const signs = Math.min(MOST_COLUMNS, columns.get(c.start)!) * SIGN_WIDTH;
          const words = Math.max(
            0,
            ...(c.words ?? []).map((w) => (w ? widthOf(w.text + (w.goesOn ? "-" : ""), "syllable") * text + GAP : 0)),
          );
          add(c.start, Math.max(PLACE + signs, words));
        }
    }
  for (const s of symbols) if (s.start >= bar * meter && s.start < (bar + 1) * meter) add(s.start, s.width * text + GAP);
  return out;
}

/** How wide a bar asks to be, by its places and what stands at them. */
function wish(parts: readonly StaffPart[], bar: number, options: SheetOptions): number {
  const room = [...roomOf(parts, bar, options, parts[0]!.meter.bar).values()];
  return (
    (bar < 0 ? 30 : 46) +
    Math.max(
      PLACE * 2,
      room.reduce((a, b) => a + b, 0),
    )
  );
}

const silent = (parts: readonly StaffPart[], bar: number): boolean =>
  parts.every((p) => p.staves.every((s) => voicesIn(s, bar).every((v) => v.every((c) => !c.notes.length))));

/** Bars as they are drawn one after the other: silent ones may be counted together. */
function barsOf(parts: readonly StaffPart[], { bars, countRests }: SheetOptions): { bar: number; span: number }[] {
  const out: { bar: number; span: number }[] = [];
  if (parts.some((p) => p.staves.some((s) => s.pickup.length))) out.push({ bar: -1, span: 1 });
  for (let bar = 0; bar < bars; bar++) {
    const last = out.at(-1);
    if (countRests && last && last.bar >= 0 && silent(parts, bar) && silent(parts, last.bar)) last.span++;
    else out.push({ bar, span: 1 });
  }
  return out;
}

/** Room for a counted rest. */
const COUNTED = 110;

/** Breaks bars into lines that fit a width; lines are about equally full, and end with phrases where they can. */
export function layOutSheet(parts: readonly StaffPart[], options: SheetOptions): Line[] {
  const signature = 50 + Math.max(...parts.map((p) => Math.abs(p.key.signature))) * 9 + (options.time ? 16 : 0);
  const room = options.width - options.margin - signature;
  const asked = barsOf(parts, options).map((b) => ({ ...b, wish: b.span > 1 ? COUNTED : wish(parts, b.bar, options) }));
  const rows = brokenInto(asked, room);
  return rows.map((row, k): Line => {
    const wished = row.reduce((sum, b) => sum + b.wish, 0);
    // A last short line is not drawn out over the whole width.
    const share = k > 0 && k === rows.length - 1 && wished < room * 0.6 ? Math.min(1.3, room / wished) : room / wished;
    const bars = row.map((b, i) => ({ bar: b.bar, span: b.span, width: b.wish * share + (i === 0 ? signature : 0) }));
    return {
      bars,
      rows: rowsOf(
        parts,
        bars.map((b) => b.bar),
        options.above,
      ),
    };
  });
}

/** What a line costs beside its emptiness, and one that ends inside two or four bars. */
const COSTS = { line: 0.02, pair: 0.06, phrase: 0.03 };

/** The breaks with which lines are least empty, measured by the squares, and phrases of two and four bars are kept together. Time grows with the number of bars. */
function brokenInto<B extends { bar: number; span: number; wish: number }>(bars: readonly B[], room: number): B[][] {
  const best: { cost: number; from: number }[] = [{ cost: 0, from: 0 }];
  for (let to = 1; to <= bars.length; to++) {
    best[to] = { cost: Infinity, from: to - 1 };
    let used = 0;
    for (let from = to - 1; from >= 0; from--) {
      used += bars[from]!.wish;
      if (used > room && from < to - 1) break;
      const last = bars[to - 1]!;
      const end = last.bar + last.span;
      const empty = Math.max(0, 1 - used / room);
      const ends = to === bars.length ? 0 : (end % 2 ? COSTS.pair : 0) + (end % 4 ? COSTS.phrase : 0);
      const cost = best[from]!.cost + COSTS.line + (to === bars.length ? empty * empty * 0.6 : empty * empty) + ends;
      if (cost < best[to]!.cost) best[to] = { cost, from };
    }
  }
  const rows: B[][] = [];
  for (let to = bars.length; to > 0; to = best[to]!.from) rows.unshift(bars.slice(best[to]!.from, to));
  return rows;
}

/** Where parts are named, and where any tick stands between the places that were drawn. */
export function placesOf(parts: readonly StaffPart[], spots: readonly Spot[], lines: readonly Line[]): Placed {
  const sorted = [...spots].sort((a, b) => a.tick - b.tick);
  const tops: number[] = [];
  lines.reduce((sum, l) => (tops.push(sum), sum + l.rows.height), 0);
  const labels = parts.map((p, i) => ({
    text: p.name,
    ...(p.legend ? { legend: p.legend } : {}),
    y: (lines[0]?.rows.parts[i]?.[0]?.top ?? 0) + 8,
  }));
  return {
    labels,
    at(tick) {
      const i = sorted.findLastIndex((p) => p.tick <= tick);
      const here = sorted[Math.max(0, i)];
      if (!here) return null;
      const next = sorted[i + 1];
      const share = next && next.line === here.line && next.tick > here.tick ? Math.max(0, tick - here.tick) / (next.tick - here.tick) : 0;
      return { x: here.x + (next ? (next.x - here.x) * share : 0), top: tops[here.line] ?? 0, height: lines[here.line]?.rows.height ?? 0 };
    },
  };
}
