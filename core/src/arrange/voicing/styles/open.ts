import { chosenTones, closePositions, lossOf, pcOf, voiced } from "../stack";
import type { VoicingStyle } from "../style";

export const open: VoicingStyle = {
  id: "open",
  title: "Open position",
  explanation: "Every other tone of a close position an octave higher: wide, clear and warm.",
  source: "any harmony textbook",
  candidates(chord, limits) {
    const tones = chosenTones(chord, limits.voices, limits.bassCovered);
    const layouts = closePositions(
      tones.map((t) => pcOf(chord, t)),
      limits,
    ).map((stack) => stack.map((m, i) => (i % 2 ? m + 12 : m)));
    return voiced(chord, layouts, limits, { missing: lossOf(chord, tones, limits.bassCovered) });
  },
};
