import { chordSymbol } from "../../chord/chord";
import { hasColor, toggleColor, type Color } from "../../chord/modify";
import type { Technique } from "../technique";
import { has, replacement } from "../tools";

export const color: Technique = {
  id: "color",
  title: "Seventh, ninth, thirteenth",
  explanation: "The same chord with more of the scale stacked on it: sevenths and ninths smooth, a thirteenth warms a dominant.",
  source: "common practice",
  adventure: 0.05,
  aim: "more",
  words: { add: "The same chord with its {what}: adds {note} from the key" },
  propose(spot) {
    const { chord, key } = spot.here;
    if (chord.tones.some((t) => t.role === "b5")) return [];
    const dominant = has(chord, "3") && has(chord, "b7");
    const wanted: Color[] = hasColor(chord, "seventh") ? (dominant ? ["ninth", "thirteenth"] : ["ninth"]) : ["seventh", "ninth", "sixth"];
    return wanted.flatMap((what) => {
      if (hasColor(chord, what)) return [];
      const next = toggleColor(chord, what, key);
      const added = next.tones.filter((t) => !chord.tones.some((o) => o.role === t.role));
      // Only what the key has: a color should not need an excuse.
      if (!added.length || added.some((t) => t.alter < 0 && t.degree > 7)) return [];
      return replacement(spot, chordSymbol(next), "add", { what, note: added.map((t) => t.role).join(" and ") });
    });
  },
};
