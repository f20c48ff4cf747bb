import { beatLength } from "../context";
import { halfOf } from "../../../hear/line/figure";
import { beatsOf } from "../rhythm";
import type { BassStyle } from "../style";

export const bossa: BassStyle = {
  id: "bossa",
  title: "Bossa-type",
  explanation:
    "Root on the first beat, fifth on the middle one, each with a short note just before it that leads in. " +
    "Even and light, under a rhythm section that syncopates above.",
  source: "common practice",
  targets: { pitchClasses: 5, longestOutside: 0.5, chordTime: 0.9 },
  costs: { root: 0.6, fifth: 0.2, majorThird: 2.4, minorThird: 2, seventh: 2.4, other: 4, octave: 0.8, repeat: 0.2 },
  usual: { density: 0.6, overMinor: "fifth", octaves: "none" },
  places(ctx) {
    const strong = beatsOf(ctx).filter((b) => b.beat % 2 === 0);
    return strong.flatMap((b) => {
      const beat = beatLength(ctx, b.at - 1);
      return [
        { at: b.at, use: "hook" as const, priority: 0.95, prefers: b.since === 0 ? ["bass"] : ["5", "bass"] },
        {
          at: b.at - beat + halfOf(beat),
          use: b.since === 0 ? ("push" as const) : ("hook" as const),
          priority: 0.6,
          prefers: b.since === 0 ? ["next", "5"] : ["5", "bass"],
        },
      ];
    });
  },
  hold: (ctx, start) => beatLength(ctx, start) * 1.4,
};
