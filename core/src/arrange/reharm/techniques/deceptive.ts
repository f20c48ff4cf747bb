import { firstOf, sure } from "../../../base/list";
import { mod } from "../../../theory/pitch/pitch";
import { rootPc } from "../../../theory/chord/chord";
import { isMinorish } from "../../../theory/chord/numerals";
import type { Technique } from "../technique";
import { diatonicAt, has, replacement, sizeOf, symbolAt } from "../tools";

export const deceptive: Technique = {
  id: "deceptive",
  title: "Deceptive move",
  explanation: "After the dominant the sixth degree comes instead of home: the ear is sent on.",
  source: "any harmony textbook",
  adventure: 0.3,
  aim: "more",
  words: {
    six: "After {dominant}, {new} comes instead of {old}",
    flat: "After {dominant}, {new} of the parallel minor comes instead of {old}",
  },
  propose(spot) {
    const { chord, key, event } = spot.here;
    const prev = spot.prev?.chord;
    if (!prev || rootPc(chord) !== key.pcs[0] || mod(rootPc(prev) - rootPc(chord), 12) !== 7 || has(prev, "b3"))
      return [];
    const params = { dominant: sure(spot.prev).event.symbol, old: event.symbol };
    const six = diatonicAt(key, 5, chord);
    const flat = symbolAt(firstOf(key.pcs) + 8, sizeOf(chord) === 4 ? "maj7" : "", key);
    return [
      ...replacement(spot, six, "six", { params: { ...params, new: six }, more: { needsPrev: true } }),
      ...(isMinorish(key)
        ? []
        : replacement(spot, flat, "flat", { params: { ...params, new: flat }, more: { needsPrev: true } })),
    ];
  },
};
