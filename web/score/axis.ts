import { Meter, type Ticks } from "../../core/src/index";

/** Places on the time axis. */
export interface Axis {
  /** Pixels a tick. */
  scale: number;
  pickup: Ticks;
  length: Ticks;
  width: number;
  x(tick: Ticks): number;
  tick(x: number): Ticks;
}

/** Room behind the last bar, in pixels. */
const MARGIN = 2;

/** An axis with so many pixels a quarter note. */
export function makeAxis(zoom: number, pickup: Ticks, length: Ticks): Axis {
  const scale = zoom / Meter.QUARTER;
  return {
    scale,
    pickup,
    length,
    width: (length + pickup) * scale + MARGIN,
    x: (tick) => (tick + pickup) * scale,
    tick: (x) => x / scale - pickup,
  };
}

/** Zoom at which a length fits a width in pixels. */
export const zoomToFit = (width: number, pickup: Ticks, length: Ticks): number =>
  (Math.max(1, width) / (length + pickup)) * Meter.QUARTER;

/** Most pixels a quarter note where bars are fitted. */
const WIDEST = 96;
/** Least pixels a quarter note at which bars read well. */
const READABLE = 34;

/** Zoom at which as many whole bars as read well fill the width: all of them, or eight, four, two. */
export function zoomForBars(width: number, pickup: number, bars: number, meter: Meter): number {
  const shown = [bars, 16, 8, 4, 2].filter((n) => n <= bars);
  const zooms = shown.map((n) => zoomToFit(width, pickup, n * meter.bar));
  return Math.min(WIDEST, zooms.find((z) => z >= READABLE) ?? Math.max(READABLE, zooms.at(-1) ?? READABLE));
}

/** The part of the axis that is in sight, in pixels, with some room to either side. */
export interface Window {
  from: number;
  to: number;
}

/** Whether something between two ticks is in sight. */
export const inSight = (axis: Axis, { from, to }: Window, start: Ticks, end: Ticks): boolean =>
  axis.x(end) >= from && axis.x(start) <= to;

/** Bars that are in sight, counted from 0. */
export const barsInSight = (axis: Axis, window: Window, bars: number, meter: Meter): number[] =>
  Array.from({ length: bars }, (_, b) => b).filter((b) => inSight(axis, window, b * meter.bar, (b + 1) * meter.bar));
