import { firstOf, nth } from "../../core/src/index";
import type { KeyboardEvent } from "react";
import type { Drum, Ticks } from "../../core/src/index";
import { hitsNow, setHit, setMain, usualVelocity } from "../app/commands/drums";
import type { SectionData } from "../app/store/sectionData";

/** Where the keyboard stands in the drum grid. */
export interface Cursor {
  row: number;
  start: Ticks;
}

/** Loudness a key changes a hit by. */
const LOUDER = 8;

interface Grid {
  data: SectionData;
  rows: readonly Drum[];
  step: Ticks;
  cursor: Cursor;
  moveCursor(cursor: Cursor): void;
}

/** Keys of the drum grid. True when the key meant something here. */
export function drumKey(e: KeyboardEvent, { data, rows, step, cursor, moveCursor }: Grid): boolean {
  const section = data.section.id;
  const drum = nth(rows, cursor.row);
  const { start } = cursor;
  const hit = hitsNow(section, drum).find((h) => h.start === start);
  const far = e.shiftKey ? firstOf(data.meter.beats).duration : step;
  const sideways = { ArrowLeft: -far, ArrowRight: far }[e.key];
  const upward = { ArrowUp: 1, ArrowDown: -1 }[e.key];
  if (sideways) moveCursor({ ...cursor, start: Math.min(data.length - step, Math.max(0, start + sideways)) });
  else if (upward && !e.altKey)
    moveCursor({ ...cursor, row: Math.min(rows.length - 1, Math.max(0, cursor.row - upward)) });
  else if (e.key === "Enter") setHit(section, drum, start, { velocity: hit ? null : usualVelocity(drum, start) });
  else if (!hit) return false;
  else if (e.key === "." && drum === "kick")
    setMain(section, data.kicks, [start], !data.kicks.some((k) => k.main && k.start === start));
  else if (e.key === "Delete" || e.key === "Backspace") setHit(section, drum, start, { velocity: null });
  else if (e.key === "+" || e.key === "-" || upward)
    setHit(section, drum, start, { velocity: hit.velocity + (e.key === "+" || upward === 1 ? LOUDER : -LOUDER) });
  else return false;
  return true;
}
