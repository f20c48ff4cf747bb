import { addApproaches, skeleton, toSlots, varyLastBar } from "../rhythm";
import type { BassStyle } from "../style";

export const rootAnchored: BassStyle = {
  id: "root-anchored",
  title: "Root-anchored",
  explanation:
    "Long roots where the chord begins and on the kick's main accents, little else. Leaves all the room to the voice; suits ballads and low sustained sounds.",
  source: "common practice",
  targets: { pitchClasses: 4, longestOutside: 0.5, chordTime: 0.95 },
  taste: { root: 0.2, fifth: 1.6, majorThird: 4, minorThird: 3, seventh: 4, other: 6, octave: 1.2, repeat: 0 },
  glides: true,
  rhythm(ctx, chance) {
    const positions = skeleton(ctx);
    addApproaches(ctx, positions, chance, 0.2);
    varyLastBar(ctx, positions, chance);
    return toSlots(ctx, positions, () => Infinity);
  },
};
