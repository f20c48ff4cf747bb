import { firstOf, nth } from "../../../base/list";
import { rootPc } from "../../../theory/chord/chord";
import { isMinorish } from "../../../theory/chord/numerals";
import type { Technique } from "../technique";
import { parts, symbolAt } from "../tools";

export const turnaround: Technique = {
  id: "turnaround",
  title: "Turnaround",
  explanation:
    "Four quick chords in the place of a tonic that only waits: they lead to the tonic that follows: the " +
    "beginning once more, or the next section.",
  source: "any jazz harmony textbook",
  adventure: 0.42,
  aim: "more",
  words: { back: "{line} leads on to {first}" },
  propose(spot) {
    const { chord, key } = spot.here;
    const { last, next } = spot;
    if ((key.mode !== "major" && key.mode !== "minor") || !last || !next) return [];
    if (rootPc(chord) !== key.pcs[0] || rootPc(next.chord) !== key.pcs[0]) return [];
    const lengths = parts(spot.here, 4) ?? parts(spot.here, 2);
    if (!lengths) return [];
    const minor = isMinorish(key);
    const at = (semitones: number, quality: string) => symbolAt(firstOf(key.pcs) + semitones, quality, key);
    const lines = minor
      ? [
          [at(0, "m7"), at(8, "maj7"), at(2, "m7b5"), at(7, "7(b9)")],
          [at(0, "m7"), at(9, "m7b5"), at(2, "m7b5"), at(7, "7(b9)")],
        ]
      : [
          [at(0, "maj7"), at(9, "m7"), at(2, "m7"), at(7, "7")],
          [at(4, "m7"), at(9, "7"), at(2, "m7"), at(7, "7")],
          [at(0, "maj7"), at(3, "maj7"), at(8, "maj7"), at(1, "7")],
        ];
    return lines.map((line) => {
      const used = lengths.length === 4 ? line : line.slice(2);
      return {
        chords: used.map((symbol, i) => ({ symbol, duration: nth(lengths, i) })),
        needsNext: true,
        reason: "back",
        params: { line: used.join(" – "), first: next.event.symbol },
      };
    });
  },
};
