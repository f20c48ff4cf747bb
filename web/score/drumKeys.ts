import { firstOf, nth } from "../../core/src/index";
import type { Drum, Hit, Ticks } from "../../core/src/index";
import { hitsNow, setHit, setMain, usualVelocity } from "../app/commands/drums";
import type { DrumData } from "./laneData";
import { runShortcut, sidewaysOf, upwardOf, withAny, type Press, type Shortcut } from "../kit/shortcuts";

/** Where the keyboard stands in the drum grid. */
export interface Cursor {
  row: number;
  start: Ticks;
}

/** Loudness a key changes a hit by. */
const LOUDER = 8;

interface Grid {
  data: Pick<DrumData, "section" | "kicks" | "meter" | "length">;
  rows: readonly Drum[];
  step: Ticks;
  cursor: Cursor;
  moveCursor(cursor: Cursor): void;
}

/** The grid with what stands under the cursor. */
interface At extends Grid {
  section: string;
  drum: Drum;
  hit: Hit | undefined;
}

/** What needs a hit under the cursor. */
const onHit =
  (run: (at: At & { hit: Hit }, press: Press) => void) =>
  (at: At, press: Press): boolean => {
    if (!at.hit) return false;
    run({ ...at, hit: at.hit }, press);
    return true;
  };

/** Sets how loud a hit is, by steps. */
const louder = ({ section, drum, cursor, hit }: At & { hit: Hit }, steps: number): void =>
  void setHit(section, drum, cursor.start, { velocity: hit.velocity + steps * LOUDER });

/** The keys of the drum grid. */
export const DRUM_KEYS: readonly Shortcut<At>[] = [
  {
    keys: "← →",
    what: "step by step; Shift by beats",
    on: withAny(["arrowleft", "arrowright"], "shift+"),
    run({ data, step, cursor, moveCursor }, press) {
      const by = sidewaysOf(press) * (press.shiftKey ? firstOf(data.meter.beats).duration : step);
      moveCursor({ ...cursor, start: Math.min(data.length - step, Math.max(0, cursor.start + by)) });
    },
  },
  {
    keys: "↑ ↓",
    what: "from drum to drum",
    on: withAny(["arrowup", "arrowdown"], "shift+"),
    run({ rows, cursor, moveCursor }, press) {
      moveCursor({ ...cursor, row: Math.min(rows.length - 1, Math.max(0, cursor.row - upwardOf(press))) });
    },
  },
  {
    keys: "Enter",
    what: "set or clear a hit",
    mouse: "click; drag paints a row",
    on: ["enter"],
    run({ section, drum, hit, cursor: { start } }) {
      setHit(section, drum, start, { velocity: hit ? null : usualVelocity(drum, start) });
    },
  },
  {
    keys: "+ −",
    what: "louder, softer; Alt ↑ ↓ too",
    mouse: "drag up or down",
    on: ["+", "shift++", "-", "alt+arrowup", "alt+arrowdown"],
    run: onHit((at, press) => louder(at, press.key === "+" || press.key === "ArrowUp" ? 1 : -1)),
  },
  {
    keys: ".",
    what: "make a kick a main accent, or not",
    mouse: "Shift-click; Accents in the panel",
    on: ["."],
    run({ section, drum, hit, data, cursor: { start } }) {
      if (!hit || drum !== "kick") return false;
      setMain(section, data.kicks, [start], !data.kicks.some((k) => k.main && k.start === start));
      return true;
    },
  },
  {
    keys: "Delete",
    what: "clear a hit",
    on: ["delete", "backspace"],
    run: onHit(({ section, drum, cursor }) => void setHit(section, drum, cursor.start, { velocity: null })),
  },
  { keys: "", what: "a hit a little early or late", mouse: "Alt-drag; Lanes in the panel", on: [], run: () => false },
];

/** Keys of the drum grid. True when the key meant something here. */
export function drumKey(press: Press, grid: Grid): boolean {
  const section = grid.data.section.id;
  const drum = nth(grid.rows, grid.cursor.row);
  const hit = hitsNow(section, drum).find((h) => h.start === grid.cursor.start);
  return runShortcut(DRUM_KEYS, press, { ...grid, section, drum, hit });
}
