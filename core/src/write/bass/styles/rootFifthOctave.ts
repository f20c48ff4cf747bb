import { firstOf, nth } from "../../../base/list";
import { approachPlaces, beatsOf } from "../rhythm";
import type { BassStyle } from "../style";

/** Root, the fifth above it, the octave, and the fifth again. */
const WAY = [["bass"], ["5up", "5"], ["8", "5up"], ["5up", "5"]];

export const rootFifthOctave: BassStyle = {
  id: "root-fifth-octave",
  title: "Root, fifth, octave",
  explanation:
    "The root states the chord, fifth and octave move it on and come back down, an approach note leads into " +
    "the next root. Suits songs that should walk without wandering.",
  source: "common practice",
  targets: { pitchClasses: 5, longestOutside: 0.5, chordTime: 0.85 },
  costs: { root: 0.8, fifth: 0.2, majorThird: 2.2, minorThird: 1.4, seventh: 2.4, other: 4, octave: 0.1, repeat: 0.8 },
  usual: { octaves: "many" },
  places: (ctx) => [
    // Up over the fifth to the octave and back, a beat each; with less density only the octave is left.
    ...beatsOf(ctx).map((b) => {
      const step = Math.round(b.since / b.duration) % WAY.length;
      return {
        at: b.at,
        use: step === 2 ? ("octave" as const) : ("hook" as const),
        priority: step % 2 ? 0.45 : 0.7,
        prefers: nth(WAY, step),
      };
    }),
    ...approachPlaces(ctx, 0.6),
  ],
  hold: (ctx) => firstOf(ctx.meter.beats).duration * 1.75,
};
