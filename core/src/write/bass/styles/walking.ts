import { firstOf } from "../../../base/list";
import { approachPlaces, beatsOf } from "../rhythm";
import type { BassStyle } from "../style";

export const walking: BassStyle = {
  id: "walking",
  title: "Walking",
  explanation:
    "A note on every beat: the root when the chord begins, chord tones and steps of the scale between, and a " +
    "step into the next root on the last beat. The ride of a swing tune; leaves little room for a busy kick.",
  source: "common practice",
  targets: { pitchClasses: 7, longestOutside: 1, chordTime: 0.6, silence: [0, 0.3] },
  costs: {
    root: 0.9,
    fifth: 0.3,
    majorThird: 0.3,
    minorThird: 0.2,
    seventh: 0.5,
    other: 0.8,
    octave: 0.8,
    repeat: 1.6,
    leap: 0.12,
    reverse: 0.3,
  },
  usual: { density: 0.6, overMajor: "either", overMinor: "either", octaves: "some" },
  places: (ctx) => [
    ...beatsOf(ctx).map((b) => ({
      at: b.at,
      use: b.last ? ("approach" as const) : ("scale" as const),
      priority: 0.98,
    })),
    // A skip between two beats now and then.
    ...approachPlaces(ctx, 0.25),
  ],
  hold: (ctx) => firstOf(ctx.meter.beats).duration,
};
