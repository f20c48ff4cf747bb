import { beatLength } from "../context";
import { weavePlaces } from "../others";
import { approachPlaces } from "../rhythm";
import type { BassStyle } from "../style";

export const weave: BassStyle = {
  id: "weave",
  title: "Weave",
  explanation:
    "Where kick and another player accent different places, the bass sounds on those that matter to both, with " +
    "simple notes, and ties them into one figure.",
  source: "common practice",
  targets: { pitchClasses: 3, longestOutside: 0.5, chordTime: 0.95 },
  costs: { root: 0.1, fifth: 0.6, majorThird: 3, minorThird: 2, seventh: 3, other: 5, octave: 0.8, repeat: 0.1 },
  usual: { pitches: 3, density: 0.6 },
  places: (ctx) => [
    ...weavePlaces(ctx).map(({ at, name, share }) => ({
      at,
      use: "weave" as const,
      priority: 0.35 + 0.6 * share,
      prefers: ["bass", "5"],
      with: name,
    })),
    ...approachPlaces(ctx, 0.3),
  ],
  hold: (ctx, start) => beatLength(ctx, start),
};
