import { firstOf, nth, sure } from "../../../base/list";
import { mod, transposeNote } from "../../../theory/pitch/pitch";
import { bassPc, rootPc } from "../../../theory/chord/chord";
import type { Technique } from "../technique";
import { before, has, replacement } from "../tools";

export const neapolitan: Technique = {
  id: "neapolitan",
  title: "Neapolitan",
  explanation:
    "Before the dominant the major chord on the lowered second degree takes the place of ii or IV, most often " +
    "over its third, so that the bass goes on as it would under IV.",
  source: "any harmony textbook",
  adventure: 0.5,
  aim: "more",
  words: { flat: "{new} prepares {five}: {second} is the lowered second degree, the bass goes from {bass} to {to}" },
  propose(spot) {
    const { chord, key } = spot.here;
    const next = spot.next?.chord;
    const five = mod(firstOf(key.pcs) + 7, 12);
    const sixFour = next !== undefined && rootPc(next) === key.pcs[0] && bassPc(next) === five;
    if (!next || !(sixFour || (rootPc(next) === five && !has(next, "b3")))) return [];
    // Where the second degree is low already the chord is nothing new; where the fourth is raised it has no third
    // there.
    if (key.pcs[1] === mod(firstOf(key.pcs) + 1, 12) || key.pcs[3] !== mod(firstOf(key.pcs) + 5, 12)) return [];
    const root = transposeNote(key.tonic, 1, 1);
    const bass = nth(key.scale, 3);
    const symbol = `${root}/${bass}`;
    const params = { new: symbol, five: sure(spot.next).event.symbol, second: root, bass, to: next.bass ?? next.root };
    const where = mod(rootPc(chord) - firstOf(key.pcs), 12);
    if (where === 2 || where === 5) return replacement(spot, symbol, "flat", { params, more: { needsNext: true } });
    if (where === 7) return [];
    return before(spot, symbol, "flat", params);
  },
};
