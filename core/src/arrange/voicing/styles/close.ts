import { chosenTones, closePositions, lossOf, pcOf, voiced } from "../stack";
import type { VoicingStyle } from "../style";

export const close: VoicingStyle = {
  id: "close",
  title: "Close position",
  explanation:
    "All tones as near together as they lie, in every inversion: compact, and easy to move by the nearest inversion.",
  source: "any harmony textbook",
  candidates(chord, limits) {
    const tones = chosenTones(chord, limits.voices, limits.bassCovered);
    return voiced(
      chord,
      closePositions(
        tones.map((t) => pcOf(chord, t)),
        limits,
      ),
      limits,
      { missing: lossOf(chord, tones, limits.bassCovered) },
    );
  },
};
