import { sure } from "../../../base/list";
import { mod } from "../../../theory/pitch/pitch";
import { rootPc } from "../../../theory/chord/chord";
import type { Technique } from "../technique";
import { dominantRoot, halves, has, read, twoRoot } from "../tools";

export const twoFive: Technique = {
  id: "two-five",
  title: "ii–V insertion",
  explanation:
    "The supertonic and dominant of the chord to come, put in front of it; before a dominant that stands there " +
    "already, its own ii.",
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
    const two = twoRoot(next, key) + (minor ? "m7b5" : "m7");
    const five = dominantRoot(next, key) + (minor ? "7(b9)" : "7");
    const target = sure(spot.next).event.symbol;
    const isFive = mod(rootPc(chord) - rootPc(next), 12) === 7 && has(chord, "3");
    // After its own ii, or under it, another one would only repeat.
    const had = [spot.prev?.chord, chord].some((c) => c && rootPc(c) === rootPc(read(two)) && has(c, "b3"));
    if (isFive)
      return had
        ? []
        : [
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
    if (had || next.tones.some((t) => t.role === "b5") || rootPc(next) === rootPc(chord)) return [];
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
