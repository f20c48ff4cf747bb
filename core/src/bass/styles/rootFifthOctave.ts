import { approachPlaces, beatsOf } from "../rhythm";
import type { BassStyle } from "../style";

export const rootFifthOctave: BassStyle = {
  id: "root-fifth-octave",
  title: "Root, fifth, octave",
  explanation:
    "The root states the chord, fifth and octave move it on and come back down, an approach note leads into the next root. Suits songs that should walk without wandering.",
  source: "common practice",
  targets: { pitchClasses: 4, longestOutside: 0.5, chordTime: 0.85 },
  costs: { root: 0.8, fifth: 0.2, majorThird: 2.2, minorThird: 1.4, seventh: 2.4, other: 4, octave: 0.1, repeat: 0.8 },
  usual: { octaves: "many" },
  places: (ctx) => [
    // Every second beat carries the fifth or the octave; the others come with more density.
    ...beatsOf(ctx).map((b) => ({
      at: b.at,
      use: b.beat % 2 ? ("hook" as const) : ("octave" as const),
      priority: b.beat % 2 ? 0.45 : 0.7,
      prefers: b.beat % 2 ? ["5"] : ["8", "5"],
    })),
    ...approachPlaces(ctx, 0.6),
  ],
  hold: (ctx) => ctx.meter.beats[0]!.duration * 1.75,
};
