import { nth, sure } from "../../../base/list";
import { memberOf } from "../../../theory/chord/numerals";
import type { Technique } from "../technique";
import { halves, has, parts, read } from "../tools";

export const lineCliche: Technique = {
  id: "line-cliche",
  title: "Line cliché",
  explanation: "While the chord stays, one inner voice falls by semitones: root, major seventh, minor seventh, sixth.",
  source: "common practice",
  adventure: 0.4,
  aim: "more",
  words: { falls: "An inner voice falls through {chord}: {line}" },
  propose(spot) {
    const { chord } = spot.here;
    if (chord.bass || has(chord, "b5") || !memberOf(chord, 3) || (has(chord, "3") && has(chord, "b7"))) return [];
    const minor = has(chord, "b3");
    const all = minor ? ["m", "mMaj7", "m7", "m6"] : ["", "maj7", "7", "6"];
    const four = parts(spot.here, 4);
    const two = halves(spot.here, spot.meter);
    const line = (qualities: string[]) =>
      qualities
        .map((q) => {
          const c = read(chord.root + q);
          return sure(memberOf(c, 7) ?? memberOf(c, 6) ?? memberOf(c, 1)).name;
        })
        .join(" – ");
    const make = (qualities: string[], lengths: readonly number[]) => ({
      chords: qualities.map((q, i) => ({ symbol: chord.root + q, duration: nth(lengths, i) })),
      reason: "falls",
      params: { chord: chord.root + (minor ? "m" : ""), line: line(qualities) },
    });
    return [...(four ? [make(all, four)] : []), ...(two ? [make(minor ? ["m7", "m6"] : ["maj7", "6"], two)] : [])];
  },
};
