import { listed } from "../../words";
import { mod, pitchClass, typeset, type PitchClass } from "../../pitch/pitch";
import { bassPc, chordPitchClasses, chordToneName, rootPc, toneName, type Chord } from "../../chord/chord";
import { belongs, isDominant, isMinor, neighbor, type Progression } from "../context";
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
    const triadOf = ({ root, quality, tones }: Chord) =>
      chordPitchClasses({ root, quality, tones: tones.filter((t) => t.degree === 1 || t.degree === 3) });
    const [from, to] = runAround(p, i, (a, b) => rootPc(a) === rootPc(b) && triadOf(a).every((pc) => chordPitchClasses(b).includes(pc)));
    for (let length = to - from + 1; length >= 3; length--)
      for (let start = Math.max(from, i - length + 1); start <= i && start + length - 1 <= to; start++) {
        const line = chromaticLine(p, start, start + length - 1);
        if (!line) continue;
        return {
          explanation: `One voice moves by semitones while the chord on ${sym(p.chords[i]!.chord.root)} stays: ${line.map((pc, k) => sym(chordToneName(p.chords[start + k]!.chord, pc)!)).join(" – ")}.`,
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
    // Back and forth between two is no slide.
    if (run.length < 3 || new Set(run.map((h) => rootPc(h.chord))).size < 3 || !foreign || plain) return null;
    return {
      function: "chromatic",
      explanation: `One kind of chord slides in parallel: ${run.map((h) => sym(h.chord.root + h.chord.quality)).join(", ")}.`,
    };
  },
};

/** A ii–V in the middle of others that slide by semitones: minor seventh and the dominant a fifth below it. */
function isTwoFive(p: Progression, i: number): boolean {
  const [two, five] = [p.chords[i]?.chord, p.chords[i + 1]?.chord];
  return two !== undefined && five !== undefined && isMinor(two) && isDominant(five) && mod(rootPc(five) - rootPc(two), 12) === 5;
}

export const slidingTwoFive: Recognizer = {
  id: "sliding-two-five",
  title: "Sliding ii–V",
  explanation: "Pairs of ii and V that slide by semitones, each the last one shifted, until one of them belongs to the key.",
  source: "any jazz harmony textbook",
  find(p, i) {
    const { chord, key } = p.chords[i]!;
    if (belongs(chord, key)) return null;
    const at = isTwoFive(p, i) ? i : isTwoFive(p, i - 1) ? i - 1 : -1;
    if (at < 0) return null;
    const shift = (other: number) => (isTwoFive(p, other) ? mod(rootPc(p.chords[other]!.chord) - rootPc(p.chords[at]!.chord), 12) : 0);
    const pairs = [at - 2, at, at + 2].filter((other) => other === at || [1, 11].includes(shift(other)));
    if (pairs.length < 2) return null;
    const names = pairs.map((other) =>
      [0, 1]
        .map((k) => p.chords[other + k]!.chord)
        .map((c) => sym(c.root + c.quality))
        .join(" "),
    );
    return { function: "chromatic", explanation: `ii and V slide by a semitone: ${names.join(", ")}.` };
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
    const outside = [...chord.tones.map((t) => toneName(chord, t)), ...(chord.bass ? [chord.bass] : [])]
      .filter((n, at, all) => !p.chords[i]!.key.pcs.includes(pitchClass(n)) && all.indexOf(n) === at)
      .map(sym);
    const kept = next ? chordPitchClasses(chord).filter((pc) => chordPitchClasses(next).includes(pc)).length : 0;
    return {
      function: "chromatic",
      explanation: `A color of its own: ${listed(outside)} lie${outside.length === 1 ? "s" : ""} outside the key.${next ? ` ${kept ? `${kept === 1 ? "One note" : `${kept} notes`} stay${kept === 1 ? "s" : ""}` : "No note stays"} for ${sym(next.root + next.quality)}.` : ""}`,
    };
  },
};
