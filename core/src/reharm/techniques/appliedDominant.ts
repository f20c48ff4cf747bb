import { mod } from "../../pitch/pitch";
import { rootPc } from "../../chord/chord";
import { noteOf } from "../../chord/numerals";
import type { Technique } from "../technique";
import { before, dominantInto, read, symbolAt } from "../tools";

export const appliedDominant: Technique = {
  id: "applied-dominant",
  title: "Applied dominant",
  explanation: "The dominant of the chord to come, put in front of it: its third leads up into the next root.",
  source: "any harmony textbook",
  adventure: 0.4,
  aim: "more",
  words: { leads: "{new} is the dominant of {next}: {third} leads up to {root}" },
  propose(spot) {
    const next = spot.next?.chord;
    if (!next || next.tones.some((t) => t.role === "b5") || rootPc(next) === rootPc(spot.here.chord)) return [];
    if (mod(rootPc(spot.here.chord) - rootPc(next), 12) === 7) return [];
    return ["7", dominantInto(next)].flatMap((quality) => {
      const symbol = symbolAt(rootPc(next) + 7, quality, spot.here.key);
      return before(spot, symbol, "leads", {
        new: symbol,
        next: spot.next!.event.symbol,
        third: noteOf(read(symbol), 3)!.name,
        root: next.root,
      });
    });
  },
};
