import { pcOf, places, voiced } from "../stack";
import type { VoicingStyle } from "../style";

export const single: VoicingStyle = {
  id: "single",
  title: "Single notes",
  explanation:
    "One tone a chord, the material of a thin line: the path keeps or steps to the nearest tone, third and " +
    "seventh before root and fifth.",
  source: "common practice",
  alone: true,
  fixed: true,
  candidates: (chord, limits) =>
    chord.tones.flatMap((t) => {
      const toneCost = () => {
        if (t.degree === 3 || t.degree === 7 || t.degree === 4) return 0;
        if (t.degree === 1) return 0.6;
        return 1;
      };
      return voiced(chord, places([pcOf(chord, t)], limits), { ...limits, bassCovered: true }, { missing: toneCost() });
    }),
};
