import { isDiatonic } from "../../../theory/chord/numerals";
import type { Technique } from "../technique";
import { diatonicAt, halves, read, shared, stepIn } from "../tools";

export const rhythmDouble: Technique = {
  id: "rhythm-double",
  title: "Faster harmonic rhythm",
  explanation:
    "The chord shares its place with a relative that keeps two of its notes: twice the changes, little new to learn.",
  source: "common practice",
  adventure: 0.22,
  aim: "more",
  words: { share: "{old} gives half of its time to {new}, which keeps {kept} of its notes" },
  propose(spot) {
    const { chord, key, event } = spot.here;
    const cut = halves(spot.here, spot.meter);
    const step = stepIn(chord, key);
    if (!cut || step < 0 || !isDiatonic(chord, key)) return [];
    return [5, 2].flatMap((by) => {
      const symbol = diatonicAt(key, step + by, chord);
      if (/dim|b5/.test(symbol)) return [];
      return [
        {
          chords: [
            { symbol: event.symbol, duration: cut[0] },
            { symbol, duration: cut[1] },
          ],
          reason: "share",
          params: { old: event.symbol, new: symbol, kept: String(shared(chord, read(symbol))) },
        },
      ];
    });
  },
};
