import { nth } from "../../../base/list";
import type { Key } from "../../../theory/pitch/key";
import { typeset } from "../../../theory/pitch/pitch";
import { chordPitchClasses, rootPc, type Chord } from "../../../theory/chord/chord";
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

/** The one on the lowered third falls into ii, whatever comes before it. */
const fallsIntoTwo = (chord: Chord, next: Chord, key: Key): boolean =>
  above(chord, key) === 3 && above(next, key) === 2;

export const passingDiminished: Recognizer = {
  id: "passing-diminished",
  title: "Passing diminished",
  explanation: "A diminished chord whose bass fills the whole tone between two chords.",
  source: "any harmony textbook",
  find(p, i) {
    const { chord, key } = nth(p.chords, i);
    const [before, next] = [earlier(p, i), onward(p, i)].map((h) => h?.chord);
    if (!next || !isDiminished(chord)) return null;
    const came = before && bassMove(before, chord);
    const goes = bassMove(chord, next);
    const up = came === 1 && goes === 1;
    const down = goes === 11 && (came === 11 || fallsIntoTwo(chord, next, key));
    if (!up && !down) return null;
    const walks = before && (came === 1 || came === 11) ? [before, chord, next] : [chord, next];
    const bassOf = (c: Chord) => sym(c.bass ?? c.root);
    const leads = up ? `, and it is the leading-tone chord of ${bassOf(next)}` : "";
    return {
      function: up ? "dominant" : "chromatic",
      explanation: `Its bass walks by semitones, ${walks.map(bassOf).join(" – ")}${leads}.`,
    };
  },
};
