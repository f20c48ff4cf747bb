import { sure } from "../../../base/list";
import { mod } from "../../../theory/pitch/pitch";
import { rootPc } from "../../../theory/chord/chord";
import { memberOf } from "../../../theory/chord/numerals";
import type { Technique } from "../technique";
import { has, replacement, read } from "../tools";

export const raisedThird: Technique = {
  id: "raised-third",
  title: "Minor seventh to dominant",
  explanation: "Raising the third turns a minor seventh into the dominant of the chord a fifth below it.",
  source: "common practice",
  adventure: 0.35,
  aim: "more",
  words: { raise: "{from} is raised to {to}, which leads up to {root}" },
  propose(spot) {
    const { chord } = spot.here;
    const next = spot.next?.chord;
    if (!next || !has(chord, "b3") || has(chord, "b5") || mod(rootPc(next) - rootPc(chord), 12) !== 5) return [];
    const figure = chord.tones.some((t) => t.degree === 9) ? "9" : "7";
    const symbol = chord.root + (has(next, "b3") && figure === "9" ? "7(b9)" : figure);
    return replacement(spot, symbol, "raise", {
      params: { from: sure(memberOf(chord, 3)).name, to: sure(memberOf(read(symbol), 3)).name, root: next.root },
      more: { needsNext: true },
    });
  },
};
