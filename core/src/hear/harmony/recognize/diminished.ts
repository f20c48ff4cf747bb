import { nth } from "../../../base/list";
import { typeset } from "../../../theory/pitch/pitch";
import { chordPitchClasses, rootPc } from "../../../theory/chord/chord";
import { above, bassMove, earlier, isDiminished, isFullyDiminished, neighbor, onward } from "../context";
import type { Recognizer } from "./types";

const sym = typeset;

export const commonToneDiminished: Recognizer = {
  id: "common-tone-diminished",
  title: "Common-tone diminished",
  explanation:
    "A diminished seventh that keeps the root of the chord after it, or before it; its other notes are " +
    "neighbors that step into place.",
  source: "Kostka & Payne, Tonal Harmony",
  find(p, i) {
    const { chord } = nth(p.chords, i);
    const next = neighbor(p, i, 1)?.chord;
    if (!next || !isFullyDiminished(chord) || isDiminished(next)) return null;
    if (!chordPitchClasses(chord).includes(rootPc(next))) {
      // Over the root that sounded before, on its way elsewhere: C, C diminished, Dm.
      const before = neighbor(p, i, -1)?.chord;
      if (!before || isDiminished(before) || rootPc(before) !== rootPc(chord)) return null;
      return {
        function: "chromatic",
        explanation:
          `Keeps ${sym(chord.root)}, the root of ${sym(before.root + before.quality)}, while the other notes ` +
          `lean towards ${sym(next.root + next.quality)}.`,
      };
    }
    return {
      function: "chromatic",
      explanation:
        `Keeps ${sym(next.root)}, the root of ${sym(next.root + next.quality)}, while the other notes step into ` +
        "it as neighbors.",
    };
  },
};

export const passingDiminished: Recognizer = {
  id: "passing-diminished",
  title: "Passing diminished",
  explanation: "A diminished chord whose bass fills the whole tone between two chords.",
  source: "any harmony textbook",
  find(p, i) {
    const { chord, key } = nth(p.chords, i);
    const before = earlier(p, i)?.chord;
    const next = onward(p, i)?.chord;
    if (!next || !isDiminished(chord)) return null;
    const up = before !== undefined && bassMove(before, chord) === 1 && bassMove(chord, next) === 1;
    // The one on the lowered third falls into ii, whatever comes before it.
    const falls = above(chord, key) === 3 && above(next, key) === 2;
    const down = bassMove(chord, next) === 11 && (falls || (before !== undefined && bassMove(before, chord) === 11));
    if (!up && !down) return null;
    const walks =
      before !== undefined && [1, 11].includes(bassMove(before, chord)) ? [before, chord, next] : [chord, next];
    const names = walks.map((c) => sym(c.bass ?? c.root));
    return {
      function: up ? "dominant" : "chromatic",
      explanation:
        "Its bass walks by semitones, " +
        `${names.join(" – ")}${up ? `, and it is the leading-tone chord of ${sym(next.bass ?? next.root)}` : ""}.`,
    };
  },
};
