import { halfOf } from "../../../hear/line/figure";
import { approachPlaces, beatsOf } from "../rhythm";
import { beatLength } from "../context";
import type { BassStyle } from "../style";

export const kickLocked: BassStyle = {
  id: "kick-locked",
  title: "Kick-locked",
  explanation:
    "Sounds with the kick, cut before the backbeat so that the line breathes; a few notes away from the kick " +
    "give the hook. Suits grooves with a kick worth hearing.",
  source: "common practice",
  targets: { pitchClasses: 4, longestOutside: 0.5, chordTime: 0.95, offKick: 0.6 },
  costs: { root: 0.3, fifth: 0.7, majorThird: 1.8, minorThird: 1, seventh: 1.4, other: 4, octave: 0.6, repeat: 0.25 },
  usual: { gate: "cut" },
  places: (ctx) => [
    ...ctx.kicks.map((k) => ({ at: k.start, use: "kick" as const, priority: 0.6 })),
    // Hooks stand between the beats, away from the kick.
    ...beatsOf(ctx)
      .filter((b) => b.beat > 0)
      .map((b) => ({ at: b.at + halfOf(b.duration), use: "hook" as const, priority: 0.3 })),
    ...approachPlaces(ctx, 0.38),
  ],
  hold: (ctx, start) => beatLength(ctx, start) * 1.5,
};
