import { mod } from "../../pitch/pitch";
import { rootPc } from "../../chord/chord";
import type { Technique } from "../technique";
import { before, symbolAt } from "../tools";

export const chromaticDominant: Technique = {
  id: "chromatic-dominant",
  title: "Chromatic dominant",
  explanation: "Between two chords whose roots are a tone apart, a dominant seventh on the semitone between them slides through.",
  source: "common practice",
  adventure: 0.55,
  aim: "more",
  words: { slide: "{new} slides from {from} to {to} by semitones" },
  propose(spot) {
    const { chord, key } = spot.here;
    if (!spot.next) return [];
    const move = mod(rootPc(spot.next.chord) - rootPc(chord), 12);
    if (move !== 2 && move !== 10) return [];
    const symbol = symbolAt(rootPc(chord) + (move === 2 ? 1 : 11), "7", key, true);
    return before(spot, symbol, "slide", { new: symbol, from: chord.root, to: spot.next.chord.root });
  },
};
