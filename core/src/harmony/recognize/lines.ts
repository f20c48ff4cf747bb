import { nameInKey } from "../../pitch/key";
import { mod, typeset, type PitchClass } from "../../pitch/pitch";
import { bassPc, chordPitchClasses, rootPc, type Chord } from "../../chord/chord";
import { above, belongs, isDominant, neighbor, type Progression } from "../context";
import type { Recognizer } from "./types";

const sym = typeset;

/** First and last index of the run of neighbors (without going around the loop) in which each pair satisfies a test. */
function runAround(p: Progression, i: number, pair: (a: Chord, b: Chord) => boolean): [number, number] {
  let from = i;
  let to = i;
  while (from > 0 && pair(p.chords[from - 1]!.chord, p.chords[from]!.chord)) from--;
  while (to + 1 < p.chords.length && pair(p.chords[to]!.chord, p.chords[to + 1]!.chord)) to++;
  return [from, to];
}

/** The notes of a chromatic line through chords with common tones: one voice stepping by semitones while the rest stays. */
function chromaticLine(p: Progression, from: number, to: number): PitchClass[] | null {
  for (const direction of [-1, 1]) {
    for (const start of chordPitchClasses(p.chords[from]!.chord)) {
      const line = [start];
      for (let i = from + 1; i <= to; i++) {
        const next = mod(line.at(-1)! + direction, 12);
        const here = chordPitchClasses(p.chords[i]!.chord);
        // The line leaves its last note behind; only the root it starts from goes on sounding under it.
        const stays = here.includes(line.at(-1)!) && !(line.length === 1 && line[0] === rootPc(p.chords[from]!.chord));
        if (!here.includes(next) || stays) break;
        line.push(next);
      }
      if (line.length === to - from + 1) return line;
    }
  }
  return null;
}

export const lineCliche: Recognizer = {
  id: "line-cliche",
  title: "Line cliché",
  explanation: "One voice moves by semitones through a chord that otherwise stays.",
  source: "common practice",
  find(p, i) {
    const triadOf = (c: Chord) => chordPitchClasses({ ...c, tones: c.tones.filter((t) => t.degree === 1 || t.degree === 3) });
    const [from, to] = runAround(p, i, (a, b) => rootPc(a) === rootPc(b) && triadOf(a).every((pc) => chordPitchClasses(b).includes(pc)));
    for (let length = to - from + 1; length >= 3; length--)
      for (let start = Math.max(from, i - length + 1); start <= i && start + length - 1 <= to; start++) {
        const line = chromaticLine(p, start, start + length - 1);
        if (!line) continue;
        const key = p.chords[i]!.key;
        return {
          explanation: `One voice moves by semitones while the chord on ${sym(p.chords[i]!.chord.root)} stays: ${line.map((pc) => sym(nameInKey(pc, key))).join(" – ")}.`,
        };
      }
    return null;
  },
};

export const pedal: Recognizer = {
  id: "pedal",
  title: "Pedal",
  explanation: "The bass holds one note while the chords above it change.",
  source: "any harmony textbook",
  find(p, i) {
    const [from, to] = runAround(p, i, (a, b) => bassPc(a) === bassPc(b));
    const run = p.chords.slice(from, to + 1).map((h) => h.chord);
    if (run.length < 3 || new Set(run.map((c) => rootPc(c))).size < 2) return null;
    const { chord } = p.chords[i]!;
    const bass = chord.bass ?? chord.root;
    const { bass: _, ...upper } = chord;
    const inside = chordPitchClasses(upper).includes(bassPc(chord));
    return {
      explanation: `${sym(bass)} is held in the bass through ${run.length} chords${inside ? "" : `; it does not belong to ${sym(upper.root + upper.quality)} above it`}.`,
    };
  },
};

export const planing: Recognizer = {
  id: "planing",
  title: "Planing",
  explanation: "The same kind of chord slides in parallel; color, not function, leads.",
  source: "any twentieth-century harmony textbook",
  find(p, i) {
    const near = (a: Chord, b: Chord) => {
      const move = mod(rootPc(b) - rootPc(a), 12);
      return a.quality === b.quality && [1, 2, 3, 9, 10, 11].includes(move);
    };
    const [from, to] = runAround(p, i, near);
    const run = p.chords.slice(from, to + 1);
    const foreign = run.filter((h) => !belongs(h.chord, h.key)).length;
    // Plain triads a tone apart (bVI – bVII – I) are heard as borrowed chords, not as a sliding one.
    const plain =
      run[0]!.chord.tones.length < 4 && run.some((h, k) => k > 0 && [2, 10].includes(mod(rootPc(h.chord) - rootPc(run[k - 1]!.chord), 12)));
    if (run.length < 3 || !foreign || plain) return null;
    return {
      function: "chromatic",
      explanation: `One kind of chord slides in parallel: ${run.map((h) => sym(h.chord.root + h.chord.quality)).join(", ")}.`,
    };
  },
};

/** The last word: nothing else fits. */
export const chromatic: Recognizer = {
  id: "chromatic",
  title: "Outside the key",
  explanation: "A chord of color without one of the usual explanations; what counts is how its notes step on.",
  source: "common practice",
  find(p, i) {
    const { chord } = p.chords[i]!;
    const next = neighbor(p, i, 1)?.chord;
    const outside = chordPitchClasses(chord)
      .filter((pc) => !p.chords[i]!.key.pcs.includes(pc))
      .map((pc) => sym(nameInKey(pc, p.chords[i]!.key)));
    const kept = next ? chordPitchClasses(chord).filter((pc) => chordPitchClasses(next).includes(pc)).length : 0;
    if (above(chord, p.chords[i]!.key) === 7 && isDominant(chord))
      return {
        function: "dominant",
        explanation: `The dominant with altered tensions: ${outside.join(" and ")} sharpen${outside.length === 1 ? "s" : ""} its pull and step on by semitones.`,
      };
    return {
      function: "chromatic",
      explanation: `A color of its own: ${outside.join(" and ")} lie${outside.length === 1 ? "s" : ""} outside the key.${next ? ` ${kept ? `${kept === 1 ? "One note" : `${kept} notes`} stay${kept === 1 ? "s" : ""}` : "No note stays"} for ${sym(next.root + next.quality)}.` : ""}`,
    };
  },
};
