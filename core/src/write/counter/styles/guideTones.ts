import { because } from "../../../song/reasons";
import { noise } from "../../../hear/line/figure";
import { isGuideTone, stepFrom } from "../../lines/seen";
import { COSTS, type CounterStyle } from "../style";
import { middleOf, stretches } from "./common";

/** Thirds and sevenths; what stands in their place where a chord has none. */
const TONES = {
  "3": 0,
  b3: 0,
  b7: 0,
  "7": 0,
  bb7: 0.2,
  "4": 0.1,
  "2": 0.3,
  "6": 0.3,
  "9": 1.1,
  b5: 1,
  R: 1.6,
  "5": 1.4,
  other: 1.2,
};

export const guideTones: CounterStyle = {
  id: "guideTones",
  title: "Guide tones",
  explanation:
    "Thirds and sevenths, each going by step or common tone to the nearest of the next chord: the line that " +
    "tells the harmony with one note at a time. Where a chord has no seventh, its third or sixth stands.",
  source: "common practice of jazz arranging",
  targets: { guides: 0.75, stepwise: 0.6, chordTime: 0.9 },
  costs: { tones: TONES, step: 0, similar: COSTS.similar, repeat: 0.02, leap: 0.28, unanswered: 0.3 },
  uses: ["density", "side"],
  reason({ note, own }) {
    if (!isGuideTone(note)) return null;
    const from = stepFrom(note);
    return from ? because("guideStep", { ...own, from }) : because("guide", own);
  },
  slots: (ctx, seed) =>
    stretches(ctx, 2).flatMap((s, i) => {
      const middle = middleOf(ctx, s);
      const turns =
        middle < s.to && s.to - s.from >= ctx.meter.bar && ctx.settings.density > 0.4 + noise(seed, i % 2) * 0.5;
      return turns
        ? [
            { start: s.from, duration: middle - s.from, ties: true },
            { start: middle, duration: s.to - middle, ties: true },
          ]
        : [{ start: s.from, duration: s.to - s.from, ties: true }];
    }),
};
