import { firstOf, nth, sure } from "../../../base/list";
import { nameInKey, type Key } from "../../../theory/pitch/key";
import { mod, pitchClass, transposeNote, typeset, type NoteName } from "../../../theory/pitch/pitch";
import { rootPc, type Chord } from "../../../theory/chord/chord";
import { isMinorish, memberOf } from "../../../theory/chord/numerals";
import { LEADS, targetOf } from "../target";
import {
  above,
  belongs,
  isAugmented,
  isDiminished,
  isDominant,
  isHalfDiminished,
  isMinor,
  isSuspended,
  indexOnward,
  isTonic,
  neighbor,
  onward,
  rootMove,
} from "../context";
import { blues, raisedSixth } from "./idioms";
import { preparesApplied } from "./prepares";
import type { Recognizer } from "./types";

const name = (chord: Chord, degree: number): string => typeset(memberOf(chord, degree)?.name ?? "");
const sym = (text: string): string => typeset(text);

export const suspension: Recognizer = {
  id: "suspension",
  title: "Suspension that resolves",
  explanation:
    "The fourth (or second) stands in for the third and steps into it when the chord comes without suspension.",
  source: "any harmony textbook",
  find(p, i) {
    const { chord } = nth(p.chords, i);
    const next = neighbor(p, i, 1)?.chord;
    if (!isSuspended(chord) || !next || rootPc(next) !== rootPc(chord)) return null;
    const held = memberOf(chord, 4) ?? sure(memberOf(chord, 2));
    const third = memberOf(next, 3);
    if (!third) return null;
    return {
      explanation:
        `${sym(held.name)} is held in place of the third and ${memberOf(chord, 4) ? "falls" : "rises"} to ` +
        `${sym(third.name)} in ${sym(next.root + next.quality)}.`,
    };
  },
};

/** Whether a dominant is heard as one of its target, and not as a chord of the key or some other major chord. */
function leadsAway(chord: Chord, key: Key, { arrives, root }: { arrives: boolean; root: NoteName }): boolean {
  const step = key.pcs.indexOf(pitchClass(root));
  const seventh = isDominant(chord);
  // The seventh on VII of minor is the dominant of the relative major where that comes.
  if (belongs(chord, key)) return isMinorish(key) && arrives && step === 2 && seventh;
  if (arrives) return seventh || step >= 0; // A degree outside the key must be reached by a seventh.
  return seventh && (isMinorish(key) || ![0, 10].includes(above(chord, key)));
}

export const appliedDominant: Recognizer = {
  id: "applied-dominant",
  title: "Applied dominant",
  explanation: "The dominant of another degree of the key, which it makes sound like a tonic for a moment.",
  source: "any harmony textbook",
  find(p, i) {
    const { chord, key } = nth(p.chords, i);
    const target = targetOf(p, i, LEADS.dominant);
    // An augmented triad straight before its goal is a dominant with a raised fifth.
    const beside = neighbor(p, i, 1)?.chord;
    const raised = isAugmented(chord) && beside !== undefined && rootMove(chord, beside) === LEADS.dominant;
    if (!target || !(isDominant(chord, true) || raised) || !leadsAway(chord, key, target)) return null;
    const { arrives, root } = target;
    const third = memberOf(chord, 3);
    const next = onward(p, i)?.chord;
    const lead = third
      ? `${sym(third.name)} is its third and leads up to ${sym(root)}`
      : `it hangs before ${sym(root)}`;
    const movesOn = () => {
      if (arrives) return "";
      if (next) return ` Here it moves on to ${sym(next.root + next.quality)} instead.`;
      return "";
    };
    return {
      function: "dominant",
      explanation: `The dominant of ${sym(root)} (V/${sym(target.degree)}): ${lead}.${movesOn()}`,
    };
  },
};

export const appliedDiminished: Recognizer = {
  id: "applied-diminished",
  title: "Applied diminished",
  explanation: "The leading-tone chord of another degree: its root is a semitone below the chord it leads to.",
  source: "any harmony textbook",
  find(p, i) {
    const { chord, key } = nth(p.chords, i);
    const next = onward(p, i)?.chord;
    if (!next || !(isDiminished(chord) || isHalfDiminished(chord)) || belongs(chord, key)) return null;
    const target = targetOf(p, i, LEADS.diminished);
    if (!target?.arrives) return null;
    return {
      function: "dominant",
      explanation:
        `Leading-tone chord of ${sym(next.root)} (vii°/${sym(target.degree)}): ${sym(chord.root)} rises to ` +
        `${sym(next.root)}, the other notes step into the chord.`,
    };
  },
};

export const appliedTwo: Recognizer = {
  id: "applied-two",
  title: "ii–V of another degree",
  explanation:
    "A minor seventh or half-diminished chord before an applied dominant: together they are ii and V of the " +
    "degree they lead to.",
  source: "any jazz harmony textbook",
  find(p, i) {
    const { chord, key } = nth(p.chords, i);
    const at = indexOnward(p, i);
    const next = p.chords[at];
    if (
      !next ||
      !(isMinor(chord) || isHalfDiminished(chord)) ||
      !isDominant(next.chord) ||
      rootMove(chord, next.chord) !== 5
    )
      return null;
    if (belongs(next.chord, key) || raisedSixth.find(p, at) || blues.find(p, at)) return null;
    const after = onward(p, at)?.chord;
    const dominant = sym(next.chord.root + next.chord.quality);
    if (after && rootMove(next.chord, after) === 11)
      return {
        function: "subdominant",
        explanation:
          `Goes before the substitute ${dominant} as its ii; together they stand for the ii–V of ` +
          `${sym(after.root)}.`,
      };
    const target = targetOf(p, i, LEADS.two, after);
    if (!target) return null;
    return {
      function: "subdominant",
      explanation: `ii of ${sym(target.root)}: with ${dominant} after it, it prepares ${sym(target.root)} as ii–V.`,
    };
  },
};

export const dominantTwo: Recognizer = {
  id: "dominant-two",
  title: "Dominant on II",
  explanation:
    "A dominant seventh on the second degree that does not go to V at once: bright, lydian, its raised fourth " +
    "slides back or on.",
  source: "common practice",
  find(p, i) {
    const { chord, key } = nth(p.chords, i);
    const next = onward(p, i)?.chord;
    if (
      isMinorish(key) ||
      belongs(chord, key) ||
      above(chord, key) !== 2 ||
      !isDominant(chord, true) ||
      !memberOf(chord, 3) ||
      // Where nothing comes it waits for V.
      !next ||
      rootMove(chord, next) === 5
    )
      return null;
    const fourth = nth(key.scale, 3);
    return {
      function: "subdominant",
      explanation:
        `Dominant on II: ${name(chord, 3)} brightens ${sym(fourth)} of ${sym(key.tonic)} ${key.mode}; it may ` +
        `rise to ${sym(nth(key.scale, 4))} or slide back to ${sym(fourth)}, here into ` +
        `${sym(next.root + next.quality)}.`,
    };
  },
};

export const tritoneSubstitute: Recognizer = {
  id: "tritone-substitute",
  title: "Tritone substitute",
  explanation:
    "A dominant seventh a tritone away from the expected one: the same third and seventh, changed over, and a " +
    "bass that falls a semitone.",
  source: "any jazz harmony textbook",
  find(p, i) {
    const { chord, key } = nth(p.chords, i);
    const next = onward(p, i)?.chord;
    if (!next || !isDominant(chord) || !memberOf(chord, 3) || belongs(chord, key) || rootMove(chord, next) !== 11)
      return null;
    const replaced = nameInKey(mod(rootPc(chord) + 6, 12), key);
    const tritone = [name(chord, 3), name(chord, 7)];
    return {
      function: "dominant",
      explanation:
        `Stands for ${sym(replaced)}7: both have ${tritone.join(" and ")}. The bass falls a semitone from ` +
        `${sym(chord.root)} to ${sym(next.root)}.`,
    };
  },
};

export const backdoor: Recognizer = {
  id: "backdoor",
  title: "Backdoor dominant",
  explanation:
    "A dominant seventh on bVII that goes to I: it reaches the tonic through the parallel minor instead of through V.",
  source: "any jazz harmony textbook",
  find(p, i) {
    const { chord, key } = nth(p.chords, i);
    const next = onward(p, i)?.chord;
    if (
      !next ||
      isMinorish(key) ||
      belongs(chord, key) ||
      above(chord, key) !== 10 ||
      !isDominant(chord) ||
      !isTonic(next, key)
    )
      return null;
    return {
      function: "dominant",
      explanation:
        `Backdoor dominant: comes from ${sym(key.tonic)} minor and enters ${sym(key.tonic)} from a tone below; ` +
        `${name(chord, 7)} falls to ` +
        `${sym(nth(key.scale, 4))}${memberOf(chord, 5) ? `, ${name(chord, 5)} to ${sym(nth(key.scale, 2))}` : ""}.`,
    };
  },
};

export const rootlessDominant: Recognizer = {
  id: "rootless-dominant",
  title: "Dominant without its root",
  explanation:
    "A half-diminished chord on the raised fourth or the seventh degree of major holds third, fifth, seventh " +
    "and ninth of II or V.",
  source: "common practice",
  find(p, i) {
    const { chord, key } = nth(p.chords, i);
    if (
      isMinorish(key) ||
      (key.mode !== "major" && belongs(chord, key)) ||
      !isHalfDiminished(chord) ||
      preparesApplied(p, i)
    )
      return null;
    const where = above(chord, key);
    if (where !== 6 && where !== 11) return null;
    const root = nth(key.scale, where === 6 ? 1 : 4);
    return {
      function: "dominant",
      explanation:
        `${sym(root)}9 without its ${sym(root)}: ${name(chord, 1)} ${name(chord, 3)} ${name(chord, 5)} ` +
        `${name(chord, 7)} are its third, fifth, seventh and ninth. It is also ` +
        `${sym(sure(memberOf(chord, 3)).name)}m6 over ${sym(chord.root)}.`,
    };
  },
};

export const augmentedSixth: Recognizer = {
  id: "augmented-sixth",
  title: "Augmented sixth family",
  explanation:
    "bVI with a seventh before V (or I over its fifth): the root falls and the seventh, written as a raised " +
    "fourth, rises a semitone, both into the dominant's root. Jazz calls the same chord the tritone substitute " +
    "of II.",
  source: "any harmony textbook",
  find(p, i) {
    const { chord, key } = nth(p.chords, i);
    const next = onward(p, i)?.chord;
    if (!next || above(chord, key) !== 8 || !isDominant(chord) || !memberOf(chord, 3)) return null;
    const dominant = mod(firstOf(key.pcs) + 7, 12);
    const intoFive =
      rootPc(next) === dominant ||
      (rootPc(next) === key.pcs[0] && next.bass !== undefined && memberOf(next, 5)?.name === next.bass);
    if (!intoFive) return null;
    let kind: "French" | "German" | "Italian";
    if (chord.tones.some((t) => t.role === "b5")) kind = "French";
    else if (chord.tones.some((t) => t.degree === 5)) kind = "German";
    else kind = "Italian";
    return {
      function: "subdominant",
      explanation:
        `${kind} augmented sixth: ${sym(chord.root)} falls to ${sym(nth(key.scale, 4))} and its seventh ` +
        `${name(chord, 7)}, heard as ${sym(transposeNote(key.tonic, 3, 6))}, rises to it. Heard in jazz as the ` +
        `tritone substitute of ${sym(transposeNote(key.tonic, 1, 2))}7.`,
    };
  },
};
