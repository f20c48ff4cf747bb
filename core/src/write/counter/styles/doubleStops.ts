import { COSTS, type CounterStyle } from "../style";
import { middleOf, stretches } from "./common";

/** Distances between the two notes, the wanted ones first; a fourth or a fifth where neither fits. */
const UNDER = { sixths: [9, 8, 7, 5, 4, 3], thirds: [4, 3, 5, 7, 8, 9] };
const TITLES = { sixths: "In sixths", thirds: "In thirds" };
const both = (first: keyof typeof UNDER) => [first, first === "sixths" ? ("thirds" as const) : ("sixths" as const)];

export const doubleStops: CounterStyle = {
  id: "doubleStops",
  title: "Double-stops",
  explanation:
    "Two notes at once, a sixth or a third apart, both tones of the chord: a fiddle or a horn pair that fills " +
    "without playing a chord. Where neither fits, a fourth or fifth stands.",
  source: "common practice",
  targets: { chordTime: 0.9, independent: 0.4 },
  costs: { ...COSTS, repeat: 0.3, leap: 0.14 },
  uses: ["under", "density", "side"],
  titles: ({ settings }) =>
    both(settings.under).flatMap((u) => [
      TITLES[u],
      `${TITLES[u]}, ${settings.density > 0.4 ? "longer" : "shorter"} notes`,
    ]),
  slots(ctx, _seed, attempt) {
    const kind = both(ctx.settings.under)[Math.floor(attempt / 2)];
    if (!kind) return [];
    const busy = ctx.settings.density > 0.4 !== (attempt % 2 === 1);
    const stop = { under: UNDER[kind] };
    return stretches(ctx, 1).flatMap((s) => {
      const middle = middleOf(ctx, s);
      return busy && middle < s.to
        ? [
            { start: s.from, duration: middle - s.from, ...stop },
            { start: middle, duration: s.to - middle, ...stop },
          ]
        : [{ start: s.from, duration: s.to - s.from, ...stop }];
    });
  },
};
