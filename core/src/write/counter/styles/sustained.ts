import { noise } from "../../../hear/line/figure";
import { COSTS, type CounterStyle } from "../style";
import { middleOf, stretches } from "./common";

export const sustained: CounterStyle = {
  id: "sustained",
  title: "Sustained line",
  explanation:
    "One long note under each chord, moving by step or not at all, against the tune rather than with it. What " +
    "belongs to the next chord too is held over; a tone that does not may hang over the change and fall by " +
    "step.",
  source: "common practice",
  targets: { chordTime: 0.75, stepwise: 0.6, independent: 0.5, pitches: 5 },
  costs: { ...COSTS, repeat: 0.05, leap: 0.2, similar: 0.35 },
  uses: ["density", "side"],
  slots: (ctx, seed) =>
    stretches(ctx, 1).flatMap((s, i) => {
      const middle = middleOf(ctx, s);
      const split =
        middle < s.to && (ctx.settings.density > 0.66 || (ctx.settings.density > 0.33 && noise(seed, i % 4) > 0.6));
      const hold = { ties: true, suspends: s.first && split };
      return split
        ? [
            { start: s.from, duration: middle - s.from, ...hold },
            { start: middle, duration: s.to - middle, ties: true },
          ]
        : [{ start: s.from, duration: s.to - s.from, ...hold }];
    }),
};
