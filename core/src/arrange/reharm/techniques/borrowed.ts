import { nth } from "../../../base/list";
import { parseKey } from "../../../theory/pitch/key";
import { mod, pitchClass } from "../../../theory/pitch/pitch";
import { rootPc, toneName } from "../../../theory/chord/chord";
import { diatonicChord, isMinorish } from "../../../theory/chord/numerals";
import { belongs } from "../../../hear/harmony/context";
import type { Technique } from "../technique";
import { has, replacement, parallelMinor, read, sizeOf, symbolAt } from "../tools";

export const borrowed: Technique = {
  id: "borrowed",
  title: "Borrowed chord",
  explanation:
    "The chord on the same degree of the parallel mode: iv for IV, iiø for ii, bVI for vi, bIII for iii, bVII " +
    "for the leading-tone chord.",
  source: "any harmony textbook (modal mixture)",
  adventure: 0.5,
  aim: "more",
  words: { from: "{new} comes from {mode}: {notes} {verb} there" },
  propose(spot) {
    const { chord, key } = spot.here;
    const step = key.pcs.indexOf(rootPc(chord));
    // A dominant that gives up its leading tone for the minor v would lose its point.
    if (step < 0 || (step === 4 && !has(chord, "b3"))) return [];
    let other = parallelMinor(key);
    if (isMinorish(key)) {
      const major = parseKey(`${key.tonic} major`);
      if (!major.ok) return [];
      other = major.value;
    }
    const quality = read(diatonicChord(other, step, sizeOf(chord))).quality;
    const symbol = symbolAt(nth(other.pcs, step), quality, key);
    if (belongs(read(symbol), key)) return [];
    const outside = read(symbol)
      .tones.map((t) => toneName(read(symbol), t))
      .filter((n) => !key.pcs.includes(mod(pitchClass(n), 12)));
    if (!outside.length) return [];
    return replacement(spot, symbol, "from", {
      params: {
        new: symbol,
        mode: other.tonic === key.tonic ? `${key.tonic} ${other.mode}` : `the parallel ${other.mode}`,
        notes: outside.join(" and "),
        verb: outside.length === 1 ? "belongs" : "belong",
      },
    });
  },
};
