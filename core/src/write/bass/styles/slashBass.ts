import { halfOf } from "../../../hear/line/figure";
import { beatsOf } from "../rhythm";
import type { BassStyle } from "../style";

export const slashBass: BassStyle = {
  id: "slash-bass",
  title: "Step by inversion",
  explanation:
    "The bass chooses the inversion that lets it move by step: one long note a chord, most of them a tone or a " +
    "semitone from the last. Write the slash chords with it, so that the others know.",
  source: "common practice",
  targets: { pitchClasses: 4, longestOutside: 0.5, chordTime: 0.85, stepwise: 0.5 },
  costs: {
    root: 0.5,
    fifth: 0.9,
    majorThird: 0.3,
    minorThird: 0.4,
    seventh: 0.6,
    other: 2.5,
    octave: 1.5,
    repeat: 0.5,
    leap: 0.3,
  },
  usual: { density: 0.4, overMajor: "either", overMinor: "either", octaves: "none" },
  places: (ctx) =>
    beatsOf(ctx)
      .filter((b) => b.last)
      .map((b) => ({ at: b.at + halfOf(b.duration), use: "scale", priority: 0.4 })),
  hold: () => Infinity,
  inverts: true,
};
