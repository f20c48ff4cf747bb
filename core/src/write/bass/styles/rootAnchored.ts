import { approachPlaces } from "../rhythm";
import type { BassStyle } from "../style";

export const rootAnchored: BassStyle = {
  id: "root-anchored",
  title: "Root-anchored",
  explanation:
    "Long roots where the chord begins and on the kick's main accents, little else. Leaves all the room to the " +
    "voice; suits ballads and low sustained sounds.",
  source: "common practice",
  targets: { pitchClasses: 4, longestOutside: 0.5, chordTime: 0.95 },
  costs: { root: 0.2, fifth: 1.6, majorThird: 4, minorThird: 3, seventh: 4, other: 6, octave: 1.2, repeat: 0 },
  usual: { slides: "some", density: 0.4, octaves: "none" },
  places: (ctx) => approachPlaces(ctx, 0.4),
  hold: () => Infinity,
};
