import { chordPitchClasses } from "../../../theory/chord/chord";
import { isDiatonic } from "../../../theory/chord/numerals";
import type { Technique } from "../technique";
import { diatonicAt, replacement, read, shared, stepIn } from "../tools";

export const relative: Technique = {
  id: "relative",
  title: "Relative and mediant",
  explanation:
    "A chord of the key a third away shares two notes and can stand in: vi or iii for I, ii or vi for IV, iii " +
    "or vii for V.",
  source: "any harmony textbook",
  adventure: 0.15,
  aim: "more",
  words: { third: "{new} is a third away from {old} and keeps {kept} of its notes" },
  propose(spot) {
    const { chord, key } = spot.here;
    const step = stepIn(chord, key);
    if (step < 0 || !isDiatonic(chord, key)) return [];
    return [5, 2].flatMap((by) => {
      const symbol = diatonicAt(key, step + by, chord);
      // A diminished triad stands for nothing but a dominant.
      if (/dim|b5/.test(symbol) && step !== 4) return [];
      const kept = shared(chord, read(symbol));
      return kept >= Math.min(2, chordPitchClasses(chord).length)
        ? replacement(spot, symbol, "third", {
            params: { new: symbol, old: spot.here.event.symbol, kept: String(kept) },
          })
        : [];
    });
  },
};
