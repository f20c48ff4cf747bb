import { parseKey } from "../../pitch/key";
import { mod, pitchClass } from "../../pitch/pitch";
import { rootPc, toneName } from "../../chord/chord";
import { diatonicChord, isMinorish } from "../../chord/numerals";
import type { Technique } from "../technique";
import { has, replacement, parallelMinor, read, sizeOf } from "../tools";

export const borrowed: Technique = {
  id: "borrowed",
  title: "Borrowed chord",
  explanation:
    "The chord on the same degree of the parallel mode: iv for IV, iiø for ii, bVI for vi, bIII for iii, bVII for the leading-tone chord.",
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
    const symbol = diatonicChord(other, step, sizeOf(chord));
    const outside = read(symbol)
      .tones.map((t) => toneName(read(symbol), t))
      .filter((n) => !key.pcs.includes(mod(pitchClass(n), 12)));
    if (!outside.length) return [];
    return replacement(spot, symbol, "from", {
      new: symbol,
      mode: `${key.tonic} ${other.mode}`,
      notes: outside.join(" and "),
      verb: outside.length === 1 ? "belongs" : "belong",
    });
  },
};
