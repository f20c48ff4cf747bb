import { mod, transposeNote } from "../../../theory/pitch/pitch";
import { rootPc } from "../../../theory/chord/chord";
import type { Technique } from "../technique";
import { has, replacement } from "../tools";

export const rootlessDominant: Technique = {
  id: "rootless-dominant",
  title: "Half-diminished for a dominant",
  explanation:
    "A dominant ninth without its root is a half-diminished chord on its third: F#m7b5 says what D9 says, with " +
    "less weight.",
  source: "common practice",
  adventure: 0.4,
  aim: "more",
  words: { third: "{new} is {old} as a ninth without its root {root}" },
  propose(spot) {
    const { chord, event } = spot.here;
    // Into a minor chord the ninth is flat and the chord fully diminished.
    if (!has(chord, "3") || !has(chord, "b7") || chord.bass) return [];
    const minor =
      spot.next !== undefined && has(spot.next.chord, "b3") && mod(rootPc(spot.next.chord) - rootPc(chord), 12) === 5;
    const symbol = transposeNote(chord.root, 2, 4) + (minor ? "dim7" : "m7b5");
    return replacement(spot, symbol, "third", { params: { new: symbol, old: event.symbol, root: chord.root } });
  },
};
