import { halfOf } from "../../../hear/line/figure";
import { beatsOf } from "../rhythm";
import type { BassStyle } from "../style";

export const scaleWalk: BassStyle = {
  id: "scale-walk",
  title: "Scale walk",
  explanation:
    "The bass goes up and down the scale by step, and the harmony rides on it: chord tones on the strong " +
    "places, passing tones between. Carries a progression that stands still.",
  source: "common practice",
  targets: { pitchClasses: 7, longestOutside: 1, chordTime: 0.55, stepwise: 0.55 },
  costs: {
    root: 0.7,
    fifth: 0.5,
    majorThird: 0.3,
    minorThird: 0.3,
    seventh: 0.6,
    other: 1,
    octave: 1.5,
    repeat: 1.8,
    leap: 0.35,
    reverse: 0.7,
  },
  usual: { overMajor: "either", overMinor: "either", octaves: "none", density: 0.5 },
  places: (ctx) =>
    beatsOf(ctx).flatMap((b) => [
      { at: b.at, use: "scale" as const, priority: 0.85 },
      { at: b.at + halfOf(b.duration), use: "scale" as const, priority: 0.3 },
    ]),
  hold: () => Infinity,
};
