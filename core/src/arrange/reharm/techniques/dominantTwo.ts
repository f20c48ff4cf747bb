import { firstOf, nth } from "../../../base/list";
import { mod } from "../../../theory/pitch/pitch";
import { rootPc } from "../../../theory/chord/chord";
import { isMinorish } from "../../../theory/chord/numerals";
import type { Technique } from "../technique";
import { replacement, symbolAt } from "../tools";

export const dominantTwo: Technique = {
  id: "dominant-two",
  title: "Dominant on II",
  explanation:
    "A dominant seventh on the second degree in the place of ii or IV: its raised fourth shines and then " +
    "slides back or on.",
  source: "common practice",
  adventure: 0.5,
  aim: "more",
  words: { shine: "{new} stands on II: {raised} brightens {plain}" },
  propose(spot) {
    const { chord, key } = spot.here;
    const above = mod(rootPc(chord) - firstOf(key.pcs), 12);
    // In lydian the fourth is high already.
    if (isMinorish(key) || key.pcs[3] !== mod(firstOf(key.pcs) + 5, 12) || (above !== 2 && above !== 5)) return [];
    return ["7", "9"].flatMap((quality) => {
      const symbol = symbolAt(nth(key.pcs, 1), quality, key);
      return replacement(spot, symbol, "shine", {
        params: {
          new: symbol,
          raised: symbolAt(firstOf(key.pcs) + 6, "", key, false),
          plain: nth(key.scale, 3),
        },
      });
    });
  },
};
