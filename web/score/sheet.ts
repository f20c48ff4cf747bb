import type { EngravedChord, EngravedPart, EngravedStaff } from "../../core/src/index";
import type { Tablature } from "./tablature";

export interface StaffPart extends EngravedPart {
  tab?: Tablature;
  /** What stands where on a percussion staff. */
  legend?: string;
  /** Printed small, to be followed rather than played. */
  small?: boolean;
  /** Room below its last staff, for words. */
  below?: number;
  /** Least room for a note and what stands over or under it, in pixels, by the tick it begins at. */
  room?: ReadonlyMap<number, number>;
}

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
}

/** Bars on one line of the sheet, with their widths; bar −1 is the pickup. */
export interface Line {
  bars: { bar: number; width: number }[];
}

/** Room for the names of the parts. */
export const MARGIN = 92;
/** Height of a staff with what stands above and below it. */
const LINE = 78;
const SMALL_LINE = 60;
export const TAB_GAP = 12;
const BETWEEN_PARTS = 14;

/** Height of a staff of tablature with so many strings. */
export const tabHeight = (strings: number): number => strings * TAB_GAP + 46;

/** Steps of the top line of a staff above C0; lines are two steps, ten pixels apart. */
export const TOP_LINE: Record<EngravedStaff["clef"], number> = { treble: 38, bass: 26, alto: 32, tenor: 30, percussion: 38 };
const LETTERS = "CDEFGAB";
/** Steps of a written note above C0. */
export const stepOf = (pitch: string): number => LETTERS.indexOf(pitch[0]!) + 7 * Number(/-?\d+$/.exec(pitch)![0]);
/** Half the distance of two lines; the room a dot or a line takes beside a head, and a stem that points away from the staff. */
const STEP = 5;
const SIGN = 12;
const STEM = 36;

/** How far notes, stems and signs reach above the top line and below the bottom line of a staff, in pixels. */
export function reachOf(staff: EngravedStaff, small = false): { up: number; down: number } {
  const top = TOP_LINE[staff.clef];
  let [up, down] = [0, 0];
  const reach = (c: EngravedChord, stems: "free" | "up" | "down") => {
    if (!c.notes.length) return;
    const sign = c.articulation ? SIGN : 0;
    const high = (stepOf(c.notes.at(-1)!.pitch) - top) * STEP;
    const low = (top - 8 - stepOf(c.notes[0]!.pitch)) * STEP;
    // One voice has its stems towards the middle line, from the note that is furthest away.
    const rises = stems === "up" || (stems === "free" && high < low);
    const stem = c.value === "w" ? 0 : STEM;
    up = Math.max(up, high + STEP + (rises ? stem : sign));
    down = Math.max(down, low + STEP + (rises ? sign : stem));
  };
  staff.pickup.forEach((c) => reach(c, "free"));
  staff.measures.forEach((bar, k) => {
    const two = staff.second[k]!.length > 0;
    bar.forEach((c) => reach(c, two ? "up" : "free"));
    staff.second[k]!.forEach((c) => reach(c, "down"));
  });
  const size = small ? 0.7 : 1;
  return { up: up * size, down: down * size };
}

/** Where the staves of a line stand, as tops of their boxes (the first line is drawn 40 below), tablature, names, and the height of all. */
export interface Rows {
  staves: number[][];
  tabs: (number | null)[];
  height: number;
}

/** From the top of a box to the first line of its staff, and what lies between staves anyway. */
const HEAD = 40;
const BREATH = 8;

/** Staves under each other, further apart where notes hang between them. */
export function rowsOf(parts: readonly StaffPart[], above: number): Rows {
  let y = above - 30;
  // What the staff before reaches down into the room up to the next one, and how much room there is.
  let hangs = 0;
  let room = HEAD - 12;
  const staves: number[][] = [];
  const tabs: (number | null)[] = [];
  for (const part of parts) {
    const line = part.small ? SMALL_LINE : LINE;
    const own: number[] = [];
    for (const [i, staff] of part.staves.entries()) {
      const { up, down } = reachOf(staff, part.small);
      y += Math.max(0, hangs + up + BREATH - room);
      own.push(y);
      y += line;
      hangs = down;
      room = line - HEAD * (part.small ? 0.7 : 1);
      if (part.tab && i === 0) {
        const sinks = Math.max(0, down + BREATH - room);
        tabs.push(y + 8 + sinks);
        y += tabHeight(part.tab.strings) + sinks;
        hangs = 0;
      }
    }
    if (!part.tab) tabs.push(null);
    staves.push(own);
    y += (part.below ?? 0) + BETWEEN_PARTS;
    room += (part.below ?? 0) + BETWEEN_PARTS;
    if (part.below) hangs = 0;
  }
  return { staves, tabs, height: y + 30 + Math.max(0, hangs - room) };
}

/** How wide a bar asks to be, by the number of its places and what stands at them. */
function wish(parts: readonly StaffPart[], bar: number): number {
  const starts = new Set(
    parts.flatMap((p) =>
      p.staves.flatMap((s) => (bar < 0 ? s.pickup : [...s.measures[bar]!, ...s.second[bar]!.filter((c) => !c.hidden)]).map((c) => c.start)),
    ),
  );
  const room = (start: number) => Math.max(PLACE, ...parts.map((p) => (p.room?.get(start) ?? 0) + GAP));
  return (
    (bar < 0 ? 30 : 54) +
    Math.max(
      PLACE,
      [...starts].reduce((sum, start) => sum + room(start), 0),
    )
  );
}
const PLACE = 21;
const GAP = 6;

/** Breaks bars into lines that fit a width. */
export function layOutSheet(
  parts: readonly StaffPart[],
  { width, bars, above }: { width: number; bars: number; above: number },
): { lines: Line[]; height: number } {
  const hasPickup = parts.some((p) => p.staves.some((s) => s.pickup.length));
  const signature = 56 + Math.max(...parts.map((p) => Math.abs(p.key.signature))) * 9;
  const room = width - MARGIN - signature;
  const rows: { bar: number; wish: number }[][] = [];
  for (let bar = hasPickup ? -1 : 0; bar < bars; bar++) {
    const row = rows.at(-1);
    const asked = wish(parts, bar);
    const used = row?.reduce((sum, b) => sum + b.wish, 0) ?? Infinity;
    if (row && used + asked <= room) row.push({ bar, wish: asked });
    else rows.push([{ bar, wish: asked }]);
  }
  const lines = rows.map((row, k): Line => {
    const asked = row.reduce((sum, b) => sum + b.wish, 0);
    // A last short line is not drawn out over the whole width.
    const share = k > 0 && k === rows.length - 1 && asked < room * 0.6 ? 1.15 : room / asked;
    return { bars: row.map((b, i) => ({ bar: b.bar, width: b.wish * share + (i === 0 ? signature : 0) })) };
  });
  return { lines, height: rowsOf(parts, above).height };
}

/** Where parts are named, and where any tick stands between the places that were drawn. */
export function placesOf(
  parts: readonly StaffPart[],
  spots: readonly Spot[],
  { above, height }: { above: number; height: number },
): Placed {
  const sorted = [...spots].sort((a, b) => a.tick - b.tick);
  const rows = rowsOf(parts, above);
  const labels = parts.map((p, i) => ({ text: p.name, ...(p.legend ? { legend: p.legend } : {}), y: rows.staves[i]![0]! + 50 }));
  return {
    labels,
    at(tick) {
      const i = sorted.findLastIndex((p) => p.tick <= tick);
      const here = sorted[Math.max(0, i)];
      if (!here) return null;
      const next = sorted[i + 1];
      const share = next && next.line === here.line && next.tick > here.tick ? Math.max(0, tick - here.tick) / (next.tick - here.tick) : 0;
      return { x: here.x + (next ? (next.x - here.x) * share : 0), top: here.line * height, height };
    },
  };
}
