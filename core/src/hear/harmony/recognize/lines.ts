import { firstOf, lastOf, nth, sure } from "../../../base/list";
import { listed } from "../../../theory/words/english";
import { mod, pitchClass, typeset, type PitchClass } from "../../../theory/pitch/pitch";
import { bassPc, chordPitchClasses, chordToneName, rootPc, toneName, type Chord } from "../../../theory/chord/chord";
import { belongs, isDominant, isMajor, isMinor, neighbor, rootMove, shares, type Progression } from "../context";
import type { Recognizer } from "./types";

const sym = typeset;

/** First and last index of the run of neighbors (without going around the loop) in which each pair satisfies a test. */
function runAround(p: Progression, i: number, pair: (a: Chord, b: Chord) => boolean): [number, number] {
  let from = i;
  let to = i;
  while (from > 0 && pair(nth(p.chords, from - 1).chord, nth(p.chords, from).chord)) from--;
  while (to + 1 < p.chords.length && pair(nth(p.chords, to).chord, nth(p.chords, to + 1).chord)) to++;
  return [from, to];
}

/**
 * The notes of a chromatic line through chords with common tones: one voice stepping by semitones while the rest stays.
 */
function chromaticLine(p: Progression, from: number, to: number): PitchClass[] | null {
  for (const direction of [-1, 1]) {
    for (const start of chordPitchClasses(nth(p.chords, from).chord)) {
      const line = [start];
      for (let i = from + 1; i <= to; i++) {
        const next = mod(lastOf(line) + direction, 12);
        const here = chordPitchClasses(nth(p.chords, i).chord);
        // The line leaves its last note behind; only the root or fifth it starts from goes on sounding under it.
        const held = [0, 7].map((above) => mod(rootPc(nth(p.chords, from).chord) + above, 12));
        const stays = here.includes(lastOf(line)) && !(line.length === 1 && held.includes(firstOf(line)));
        if (!here.includes(next) || stays) break;
        line.push(next);
      }
      if (line.length === to - from + 1) return line;
    }
  }
  return null;
}

/** The longest chromatic line through a chord within a run, of at least so many chords. */
function lineIn(
  p: Progression,
  i: number,
  [from, to]: [number, number],
  least: number,
): { from: number; pcs: PitchClass[] } | null {
  for (let length = Math.min(LONGEST_LINE, to - from + 1); length >= least; length--)
    for (let start = Math.max(from, i - length + 1); start <= i && start + length - 1 <= to; start++) {
      const pcs = chromaticLine(p, start, start + length - 1);
      if (pcs) return { from: start, pcs };
    }
  return null;
}
const LONGEST_LINE = 8;

export const lineCliche: Recognizer = {
  id: "line-cliche",
  title: "Line cliché",
  explanation: "One voice moves by semitones through a chord that otherwise stays.",
  source: "common practice",
  find(p, i) {
    const triadOf = ({ root, quality, tones }: Chord) =>
      chordPitchClasses({ root, quality, tones: tones.filter((t) => t.degree === 1 || t.degree === 3) });
    const one = runAround(
      p,
      i,
      (a, b) => rootPc(a) === rootPc(b) && triadOf(a).every((pc) => chordPitchClasses(b).includes(pc)),
    );
    const line = lineIn(p, i, one, 3);
    const names = (from: number, pcs: PitchClass[]) =>
      pcs.map((pc, k) => sym(sure(chordToneName(nth(p.chords, from + k).chord, pc)))).join(" – ");
    if (line)
      return {
        explanation:
          `One voice moves by semitones while the chord on ${sym(nth(p.chords, i).chord.root)} stays: ` +
          `${names(line.from, line.pcs)}.`,
      };
    // Through chords that share all the rest: C, C augmented, Am, C7.
    const two = runAround(p, i, (a, b) => a.bass === undefined && b.bass === undefined && shares(a, b).length >= 2);
    const inner = lineIn(p, i, two, 4);
    if (!inner) return null;
    const run = p.chords.slice(inner.from, inner.from + inner.pcs.length).map((h) => h.chord);
    const common = chordPitchClasses(firstOf(run)).filter((pc) => run.every((c) => chordPitchClasses(c).includes(pc)));
    if (common.length < 2) return null;
    return {
      explanation:
        `An inner voice moves by semitones, ${names(inner.from, inner.pcs)}, while ` +
        `${listed(common.map((pc) => sym(sure(chordToneName(firstOf(run), pc)))))} stay.`,
    };
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
    const { chord } = nth(p.chords, i);
    const bass = chord.bass ?? chord.root;
    const { bass: _, ...upper } = chord;
    const inside = chordPitchClasses(upper).includes(bassPc(chord));
    return {
      explanation:
        `${sym(bass)} is held in the bass through ${run.length} ` +
        `chords${inside ? "" : `; it does not belong to ${sym(upper.root + upper.quality)} above it`}.`,
    };
  },
};

/** The chords that are arrived at: what leads to the next one as its dominant, and repeats, are left out. */
function arrivals(p: Progression): number[] {
  return p.chords.flatMap((h, i) => {
    const next = p.chords[i + 1]?.chord;
    const repeat = next !== undefined && rootPc(next) === rootPc(h.chord);
    const leads = next !== undefined && isDominant(h.chord) && rootMove(h.chord, next) === 5;
    const prepares =
      next !== undefined &&
      p.chords[i + 2] &&
      isDominant(next) &&
      rootMove(next, nth(p.chords, i + 2).chord) === 5 &&
      isMinor(h.chord);
    return repeat || leads || prepares ? [] : [i];
  });
}

export const thirdCycle: Recognizer = {
  id: "third-cycle",
  title: "Cycle of thirds",
  explanation:
    "Chords of one kind go on by the same third and divide the octave equally: three major thirds or four " +
    "minor ones come back to the beginning.",
  source: "Cohn 2012; any jazz harmony textbook",
  find(p, i) {
    if (belongs(nth(p.chords, i).chord, p.home)) return null;
    const stops = arrivals(p);
    const at = stops.indexOf(i);
    if (at < 0) return null;
    const chord = (k: number) => nth(p.chords, nth(stops, k)).chord;
    const kind = (c: Chord) => {
      if (isMajor(c)) return "major";
      if (isMinor(c)) return "minor";
      return null;
    };
    for (const by of [4, 8, 3, 9]) {
      const goes = (k: number) =>
        k >= 0 &&
        k + 1 < stops.length &&
        rootMove(chord(k), chord(k + 1)) === by &&
        kind(chord(k)) !== null &&
        kind(chord(k)) === kind(chord(k + 1));
      let [from, to] = [at, at];
      while (goes(from - 1)) from--;
      while (goes(to)) to++;
      if (to - from < 2) continue;
      const names = stops
        .slice(from, to + 1)
        .map((k) => sym(nth(p.chords, k).chord.root + nth(p.chords, k).chord.quality));
      const size = by === 4 || by === 8 ? "major" : "minor";
      return {
        function: "chromatic",
        explanation:
          `A cycle of ${size} thirds: ${names.join(" – ")}; each is ${by < 6 ? "above" : "below"} the last, and ` +
          `${size === "major" ? "three" : "four"} such steps make the octave.`,
      };
    }
    return null;
  },
};

export const planing: Recognizer = {
  id: "planing",
  title: "Planing",
  explanation: "The same kind of chord slides in parallel; color, not function, leads.",
  source: "any twentieth-century harmony textbook",
  find(p, i) {
    if (belongs(nth(p.chords, i).chord, nth(p.chords, i).key)) return null;
    const near = (a: Chord, b: Chord) => {
      const move = mod(rootPc(b) - rootPc(a), 12);
      return a.quality === b.quality && [1, 2, 3, 9, 10, 11].includes(move);
    };
    const [from, to] = runAround(p, i, near);
    const run = p.chords.slice(from, to + 1);
    const foreign = run.filter((h) => !belongs(h.chord, h.key)).length;
    // Plain triads a tone apart (bVI – bVII – I) are heard as borrowed chords, not as a sliding one.
    const plain =
      firstOf(run).chord.tones.length < 4 &&
      run.some((h, k) => k > 0 && [2, 10].includes(mod(rootPc(h.chord) - rootPc(nth(run, k - 1).chord), 12)));
    // Back and forth between two is no slide.
    if (run.length < 3 || new Set(run.map((h) => rootPc(h.chord))).size < 3 || !foreign || plain) return null;
    return {
      function: "chromatic",
      explanation:
        "One kind of chord slides in parallel: " + `${run.map((h) => sym(h.chord.root + h.chord.quality)).join(", ")}.`,
    };
  },
};

/** A ii–V in the middle of others that slide by semitones: minor seventh and the dominant a fifth below it. */
function isTwoFive(p: Progression, i: number): boolean {
  const [two, five] = [p.chords[i]?.chord, p.chords[i + 1]?.chord];
  return (
    two !== undefined &&
    five !== undefined &&
    isMinor(two) &&
    isDominant(five) &&
    mod(rootPc(five) - rootPc(two), 12) === 5
  );
}

export const slidingTwoFive: Recognizer = {
  id: "sliding-two-five",
  title: "Sliding ii–V",
  explanation:
    "Pairs of ii and V that slide by semitones, each the last one shifted, until one of them belongs to the key.",
  source: "any jazz harmony textbook",
  find(p, i) {
    const { chord, key } = nth(p.chords, i);
    if (belongs(chord, key)) return null;
    let at: number;
    if (isTwoFive(p, i)) at = i;
    else if (isTwoFive(p, i - 1)) at = i - 1;
    else at = -1;
    if (at < 0) return null;
    const shift = (other: number) =>
      isTwoFive(p, other) ? mod(rootPc(nth(p.chords, other).chord) - rootPc(nth(p.chords, at).chord), 12) : 0;
    const pairs = [at - 2, at, at + 2].filter((other) => other === at || [1, 11].includes(shift(other)));
    if (pairs.length < 2) return null;
    const names = pairs.map((other) =>
      [0, 1]
        .map((k) => nth(p.chords, other + k).chord)
        .map((c) => sym(c.root + c.quality))
        .join(" "),
    );
    return { function: "chromatic", explanation: `ii and V slide by a semitone: ${names.join(", ")}.` };
  },
};

/** "No note stays", "One note stays", "3 notes stay". */
const staying = (kept: number): string => {
  if (kept === 0) return "No note stays";
  return kept === 1 ? "One note stays" : `${kept} notes stay`;
};

/** The last word: nothing else fits. */
export const chromatic: Recognizer = {
  id: "chromatic",
  title: "Outside the key",
  explanation: "A chord of color without one of the usual explanations; what counts is how its notes step on.",
  source: "common practice",
  find(p, i) {
    const { chord } = nth(p.chords, i);
    const next = neighbor(p, i, 1)?.chord;
    const outside = [...chord.tones.map((t) => toneName(chord, t)), ...(chord.bass ? [chord.bass] : [])]
      .filter((n, at, all) => !nth(p.chords, i).key.pcs.includes(pitchClass(n)) && all.indexOf(n) === at)
      .map(sym);
    const kept = next ? chordPitchClasses(chord).filter((pc) => chordPitchClasses(next).includes(pc)).length : 0;
    return {
      function: "chromatic",
      explanation:
        `A color of its own: ${listed(outside)} lie${outside.length === 1 ? "s" : ""} outside the key.` +
        (next ? ` ${staying(kept)} for ${sym(next.root + next.quality)}.` : ""),
    };
  },
};
