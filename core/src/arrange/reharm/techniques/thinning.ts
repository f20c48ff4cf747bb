import { chordSymbol } from "../../../theory/chord/chord";
import { chordOfTones } from "../../../theory/chord/ofTones";
import type { Technique } from "../technique";
import { replacement } from "../tools";

export const thinning: Technique = {
  id: "thinning",
  title: "Thinner chords",
  explanation: "Colors are removed down to the triad, or to the open fifth: simple is often enough.",
  source: "common practice",
  adventure: 0.05,
  aim: "less",
  words: { triad: "{new}: the plain triad of {old}", fifth: "{new}: only root and fifth, neither major nor minor" },
  propose(spot) {
    const { chord, event } = spot.here;
    const old = event.symbol;
    const triad = chordSymbol(
      chordOfTones(
        chord.root,
        chord.tones.filter((t) => t.degree <= 5),
        chord.bass,
      ),
    );
    const fifth = chord.tones.some((t) => t.role === "5") ? `${chord.root}5` : null;
    return [
      ...replacement(spot, triad, "triad", { params: { new: triad, old } }),
      ...(fifth ? replacement(spot, fifth, "fifth", { params: { new: fifth, old } }) : []),
    ];
  },
};
