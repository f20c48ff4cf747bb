import { type Drum, Drums, type Part, type Section } from "../../core/src/index";

/** Sizes of the score in pixels: the drawing, the style sheet (as custom properties) and the tests read them here. */
export const LABEL_WIDTH = 140;
export const RULER_HEIGHT = 22;
export const CHORDS_HEIGHT = 76;
export const TOP_HEIGHT = RULER_HEIGHT + CHORDS_HEIGHT;
/** The lowest row of the drum lane. */
export const ROW = 19;
/** A lane that is folded to a strip. */
export const STRIP_HEIGHT = 28;
const LEAST_LANE = 78;
/** What a lane the work is about is to have before others are opened. */
const LEAST_FOCUS = 136;
const MOST_LANE = 260;
/** The highest row of the drum lane. */
const MOST_ROW = 32;
const LANE_LINE = 1;
/** Radius of a note head. */
export const RADIUS = 9;
/** The same where a quarter note is so narrow that heads would cover each other: a dot without a word. */
export const DOT = 3.5;
export const DOTS_BELOW = 20;

export const SCORE_VARIABLES = {
  "--label-width": `${LABEL_WIDTH}px`,
  "--ruler-height": `${RULER_HEIGHT}px`,
  "--chords-height": `${CHORDS_HEIGHT}px`,
  "--top-height": `${TOP_HEIGHT}px`,
} as React.CSSProperties;

/** Drums that have a row always; others when they are used or were added. */
const USUAL: readonly Drum[] = ["kick", "snare", "clap", "closedHat", "openHat"];

/** The rows of the grid, top to bottom: hats above, kick at the foot, under the bass. */
export const rowsOf = (section: Pick<Section, "groove">): Drum[] =>
  Drums.ALL.filter((d) => USUAL.includes(d) || section.groove.lanes.some((l) => l.drum === d)).reverse();

/** Highest register on top, drums at the bottom; within a register in the order of the song. */
const REGISTER: Record<Part["role"], number> = { melody: 0, vocal: 1, counter: 2, chords: 3, bass: 4, drums: 5 };

export const laneOrder = (parts: readonly Part[]): Part[] =>
  [...parts].sort((a, b) => REGISTER[a.role] - REGISTER[b.role]);

export interface LaneBox {
  height: number;
  folded: boolean;
}

/**
 * Which lanes stand high and which are strips. Those the work is about stand high; the others too where there is room
 * for all, otherwise in their order as long as there is. What the user folded or unfolded stays so.
 * @param room height for all lanes, in pixels
 * @param focus ids of the parts the work is about
 * @param chosen what the user chose, by part: true is high
 */
export function laneBoxes(
  parts: readonly Part[],
  drumRows: number,
  room: number,
  { focus, chosen }: { focus: readonly string[]; chosen: Readonly<Record<string, boolean>> },
): Map<string, LaneBox> {
  const least = (p: Part) => (p.role === "drums" ? drumRows * ROW : LEAST_LANE);
  const wanted = (p: Part) => (p.role !== "drums" && focus.includes(p.id) ? LEAST_FOCUS : least(p));
  const open = new Set(parts.filter((p) => chosen[p.id] ?? focus.includes(p.id)).map((p) => p.id));
  const used = (height: (p: Part) => number) =>
    parts.reduce((sum, p) => sum + (open.has(p.id) ? height(p) : STRIP_HEIGHT) + LANE_LINE, 0);
  for (const p of parts)
    if (chosen[p.id] === undefined && !open.has(p.id) && used(wanted) + least(p) - STRIP_HEIGHT <= room) open.add(p.id);
  // Lanes the work is about take two shares of what is left, the others one; drums only where the work is about them.
  const share = (p: Part) => {
    if (focus.includes(p.id)) return 2;
    if (p.role === "drums") return 0;
    return 1;
  };
  const opened = parts.filter((p) => open.has(p.id));
  const shares = Math.max(
    1,
    opened.reduce((sum, p) => sum + share(p), 0),
  );
  const spare = Math.max(0, room - used(least));
  return new Map(
    parts.map((p): [string, LaneBox] => {
      if (!open.has(p.id)) return [p.id, { height: STRIP_HEIGHT, folded: true }];
      const height = least(p) + Math.floor((spare * share(p)) / shares);
      // Rows of drums are whole pixels high.
      if (p.role === "drums")
        return [p.id, { height: drumRows * Math.min(MOST_ROW, Math.floor(height / drumRows)), folded: false }];
      return [p.id, { height: Math.min(MOST_LANE, height), folded: false }];
    }),
  );
}
