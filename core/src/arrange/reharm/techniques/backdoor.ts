import { firstOf, sure } from "../../../base/list";
import { mod } from "../../../theory/pitch/pitch";
import { rootPc } from "../../../theory/chord/chord";
import { isMinorish } from "../../../theory/chord/numerals";
import type { Technique } from "../technique";
import { halves, has, replacement, symbolAt } from "../tools";

export const backdoor: Technique = {
  id: "backdoor",
  title: "Backdoor",
  explanation: "bVII7, alone or after iv, goes home to I instead of V7: softer, through the parallel minor.",
  source: "any jazz harmony textbook",
  adventure: 0.55,
  aim: "more",
  words: {
    alone: "{new} enters {home} from a tone below instead of {old}",
    both: "{four} and {new} enter {home} through the back door",
  },
  propose(spot) {
    const { chord, key, event } = spot.here;
    const next = spot.next?.chord;
    if (!next || isMinorish(key) || rootPc(next) !== key.pcs[0] || !has(next, "3")) return [];
    const dominant = rootPc(chord) === mod(firstOf(key.pcs) + 7, 12);
    if (!dominant && rootPc(chord) !== mod(firstOf(key.pcs) + 5, 12)) return [];
    const seven = symbolAt(firstOf(key.pcs) + 10, "9", key);
    const four = symbolAt(firstOf(key.pcs) + 5, "m7", key);
    const home = sure(spot.next).event.symbol;
    const cut = halves(spot.here, spot.meter);
    return [
      ...(dominant
        ? replacement(spot, seven, "alone", {
            params: { new: seven, home, old: event.symbol },
            more: { needsNext: true },
          })
        : []),
      ...(cut
        ? [
            {
              chords: [
                { symbol: four, duration: cut[0] },
                { symbol: seven, duration: cut[1] },
              ],
              needsNext: true,
              reason: "both",
              params: { four, new: seven, home },
            },
          ]
        : []),
    ];
  },
};
