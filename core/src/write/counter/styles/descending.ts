import { firstOf, nth } from "../../../base/list";
import { because } from "../../../song/reasons";
import { noise } from "../../../hear/line/figure";
import { chordAt } from "../context";
import { COSTS, type CounterSlot, type CounterStyle } from "../style";

/** Notes of the figure in beats of a bar: where it begins, and how long each lasts. */
const FIGURES: readonly { from: number; beats: readonly number[] }[] = [
  { from: 0, beats: [1, 1, 1, 1] },
  { from: 1, beats: [0.5, 0.5, 1, 1] },
  { from: 0, beats: [1.5, 0.5, 2] },
  { from: 0, beats: [0.5, 0.5, 0.5, 0.5, 2] },
  { from: 1, beats: [1, 1, 1] },
  { from: 0, beats: [2, 1, 1] },
];

export const descending: CounterStyle = {
  id: "descending",
  title: "Descending figure",
  explanation:
    "A short figure that falls through the scale and comes back at the same place of the bar, over every chord " +
    "anew: few notes, known again at once.",
  source: "common practice",
  targets: { falls: 0.7, chordTime: 0.5, pitches: 7 },
  costs: { ...COSTS, repeat: 1.2, leap: 0.24, similar: 0.1, unanswered: 0.2 },
  uses: ["density", "side"],
  reason({ note, own }) {
    if (!note.before) return because("figure", own);
    return note.move < 0 ? because("falls", own) : null;
  },
  slots(ctx, seed) {
    const { bar, beats } = ctx.meter;
    const every = ctx.settings.density > 0.6 ? 1 : 2;
    const { from, beats: values } = nth(FIGURES, Math.floor(noise(seed, 3) * FIGURES.length));
    const beat = firstOf(beats).duration;
    const grid = beat % 720 === 0 ? beat / 3 : beat / 2;
    const out: CounterSlot[] = [];
    // With a figure every second bar, it may stand in the first or in the second of the two.
    const offset = every === 2 && noise(seed, 7) > 0.6 && ctx.bars > 1 ? 1 : 0;
    for (let b = offset; b < ctx.bars; b += every) {
      let at = b * bar + Math.min(from, beats.length - 1) * beat;
      const end = Math.min((b + 1) * bar, ctx.length);
      values.forEach((value, i) => {
        if (at >= end || !chordAt(ctx, at)?.chord) return;
        const wanted = Math.max(grid, Math.round((value * beat) / grid) * grid);
        const duration = Math.min(wanted, end - at);
        const last = i === values.length - 1 || at + duration >= end;
        out.push({
          start: at,
          duration,
          passes: true,
          ...(last ? {} : { way: -1 as const }),
          ...(i === 0 ? { fresh: true } : {}),
        });
        at += duration;
      });
    }
    return out;
  },
};
