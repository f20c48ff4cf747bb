import { sure } from "../../../base/list";
import { chordSymbol } from "../../../theory/chord/chord";
import { toggleColor } from "../../../theory/chord/modify";
import { memberOf } from "../../../theory/chord/numerals";
import type { Technique } from "../technique";
import { halves } from "../tools";

export const suspension: Technique = {
  id: "suspension",
  title: "Suspension and its resolution",
  explanation: "The fourth is held where the third should be and falls into it: a small resolution inside one chord.",
  source: "any harmony textbook",
  adventure: 0.12,
  aim: "more",
  words: { falls: "{fourth} hangs over {root} and falls to {third}" },
  propose(spot) {
    const { chord, key, event } = spot.here;
    const cut = halves(spot.here, spot.meter);
    const third = memberOf(chord, 3);
    if (!cut || !third || chord.tones.some((t) => t.degree === 11 || t.role === "b5")) return [];
    const sus = toggleColor(chord, "sus4", key);
    // Over IV the fourth would be raised or foreign; a suspension comes from the key.
    if (!key.pcs.includes(sure(memberOf(sus, 4)).pc)) return [];
    return [
      {
        chords: [
          { symbol: chordSymbol(sus), duration: cut[0] },
          { symbol: event.symbol, duration: cut[1] },
        ],
        reason: "falls",
        params: { fourth: sure(memberOf(sus, 4)).name, root: chord.root, third: third.name },
      },
    ];
  },
};
