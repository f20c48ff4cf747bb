import { mod } from "../../pitch/pitch";
import { rootPc } from "../../chord/chord";
import type { Technique } from "../technique";
import { before, has, replacement, symbolAt } from "../tools";

export const tritone: Technique = {
  id: "tritone",
  title: "Tritone substitute",
  explanation: "A dominant seventh a tritone away keeps third and seventh, changed over, and lets the bass fall a semitone.",
  source: "any jazz harmony textbook",
  adventure: 0.6,
  aim: "more",
  words: { bass: "{new} keeps the third and seventh of {old}; the bass falls a semitone to {root}" },
  propose(spot) {
    const { chord, key, event } = spot.here;
    const next = spot.next?.chord;
    if (!next) return [];
    const root = next.root;
    const isFive = mod(rootPc(chord) - rootPc(next), 12) === 7 && has(chord, "b7") && !has(chord, "b3");
    const symbol = symbolAt(rootPc(next) + 1, "9", key);
    if (isFive)
      return ["7", "9", "7(#11)"].flatMap((quality) => {
        const sub = symbolAt(rootPc(next) + 1, quality, key);
        return replacement(spot, sub, "bass", { new: sub, old: event.symbol, root }, { needsNext: true });
      });
    return rootPc(next) === rootPc(chord)
      ? []
      : before(spot, symbol, "bass", { new: symbol, old: symbolAt(rootPc(next) + 7, "7", key), root });
  },
};
