import { mod } from "../../pitch/pitch";
import { rootPc } from "../../chord/chord";
import type { Technique } from "../technique";
import { halves, has, symbolAt } from "../tools";

export const twoFive: Technique = {
  id: "two-five",
  title: "ii–V insertion",
  explanation:
    "The supertonic and dominant of the chord to come, put in front of it; before a dominant that stands there already, its own ii.",
  source: "any jazz harmony textbook",
  adventure: 0.38,
  aim: "more",
  words: { own: "{two} prepares {five} as ii–V of {target}", both: "{two} and {five} lead to {target} as ii–V" },
  propose(spot) {
    const { chord, key, event } = spot.here;
    const next = spot.next?.chord;
    const cut = halves(spot.here, spot.meter);
    if (!next || !cut) return [];
    const minor = has(next, "b3");
    const two = symbolAt(rootPc(next) + 2, minor ? "m7b5" : "m7", key);
    const five = symbolAt(rootPc(next) + 7, minor ? "7(b9)" : "7", key);
    const target = spot.next!.event.symbol;
    const isFive = mod(rootPc(chord) - rootPc(next), 12) === 7 && has(chord, "3");
    if (isFive)
      return [
        {
          chords: [
            { symbol: two, duration: cut[0] },
            { symbol: event.symbol, duration: cut[1] },
          ],
          needsNext: true,
          reason: "own",
          params: { two, five: event.symbol, target },
        },
      ];
    if (next.tones.some((t) => t.role === "b5") || rootPc(next) === rootPc(chord)) return [];
    const [first, second] = [cut[1] / 2, cut[1] - cut[1] / 2];
    const quick = first >= 480 && first % 120 === 0;
    return [
      {
        chords: quick
          ? [
              { symbol: event.symbol, duration: cut[0] },
              { symbol: two, duration: first },
              { symbol: five, duration: second },
            ]
          : [
              { symbol: two, duration: cut[0] },
              { symbol: five, duration: cut[1] },
            ],
        needsNext: true,
        reason: "both",
        params: { two, five, target },
      },
    ];
  },
};
