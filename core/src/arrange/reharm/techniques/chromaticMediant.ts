import { mod, pitchClass } from "../../../theory/pitch/pitch";
import { chordPitchClasses, rootPc, toneName } from "../../../theory/chord/chord";
import type { Technique } from "../technique";
import { has, replacement, read, sizeOf, colorAt } from "../tools";

export const chromaticMediant: Technique = {
  id: "chromatic-mediant",
  title: "Chromatic mediant",
  explanation:
    "A chord of the same kind a third away keeps one note and shifts the rest: a change of light without a dominant.",
  source: "Cohn 2012; any harmony textbook",
  adventure: 0.78,
  aim: "more",
  words: { light: "{new} is of the same kind a third away from {old}; it keeps {kept}" },
  propose(spot) {
    const { chord, key, event } = spot.here;
    const minor = has(chord, "b3");
    if (has(chord, "b5") || has(chord, "b7") === !minor || !chord.tones.some((t) => t.degree === 3)) return [];
    let quality: "m7" | "m" | "maj7" | "";
    if (minor) {
      if (sizeOf(chord) === 4) quality = "m7";
      else quality = "m";
    } else if (sizeOf(chord) === 4) quality = "maj7";
    else quality = "";
    return [3, 4, 8, 9].flatMap((by) => {
      const symbol = colorAt(chord.root, by < 6 ? 2 : 5, by, { quality, key });
      const other = read(symbol);
      const kept = other.tones
        .map((t) => toneName(other, t))
        .filter((n) => chordPitchClasses(chord).includes(mod(pitchClass(n), 12)));
      // A fifth above the next root it is a dominant before it is a mediant.
      const leads = !minor && spot.next !== undefined && mod(rootPc(other) - rootPc(spot.next.chord), 12) === 7;
      if (leads || !kept.length || chordPitchClasses(other).every((pc) => key.pcs.includes(pc))) return [];
      return replacement(spot, symbol, "light", {
        params: { new: symbol, old: event.symbol, kept: kept.join(" and ") },
      });
    });
  },
};
