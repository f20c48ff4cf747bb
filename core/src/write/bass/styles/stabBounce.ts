import { beatLength } from "../context";
import { halfOf } from "../../../hear/line/figure";
import { beatsOf } from "../rhythm";
import type { BassStyle } from "../style";

export const stabBounce: BassStyle = {
  id: "stab-bounce",
  title: "Stab and bounce",
  explanation:
    "Short stabs with the kick, answered an octave higher between the beats, and silence around both. Dances; " +
    "wants a tight kick and a short sound.",
  source: "common practice",
  targets: { pitchClasses: 3, longestOutside: 0.5, chordTime: 0.95, silence: [0.3, 0.9] },
  costs: { root: 0.1, fifth: 1.2, majorThird: 3, minorThird: 2, seventh: 2, other: 4, octave: 0, repeat: 0.3 },
  usual: { gate: "cut", octaves: "many", pitches: 3 },
  places: (ctx) => [
    // It begins low, so that there is room to bounce.
    ...ctx.chords.map((c) => ({ at: c.start, use: "hook" as const, priority: 0.7, prefers: ["bass"] })),
    ...ctx.kicks.map((k) => ({ at: k.start, use: "kick" as const, priority: 0.7, prefers: ["bass"] })),
    ...beatsOf(ctx).map((b) => ({
      at: b.at + halfOf(b.duration),
      use: "octave" as const,
      priority: 0.42,
      prefers: ["8"],
    })),
  ],
  hold: (ctx, start, use) => beatLength(ctx, start) * (use === "octave" ? 0.25 : 0.4),
};
