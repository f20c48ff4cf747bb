import { sure } from "../../../base/list";
import { mod, pitchClass, transposeNote, typeset } from "../../../theory/pitch/pitch";
import { chordPitchClasses, chordToneName, rootPc, toneName } from "../../../theory/chord/chord";
import { memberOf } from "../../../theory/chord/numerals";
import { listed } from "../../../theory/words/english";
import type { Technique } from "../technique";
import { has, read, replacement } from "../tools";

export const alteredDominant: Technique = {
  id: "altered-dominant",
  title: "Altered dominant",
  explanation:
    "A dominant with a flat or sharp ninth, a flat thirteenth or a sharp eleventh: the altered notes come from " +
    "minor or from the substitute, and step into the next chord by semitones.",
  source: "any jazz harmony textbook",
  adventure: 0.35,
  aim: "more",
  words: {
    pulls: "{notes} in {new}: {paths}",
    rubs: "{notes}, the sharp ninth of {new}, rubs against its third {third}",
  },
  propose(spot) {
    const { chord } = spot.here;
    const next = spot.next?.chord;
    const falls = next !== undefined && [5, 11].includes(mod(rootPc(next) - rootPc(chord), 12));
    if (!falls || !has(chord, "3") || !has(chord, "b7") || chord.bass) return [];
    // Over a chord that falls a semitone the sharp eleventh is the root of the dominant it stands for.
    const qualities =
      rootPc(next) === mod(rootPc(chord) + 11, 12) ? ["7(#11)"] : ["7(b9)", "7(#9)", "7(b13)", "7(b9,b13)", "7(#11)"];
    return qualities.flatMap((quality) => {
      const symbol = chord.root + quality;
      const made = read(symbol);
      const added = made.tones
        .filter((t) => t.degree > 7)
        // The sharp ninth is read and heard as the minor third above the major one.
        .map((t) => (t.role === "#9" ? transposeNote(made.root, 2, 3) : toneName(made, t)));
      if (added.every((n) => chordPitchClasses(chord).includes(pitchClass(n)))) return [];
      const paths = added.flatMap((n) => {
        if (chordPitchClasses(next).includes(pitchClass(n))) return [`${typeset(n)} stays`];
        const goal = [-1, 1]
          .map((by) => mod(pitchClass(n) + by, 12))
          .find((pc) => chordPitchClasses(next).includes(pc));
        if (goal === undefined) return [];
        const verb = goal === mod(pitchClass(n) - 1, 12) ? "falls" : "rises";
        return [`${typeset(n)} ${verb} to ${typeset(sure(chordToneName(next, goal)))}`];
      });
      const notes = listed(added.map(typeset));
      if (quality === "7(#9)")
        return replacement(spot, symbol, "rubs", {
          params: { new: symbol, notes, third: sure(memberOf(made, 3)).name },
          more: { needsNext: true },
        });
      if (paths.length)
        return replacement(spot, symbol, "pulls", {
          params: { new: symbol, notes, paths: listed(paths) },
          more: { needsNext: true },
        });
      return [];
    });
  },
};
