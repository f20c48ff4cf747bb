import { nth, sure } from "../../core/src/index";
import { useState, type PointerEvent, type RefObject } from "react";
import type { Drum, Ticks } from "../../core/src/index";
import { hitsNow, paintHits, setHit, setMain } from "../app/commands/drums";
import type { DrumData } from "./laneData";
import { edit } from "../app/store/song";
import type { Axis } from "./axis";
import { floorTick } from "./geometry";
import { RADIUS } from "./layout";

/**
 * Pixels: how near a hit must be to be meant, how far a press moves before it is a drag, how far up or down one changes
 * the loudness.
 */
const NEAR = 6;
const SLACK = 4;
/** Loudness a pixel. */
const LOUDER = 1.5;

interface Drag {
  drum: Drum;
  start: Ticks;
  x: number;
  y: number;
  mode: "paint" | "erase" | "velocity" | "press" | "offset";
  /** Loudness or offset at the beginning. */
  value: number;
  /** Where the mouse was last, so that nothing between two of its events is left out. */
  last: Ticks;
  /** Nothing is changed yet: the next change is a step of undo of its own. */
  first: boolean;
}

interface Grid {
  svg: RefObject<SVGSVGElement | null>;
  data: Pick<DrumData, "section" | "kicks" | "meter" | "length">;
  axis: Axis;
  rows: readonly Drum[];
  /** Height of a row. */
  row: number;
  step: Ticks;
  /** Shows where the keyboard stands. */
  moveCursor(at: { row: number; start: Ticks }): void;
}

/** Steps from one to another, both included. */
const stepsBetween = (a: Ticks, b: Ticks, step: Ticks): Ticks[] => {
  const [from, to] = [Math.min(a, b), Math.max(a, b)];
  return Array.from({ length: Math.round((to - from) / step) + 1 }, (_, i) => from + i * step);
};

export interface DrumGestures {
  onPointerDown(e: PointerEvent): void;
  onPointerMove(e: PointerEvent): void;
  onPointerUp(): void;
}

/**
 * The drum grid under the mouse: a press paints or clears, a drag paints a row, changes loudness, or with Alt moves a
 * hit off the grid.
 */
export function useDrumGestures({ svg, data, axis, rows, row: height, step, moveCursor }: Grid): DrumGestures {
  const [drag, setDrag] = useState<Drag | null>(null);
  const section = data.section.id;
  const place = (e: PointerEvent) => {
    const box = sure(svg.current).getBoundingClientRect();
    const [x, y] = [e.clientX - box.left, e.clientY - box.top];
    const row = Math.min(rows.length - 1, Math.max(0, Math.floor(y / height)));
    // A hit that stands between the steps of this grid is met where it is drawn.
    const drawn = hitsNow(section, nth(rows, row)).find(
      (h) => Math.abs(axis.x(h.start + (h.offset ?? 0)) + RADIUS - x) < NEAR,
    );
    return { row, drum: nth(rows, row), start: drawn?.start ?? floorTick(axis.tick(x - 1), step), x, y };
  };
  type Place = ReturnType<typeof place>;
  const offset = (d: Drag, at: Place) => {
    const off = Math.round(Math.max(-step / 2, Math.min(step / 2, d.value + (at.x - d.x) / axis.scale)));
    edit(
      { do: "changeHit", section, drum: d.drum, start: d.start, change: { offset: off || null } },
      { quiet: !d.first },
    );
    setDrag({ ...d, first: false });
  };
  const press = (d: Drag, at: Place) => {
    const dy = d.y - at.y;
    if (d.mode === "press" && at.start !== d.start && Math.abs(dy) < NEAR) {
      setHit(section, d.drum, d.start, { velocity: null });
      setDrag({ ...d, mode: "erase", last: d.start, first: false });
    } else if (d.mode === "velocity" || Math.abs(dy) >= SLACK) {
      setHit(section, d.drum, d.start, { velocity: d.value + Math.round(dy * LOUDER), quiet: !d.first });
      setDrag({ ...d, mode: "velocity", first: false });
    }
  };
  return {
    onPointerDown(e) {
      if (e.button !== 0) return;
      const at = place(e);
      if (at.start < 0 || at.start >= data.length) return;
      sure(svg.current).setPointerCapture(e.pointerId);
      moveCursor(at);
      const hit = hitsNow(section, at.drum).find((h) => h.start === at.start);
      const begin = (mode: Drag["mode"], value: number, first: boolean) =>
        setDrag({ ...at, mode, value, last: at.start, first });
      if (hit && e.shiftKey && at.drum === "kick")
        setMain(section, data.kicks, [at.start], !data.kicks.some((k) => k.main && k.start === at.start));
      else if (hit) begin(e.altKey ? "offset" : "press", e.altKey ? (hit.offset ?? 0) : hit.velocity, true);
      else {
        paintHits(section, at.drum, [at.start], { on: true, quiet: false });
        begin("paint", 0, false);
      }
    },
    onPointerMove(e) {
      if (!drag) return;
      const at = place(e);
      if (drag.mode === "offset") return offset(drag, at);
      if (drag.mode === "press" || drag.mode === "velocity") return press(drag, at);
      const now = Math.min(data.length - step, Math.max(0, floorTick(axis.tick(at.x - 1), step)));
      if (now === drag.last) return;
      paintHits(section, drag.drum, stepsBetween(floorTick(drag.last, step), now, step), {
        on: drag.mode === "paint",
        quiet: true,
      });
      setDrag({ ...drag, last: now });
    },
    onPointerUp() {
      if (drag?.mode === "press") setHit(section, drag.drum, drag.start, { velocity: null });
      setDrag(null);
    },
  };
}
