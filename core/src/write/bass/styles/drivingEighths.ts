import { halfOf } from "../../../hear/line/figure";
import { approachPlaces, beatsOf } from "../rhythm";
import { beatLength } from "../context";
import type { BassStyle, RhythmPlace } from "../style";

export const drivingEighths: BassStyle = {
  id: "driving-eighths",
  title: "Driving eighths",
  explanation:
    "The root in even half-beats, with an octave or a fifth now and then and a step into the next chord. " +
    "Pushes a chorus forward; tires where it never stops.",
  source: "common practice",
  targets: { pitchClasses: 4, longestOutside: 0.5, chordTime: 0.9, silence: [0, 0.45] },
  costs: { root: 0, fifth: 1.1, majorThird: 2.6, minorThird: 2, seventh: 2.4, other: 5, octave: 0.7, repeat: 0 },
  usual: { density: 0.7, length: "usual" },
  places: (ctx) => [
    ...approachPlaces(ctx, 0.55),
    ...beatsOf(ctx).flatMap((b) => {
      const half = halfOf(b.duration);
      const { length } = ctx.meter.beats;
      // It pushes up into the middle of the bar, and turns at its end.
      const lifts = b.beat === Math.floor(length / 2) - 1 || length === 1;
      const places: RhythmPlace[] = [
        { at: b.at + half, use: "octave", priority: lifts ? 0.55 : 0.1, prefers: ["8"] },
        { at: b.at + half, use: "hook", priority: b.beat === length - 1 ? 0.55 : 0.1, prefers: ["5", "8"] },
        { at: b.at, use: "hook", priority: 0.95, prefers: ["bass"] },
        { at: b.at + half, use: "hook", priority: 0.85, prefers: ["bass"] },
      ];
      if (b.duration === 720) places.push({ at: b.at + 240, use: "hook", priority: 0.8, prefers: ["bass"] });
      return places;
    }),
  ],
  hold: (ctx, start) => beatLength(ctx, start) * 0.45,
};
