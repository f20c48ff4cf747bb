import { nameInKey } from "../../pitch/key";
import { mod, typeset } from "../../pitch/pitch";
import { bassPc, chordPitchClasses, rootPc } from "../../chord/chord";
import { bassMove, isDiminished, isFullyDiminished, neighbor } from "../context";
import type { Recognizer } from "./types";

const sym = typeset;

export const commonToneDiminished: Recognizer = {
  id: "common-tone-diminished",
  title: "Common-tone diminished",
  explanation: "A diminished seventh that keeps the root of the chord after it; its other notes are neighbors that step back into place.",
  source: "Kostka & Payne, Tonal Harmony",
  find(p, i) {
    const { chord } = p.chords[i]!;
    const next = neighbor(p, i, 1)?.chord;
    if (!next || !isFullyDiminished(chord) || isDiminished(next) || !chordPitchClasses(chord).includes(rootPc(next))) return null;
    return {
      function: "chromatic",
      explanation: `Keeps ${sym(next.root)}, the root of ${sym(next.root + next.quality)}, while the other notes step into it as neighbors.`,
    };
  },
};

export const passingDiminished: Recognizer = {
  id: "passing-diminished",
  title: "Passing diminished",
  explanation: "A diminished chord whose bass fills the whole tone between two chords.",
  source: "any harmony textbook",
  find(p, i) {
    const { chord, key } = p.chords[i]!;
    const before = neighbor(p, i, -1)?.chord;
    const next = neighbor(p, i, 1)?.chord;
    if (!before || !next || !isDiminished(chord)) return null;
    const up = bassMove(before, chord) === 1 && bassMove(chord, next) === 1;
    const down = bassMove(before, chord) === 11 && bassMove(chord, next) === 11;
    if (!up && !down) return null;
    const names = [before, chord, next].map((c) => sym(c.bass ?? c.root));
    return {
      function: up ? "dominant" : "chromatic",
      explanation: `Its bass walks by semitones, ${names.join(" – ")}${up ? `, and it is the leading-tone chord of ${sym(nameInKey(mod(bassPc(next), 12), key))}` : ""}.`,
    };
  },
};
