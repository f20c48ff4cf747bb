import type { EngravedPart } from "../../core/src/index";
import type { Tablature } from "./tablature";

export interface StaffPart extends EngravedPart {
  tab?: Tablature;
  /** Printed small, to be followed rather than played. */
  small?: boolean;
  /** Room below its last staff, for words. */
  below?: number;
  /** Least room for a note and what stands over or under it, in pixels, by the tick it begins at. */
  room?: ReadonlyMap<number, number>;
}

/** Where things stand on the sheet, in pixels. */
export interface Placed {
  labels: { text: string; y: number }[];
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
export const LINE = 78;
const SMALL_LINE = 60;
export const TAB_GAP = 12;
const BETWEEN_PARTS = 14;

/** Height of a staff of tablature with so many strings. */
export const tabHeight = (strings: number): number => strings * TAB_GAP + 46;

/** Height of a part with all that belongs to it. */
export const heightOf = (p: StaffPart): number =>
  p.staves.length * (p.small ? SMALL_LINE : LINE) + (p.tab ? tabHeight(p.tab.strings) : 0) + (p.below ?? 0) + BETWEEN_PARTS;

/** How wide a bar asks to be, by the number of its places and what stands at them. */
function wish(parts: readonly StaffPart[], bar: number): number {
  const starts = new Set(parts.flatMap((p) => p.staves.flatMap((s) => (bar < 0 ? s.pickup : s.measures[bar]!).map((c) => c.start))));
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
  return { lines, height: above + parts.reduce((sum, p) => sum + heightOf(p), 0) };
}

/** Where parts are named, and where any tick stands between the places that were drawn. */
export function placesOf(
  parts: readonly StaffPart[],
  spots: readonly Spot[],
  { above, height }: { above: number; height: number },
): Placed {
  const sorted = [...spots].sort((a, b) => a.tick - b.tick);
  let y = above - 30;
  const labels = parts.map((p) => {
    const label = { text: p.name, y: y + 50 };
    y += heightOf(p);
    return label;
  });
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
