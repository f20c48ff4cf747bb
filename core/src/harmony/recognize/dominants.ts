import { keyName, nameInKey } from "../../pitch/key";
import { mod, typeset } from "../../pitch/pitch";
import { rootPc, type Chord } from "../../chord/chord";
import { diatonicChord, isMinorish, noteOf } from "../../chord/numerals";
import {
  above,
  belongs,
  isDiminished,
  isDominant,
  isHalfDiminished,
  isMinor,
  isSuspended,
  isTonic,
  neighbor,
  rootMove,
  type Progression,
} from "../context";
import type { Recognizer } from "./types";

const name = (chord: Chord, degree: number): string => typeset(noteOf(chord, degree)?.name ?? "");
const sym = (text: string): string => typeset(text);

/** The scale step (0–6) a dominant would lead to, a fifth below its root; null where that is not a usable degree of the key. */
function targetStep(p: Progression, i: number): number | null {
  const { chord, key } = p.chords[i]!;
  const step = key.pcs.indexOf(mod(rootPc(chord) + 5, 12));
  if (step <= 0) return null;
  // Nothing resolves to a diminished triad for good.
  return diatonicChord(key, step).endsWith("dim") ? null : step;
}

/** A half-diminished chord before an applied dominant a fifth below is its ii. */
export function preparesApplied(p: Progression, i: number): boolean {
  const next = neighbor(p, i, 1);
  return (
    next !== undefined &&
    isHalfDiminished(p.chords[i]!.chord) &&
    rootMove(p.chords[i]!.chord, next.chord) === 5 &&
    isDominant(next.chord) &&
    !belongs(next.chord, next.key)
  );
}

const ROMAN = ["I", "II", "III", "IV", "V", "VI", "VII"];
const degreeText = (p: Progression, i: number, step: number): string => {
  const triad = diatonicChord(p.chords[i]!.key, step);
  return triad.endsWith("m") ? ROMAN[step]!.toLowerCase() : ROMAN[step]!;
};

export const suspension: Recognizer = {
  id: "suspension",
  title: "Suspension that resolves",
  explanation: "The fourth (or second) stands in for the third and steps into it when the chord comes without suspension.",
  source: "any harmony textbook",
  find(p, i) {
    const { chord } = p.chords[i]!;
    const next = neighbor(p, i, 1)?.chord;
    if (!isSuspended(chord) || !next || rootPc(next) !== rootPc(chord)) return null;
    const held = noteOf(chord, 4) ?? noteOf(chord, 2)!;
    const third = noteOf(next, 3);
    if (!third) return null;
    return {
      explanation: `${sym(held.name)} is held in place of the third and ${noteOf(chord, 4) ? "falls" : "rises"} to ${sym(third.name)} in ${sym(next.root + next.quality)}.`,
    };
  },
};

export const appliedDominant: Recognizer = {
  id: "applied-dominant",
  title: "Applied dominant",
  explanation: "The dominant of another degree of the key, which it makes sound like a tonic for a moment.",
  source: "any harmony textbook",
  find(p, i) {
    const { chord, key } = p.chords[i]!;
    if (!isDominant(chord, true) || belongs(chord, key)) return null;
    const step = targetStep(p, i);
    const next = neighbor(p, i, 1)?.chord;
    if (step === null) return null;
    const arrives = next !== undefined && rootMove(chord, next) === 5;
    const target = key.scale[step]!;
    const third = noteOf(chord, 3);
    // Without a seventh and without arriving it is some other major chord.
    if (!arrives && !isDominant(chord)) return null;
    if (!arrives && (above(chord, key) === 10 || above(chord, key) === 0) && !isMinorish(key)) return null;
    const lead = third ? `${sym(third.name)} is its third and leads up to ${sym(target)}` : `it hangs before ${sym(target)}`;
    return {
      function: "dominant",
      explanation: `The dominant of ${sym(target)} (V/${degreeText(p, i, step)}): ${lead}.${arrives ? "" : next ? ` Here it moves on to ${sym(next.root + next.quality)} instead.` : ""}`,
    };
  },
};

export const appliedDiminished: Recognizer = {
  id: "applied-diminished",
  title: "Applied diminished",
  explanation: "The leading-tone chord of another degree: its root is a semitone below the chord it leads to.",
  source: "any harmony textbook",
  find(p, i) {
    const { chord, key } = p.chords[i]!;
    const next = neighbor(p, i, 1)?.chord;
    if (!next || !(isDiminished(chord) || isHalfDiminished(chord)) || belongs(chord, key) || rootMove(chord, next) !== 1) return null;
    const step = key.pcs.indexOf(rootPc(next));
    if (step < 0) return null;
    return {
      function: "dominant",
      explanation: `Leading-tone chord of ${sym(next.root)} (vii°/${degreeText(p, i, step)}): ${sym(chord.root)} rises to ${sym(next.root)}, the other notes step into the chord.`,
    };
  },
};

export const appliedTwo: Recognizer = {
  id: "applied-two",
  title: "ii–V of another degree",
  explanation:
    "A minor seventh or half-diminished chord before an applied dominant: together they are ii and V of the degree they lead to.",
  source: "any jazz harmony textbook",
  find(p, i) {
    const { chord, key } = p.chords[i]!;
    const next = neighbor(p, i, 1);
    if (!next || !(isMinor(chord) || isHalfDiminished(chord)) || !isDominant(next.chord) || rootMove(chord, next.chord) !== 5) return null;
    if (belongs(next.chord, key)) return null;
    const target = mod(rootPc(next.chord) + 5, 12);
    const step = key.pcs.indexOf(target);
    const after = neighbor(p, i, 2)?.chord;
    if (step < 0 && !(after && rootPc(after) === target)) return null;
    const goal = after && rootPc(after) === target ? after.root : step >= 0 ? key.scale[step]! : nameInKey(target, key);
    return {
      function: "subdominant",
      explanation: `ii of ${sym(goal)}: with ${sym(next.chord.root + next.chord.quality)} after it, it prepares ${sym(goal)} as ii–V.`,
    };
  },
};

export const dominantTwo: Recognizer = {
  id: "dominant-two",
  title: "Dominant on II",
  explanation:
    "A dominant seventh on the second degree that does not go to V at once: bright, lydian, its raised fourth slides back or on.",
  source: "common practice",
  find(p, i) {
    const { chord, key } = p.chords[i]!;
    const next = neighbor(p, i, 1)?.chord;
    if (
      isMinorish(key) ||
      above(chord, key) !== 2 ||
      !isDominant(chord, true) ||
      !noteOf(chord, 3) ||
      (next && rootMove(chord, next) === 5)
    )
      return null;
    const fourth = key.scale[3]!;
    return {
      function: "subdominant",
      explanation: `Dominant on II: ${name(chord, 3)} brightens ${sym(fourth)} of ${sym(keyName(key))}; it may rise to ${sym(key.scale[4]!)} or slide back to ${sym(fourth)}${next ? `, here into ${sym(next.root + next.quality)}` : ""}.`,
    };
  },
};

export const tritoneSubstitute: Recognizer = {
  id: "tritone-substitute",
  title: "Tritone substitute",
  explanation:
    "A dominant seventh a tritone away from the expected one: the same third and seventh, changed over, and a bass that falls a semitone.",
  source: "any jazz harmony textbook",
  find(p, i) {
    const { chord, key } = p.chords[i]!;
    const next = neighbor(p, i, 1)?.chord;
    if (!next || !isDominant(chord) || !noteOf(chord, 3) || belongs(chord, key) || rootMove(chord, next) !== 11) return null;
    const replaced = nameInKey(mod(rootPc(chord) + 6, 12), key);
    const tritone = [noteOf(chord, 3)!, noteOf(chord, 7)!].map((n) => sym(nameInKey(n.pc, key)));
    return {
      function: "dominant",
      explanation: `Stands for ${sym(replaced)}7: both have ${tritone.join(" and ")}. The bass falls a semitone from ${sym(chord.root)} to ${sym(next.root)}.`,
    };
  },
};

export const backdoor: Recognizer = {
  id: "backdoor",
  title: "Backdoor dominant",
  explanation: "A dominant seventh on bVII that goes to I: it reaches the tonic through the parallel minor instead of through V.",
  source: "any jazz harmony textbook",
  find(p, i) {
    const { chord, key } = p.chords[i]!;
    const next = neighbor(p, i, 1)?.chord;
    if (!next || isMinorish(key) || above(chord, key) !== 10 || !isDominant(chord) || !isTonic(next, key)) return null;
    return {
      function: "dominant",
      explanation: `Backdoor dominant: comes from ${sym(key.tonic)} minor and enters ${sym(key.tonic)} from a tone below; ${name(chord, 7)} falls to ${sym(key.scale[4]!)}${noteOf(chord, 5) ? `, ${name(chord, 5)} to ${sym(key.scale[2]!)}` : ""}.`,
    };
  },
};

export const rootlessDominant: Recognizer = {
  id: "rootless-dominant",
  title: "Dominant without its root",
  explanation:
    "A half-diminished chord on the raised fourth or the seventh degree of major holds third, fifth, seventh and ninth of II or V.",
  source: "common practice",
  find(p, i) {
    const { chord, key } = p.chords[i]!;
    if (isMinorish(key) || !isHalfDiminished(chord) || preparesApplied(p, i)) return null;
    const where = above(chord, key);
    if (where !== 6 && where !== 11) return null;
    const root = key.scale[where === 6 ? 1 : 4]!;
    return {
      function: "dominant",
      explanation: `${sym(root)}9 without its ${sym(root)}: ${name(chord, 1)} ${name(chord, 3)} ${name(chord, 5)} ${name(chord, 7)} are its third, fifth, seventh and ninth. It is also ${sym(noteOf(chord, 3)!.name)}m6 over ${sym(chord.root)}.`,
    };
  },
};

export const augmentedSixth: Recognizer = {
  id: "augmented-sixth",
  title: "Augmented sixth family",
  explanation:
    "bVI with a seventh before V (or I over its fifth): the root falls and the seventh, written as a raised fourth, rises a semitone, both into the dominant's root. Jazz calls the same chord the tritone substitute of II.",
  source: "any harmony textbook",
  find(p, i) {
    const { chord, key } = p.chords[i]!;
    const next = neighbor(p, i, 1)?.chord;
    if (!next || above(chord, key) !== 8 || !isDominant(chord) || !noteOf(chord, 3)) return null;
    const dominant = mod(key.pcs[0]! + 7, 12);
    const intoFive =
      rootPc(next) === dominant || (rootPc(next) === key.pcs[0] && next.bass !== undefined && noteOf(next, 5)?.name === next.bass);
    if (!intoFive) return null;
    const kind = chord.tones.some((t) => t.role === "b5") ? "French" : chord.tones.some((t) => t.degree === 5) ? "German" : "Italian";
    return {
      function: "subdominant",
      explanation: `${kind} augmented sixth: ${sym(chord.root)} falls and ${sym(nameInKey(mod(rootPc(chord) + 10, 12), key))} rises into ${sym(key.scale[4]!)}. Heard in jazz as the tritone substitute of ${sym(key.scale[1]!)}7.`,
    };
  },
};
