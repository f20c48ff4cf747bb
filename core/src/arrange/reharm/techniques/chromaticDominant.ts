import { mod } from "../../../theory/pitch/pitch";
import { rootPc } from "../../../theory/chord/chord";
import type { Technique } from "../technique";
import { before, colorAt } from "../tools";

export const chromaticDominant: Technique = {
  id: "chromatic-dominant",
  title: "Chromatic dominant",
  explanation:
    "Between two chords whose roots are a tone apart, a dominant seventh on the semitone between them slides through.",
  source: "common practice",
  adventure: 0.55,
  aim: "more",
  words: { slide: "{new} slides from {from} to {to} by semitones" },
  propose(spot) {
    const { chord, key } = spot.here;
    if (!spot.next) return [];
    const move = mod(rootPc(spot.next.chord) - rootPc(chord), 12);
    if (move !== 2 && move !== 10) return [];
    const symbol = colorAt(spot.next.chord.root, move === 2 ? 6 : 1, move === 2 ? 11 : 1, { quality: "7", key });
    return before(spot, symbol, "slide", { new: symbol, from: chord.root, to: spot.next.chord.root });
  },
};
