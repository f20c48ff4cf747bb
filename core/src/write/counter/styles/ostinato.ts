import { because } from "../../../song/reasons";
import { CELL_WAYS, cellOf, laidCell, waysFrom } from "../cell";
import type { CounterContext } from "../context";
import { COSTS, type CounterStyle } from "../style";

const drawn = (ctx: CounterContext): boolean => cellOf(ctx)?.drawn ?? false;

export const ostinato: CounterStyle = {
  id: "ostinato",
  title: "Arpeggio or ostinato",
  explanation:
    "A cell that comes back: the first bar you drew (or two), or the tones of the first chord where nothing is " +
    "drawn. Refitted, it takes the same degrees of every chord; moved along the scale, it keeps its shape; " +
    "held, it stays as it is, and what clashes is listed.",
  source: "common practice",
  targets: { given: true },
  costs: COSTS,
  uses: ["cell", "density", "side"],
  titles: (ctx) =>
    drawn(ctx)
      ? waysFrom(ctx.settings.cell).map((w) => CELL_WAYS[w])
      : ["Up and back", "Rolling", "Down", "By leaps", "Up"],
  reason({ slot, note, own }) {
    if (slot.model === undefined) return null;
    if (note.midi === slot.model) return note.inChord ? because("cellKept", own) : because("cellHeld", own);
    if (slot.cell === "scale") return because("cellScale");
    return note.inChord ? because("cell", own) : null;
  },
  slots(ctx, seed, attempt) {
    const cell = cellOf(ctx, attempt, Math.floor(seed / 97) % 3);
    if (!cell) return [];
    const ways = waysFrom(ctx.settings.cell);
    const way = cell.drawn ? ways[attempt] : ways[0];
    return way
      ? laidCell(ctx, cell, way).map(({ start, duration, midi, model }) => ({
          start,
          duration,
          fixed: midi,
          model,
          cell: way,
        }))
      : [];
  },
};
