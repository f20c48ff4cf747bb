import { chordPitchClasses } from "../../../theory/chord/chord";
import type { Technique } from "../technique";
import { has, read, replacement } from "../tools";

export const quartal: Technique = {
  id: "quartal",
  title: "Fourths and suspensions",
  explanation:
    "Chords that can be stacked in fourths: 9sus4 for a dominant, m11 for a minor seventh, 6/9 for a major " +
    "chord. Open, neither sweet nor sour.",
  source: "common practice",
  adventure: 0.45,
  aim: "more",
  words: { open: "{new} can be laid out in fourths: open where {old} was thick" },
  propose(spot) {
    const { chord, key, event } = spot.here;
    if (chord.bass || has(chord, "b5")) return [];
    let qualities: string[];
    if (has(chord, "b7") && has(chord, "3")) qualities = ["9sus4", "13sus4"];
    else if (has(chord, "b3")) qualities = ["m11"];
    else if (has(chord, "3")) qualities = ["6/9", "sus2"];
    else qualities = [];
    const inKey = (q: string) =>
      chordPitchClasses(read(chord.root + q)).every(
        (pc) => key.pcs.includes(pc) || chordPitchClasses(chord).includes(pc),
      );
    return qualities
      .filter(inKey)
      .flatMap((q) =>
        replacement(spot, chord.root + q, "open", { params: { new: chord.root + q, old: event.symbol } }),
      );
  },
};
