import { firstOf, Notation, nth, sure } from "../../core/src/index";
import { rowsOf, type Rows, type StaffPart } from "./rows";
import { widthOf } from "./svg";

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

/** Least room for a place on a staff, and between texts. */
const PLACE = 18;
const [SIGN_WIDTH, MOST_COLUMNS] = [13, 3];
const GAP = 6;

/** Width that words ask for, by where they begin. */
function roomOf(
  parts: readonly StaffPart[],
  bar: number,
  { symbols, text }: SheetOptions,
  meter: number,
): Map<number, number> {
  const out = new Map<number, number>();
  const add = (tick: number, width: number) => out.set(tick, Math.max(out.get(tick) ?? 0, width));
  for (const part of parts)
    for (const staff of part.staves) {
      // Signs of both voices stand in columns before their heads.
      const columns = new Map<number, number>();
      for (const c of Notation.voicesIn(staff, bar).flat())
        columns.set(c.start, (columns.get(c.start) ?? 0) + c.notes.filter((n) => n.accidental).length);
      for (const voice of Notation.voicesIn(staff, bar))
        for (const c of voice) {
          if (c.hidden) continue;
          const signs = Math.min(MOST_COLUMNS, sure(columns.get(c.start))) * SIGN_WIDTH;
          const words = Math.max(
            0,
            ...(c.words ?? []).map((w) => (w ? widthOf(w.text + (w.goesOn ? "-" : ""), "syllable") * text + GAP : 0)),
          );
          add(c.start, Math.max(PLACE + signs, words));
        }
    }
  for (const s of symbols)
    if (s.start >= bar * meter && s.start < (bar + 1) * meter) add(s.start, s.width * text + GAP);
  return out;
}

/** How wide a bar asks to be, by its places and what stands at them. */
function wish(parts: readonly StaffPart[], bar: number, options: SheetOptions): number {
  const room = [...roomOf(parts, bar, options, firstOf(parts).meter.bar).values()];
  return (
    (bar < 0 ? 30 : 46) +
    Math.max(
      PLACE * 2,
      room.reduce((a, b) => a + b, 0),
    )
  );
}

const silent = (parts: readonly StaffPart[], bar: number): boolean =>
  parts.every((p) => p.staves.every((s) => Notation.voicesIn(s, bar).every((v) => v.every((c) => !c.notes.length))));

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

/**
 * The breaks with which lines are least empty, measured by the squares, and phrases of two and four bars are kept
 * together. Time grows with the number of bars.
 */
function brokenInto<B extends { bar: number; span: number; wish: number }>(bars: readonly B[], room: number): B[][] {
  const best: { cost: number; from: number }[] = [{ cost: 0, from: 0 }];
  for (let to = 1; to <= bars.length; to++) {
    best[to] = { cost: Infinity, from: to - 1 };
    let used = 0;
    for (let from = to - 1; from >= 0; from--) {
      used += nth(bars, from).wish;
      if (used > room && from < to - 1) break;
      const last = nth(bars, to - 1);
      const end = last.bar + last.span;
      const empty = Math.max(0, 1 - used / room);
      const ends = to === bars.length ? 0 : (end % 2 ? COSTS.pair : 0) + (end % 4 ? COSTS.phrase : 0);
      const cost =
        nth(best, from).cost + COSTS.line + (to === bars.length ? empty * empty * 0.6 : empty * empty) + ends;
      if (cost < nth(best, to).cost) best[to] = { cost, from };
    }
  }
  const rows: B[][] = [];
  for (let to = bars.length; to > 0; to = nth(best, to).from) rows.unshift(bars.slice(nth(best, to).from, to));
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
      const share =
        next && next.line === here.line && next.tick > here.tick
          ? Math.max(0, tick - here.tick) / (next.tick - here.tick)
          : 0;
      return {
        x: here.x + (next ? (next.x - here.x) * share : 0),
        top: tops[here.line] ?? 0,
        height: lines[here.line]?.rows.height ?? 0,
      };
    },
  };
}
