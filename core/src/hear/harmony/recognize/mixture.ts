import { firstOf, nth, sure } from "../../../base/list";
import { listed } from "../../../theory/words/english";
import { MODES, parseKey, type Key, type Mode } from "../../../theory/pitch/key";
import { mod, pitchClass, transposeNote, typeset } from "../../../theory/pitch/pitch";
import { chordPitchClasses, rootPc, toneName, type Chord } from "../../../theory/chord/chord";
import { isDiatonic, isMinorish, memberOf } from "../../../theory/chord/numerals";
import { above, belongs, isMajor, isMinor, neighbor, rootMove, shares } from "../context";
import { preparesApplied } from "./prepares";
import type { Recognizer } from "./types";

const sym = typeset;
const nameOf = (chord: Chord): string => sym(chord.root + chord.quality);

/** The key's own name of a note outside it, with the note of the scale it alters: "Ab (lowered 6)". */
function altered(chord: Chord, key: Key): string[] {
  return chord.tones
    .map((t) => toneName(chord, t))
    .filter((n) => !key.pcs.includes(pitchClass(n)))
    .map(sym);
}

const PARALLEL: Mode[] = ["minor", "major", "mixolydian", "dorian", "lydian", "phrygian"];

/** The mode on the same tonic that holds the chord, in the order in which songs borrow. */
export function borrowedFrom(chord: Chord, key: Key): Key | null {
  for (const mode of PARALLEL) {
    if (mode === key.mode) continue;
    const parallel = parseKey(`${key.tonic} ${mode}`);
    // A minor key on this tonic may have too many flats to write down; its notes are what counts.
    const pcs = parallel.ok ? parallel.value.pcs : MODES[mode].map((s) => mod(firstOf(key.pcs) + s, 12));
    // The dominant of minor and its leading-tone chord take the raised seventh along.
    const raised = mod(firstOf(key.pcs) + 11, 12);
    const harmonic =
      mode === "minor" && [7, 11].includes(above(chord, key))
        ? [...pcs.filter((pc) => pc !== mod(raised - 1, 12)), raised]
        : pcs;
    if (chordPitchClasses(chord).every((pc) => harmonic.includes(pc)))
      return parallel.ok ? parallel.value : { ...key, mode, pcs };
  }
  return null;
}

export const neapolitan: Recognizer = {
  id: "neapolitan",
  title: "Neapolitan",
  explanation: "The major chord on the lowered second degree, often in first inversion, before the dominant.",
  source: "any harmony textbook",
  find(p, i) {
    const { chord, key } = nth(p.chords, i);
    if (belongs(chord, key) || above(chord, key) !== 1 || !isMajor(chord) || chord.tones.some((t) => t.role === "b7"))
      return null;
    return {
      function: "subdominant",
      explanation:
        `Neapolitan: the major chord on the lowered second degree. ${sym(chord.root)} wants to fall to ` +
        `${sym(key.tonic)} or, before V, on to ${sym(transposeNote(nth(key.scale, 4), 2, 4))}.`,
    };
  },
};

export const borrowed: Recognizer = {
  id: "borrowed",
  title: "Borrowed chord",
  explanation:
    "A chord of another mode on the same tonic, most often of the parallel minor: the color changes, the home " +
    "does not.",
  source: "any harmony textbook (modal mixture)",
  find(p, i) {
    const { chord, key } = nth(p.chords, i);
    if (belongs(chord, key)) return null;
    const from = borrowedFrom(chord, key);
    if (!from) return null;
    const notes = altered(chord, key);
    const where = above(chord, key);
    const leading = mod(firstOf(key.pcs) + 11, 12);
    const functionOf = () => {
      if (where === 0 || where === 3) return "tonic";
      if (where === 7 || where === 10 || where === 11) return "dominant";
      return "subdominant";
    };
    return {
      function: functionOf(),
      explanation:
        from.mode === "minor" && !key.pcs.includes(leading) && chordPitchClasses(chord).includes(leading)
          ? `${where === 7 ? "The dominant" : "A chord"} of ${sym(key.tonic)} minor: ` +
            `${sym(transposeNote(key.tonic, 6, 11))}, its raised seventh, leads up to ${sym(key.tonic)}.`
          : `Borrowed from ${sym(key.tonic)} ${from.mode}: ${listed(notes)} come${notes.length === 1 ? "s" : ""} ` +
            "from there.",
    };
  },
};

export const chromaticMediant: Recognizer = {
  id: "chromatic-mediant",
  title: "Chromatic mediant",
  explanation:
    "A chord of the same kind a third away: one note is kept, the others shift by a semitone or a tone, with " +
    "no dominant pull.",
  source: "Cohn 2012; any harmony textbook",
  find(p, i) {
    const { chord, key } = nth(p.chords, i);
    if (belongs(chord, key)) return null;
    for (const other of [neighbor(p, i, -1)?.chord, neighbor(p, i, 1)?.chord]) {
      if (!other || ![3, 4, 8, 9].includes(rootMove(other, chord))) continue;
      if (!((isMajor(chord) && isMajor(other)) || (isMinor(chord) && isMinor(other)))) continue;
      const kept = shares(chord, other);
      if (!kept.length) continue;
      const common = sure(chord.tones.map((t) => toneName(chord, t)).find((n) => kept.includes(pitchClass(n))));
      return {
        function: "chromatic",
        explanation:
          `A third away from ${nameOf(other)} and of the same kind: ${sym(common)} is kept, ` +
          `${listed(altered(chord, key))} bring${altered(chord, key).length === 1 ? "s" : ""} the new color.`,
      };
    }
    return null;
  },
};

export const diatonic: Recognizer = {
  id: "diatonic",
  title: "In the key",
  explanation: "All its notes belong to the key; in minor the raised seventh of the dominant counts as its own.",
  source: "any harmony textbook",
  find(p, i) {
    const { chord, key } = nth(p.chords, i);
    if (!belongs(chord, key) || preparesApplied(p, i)) return null;
    const home = `${sym(key.tonic)} ${key.mode}`;
    if (!isDiatonic(chord, key)) {
      const raised = sym(transposeNote(key.tonic, 6, 11));
      // Over the tonic it is a color that stays; elsewhere it leads up.
      return above(chord, key) === 0
        ? {
            function: "tonic",
            explanation: `Home with ${raised}, the raised seventh of harmonic or melodic minor: a color that can stay.`,
          }
        : { explanation: `All in ${home} with its raised seventh: ${raised} leads up to ${sym(key.tonic)}.` };
    }
    const step = key.pcs.indexOf(rootPc(chord));
    const mark = MARKS[key.mode];
    if (mark) {
      const [at, what] = mark;
      const note = nth(key.scale, at);
      const has = chordPitchClasses(chord).includes(pitchClass(note));
      const place = step === 0 ? `Home: the chord on ${sym(key.tonic)}.` : `One of the chords of ${home}.`;
      const functionOfStep = () => {
        if (step === 0) return "tonic";
        if ([4, 6].includes(step)) return "dominant";
        return "subdominant";
      };
      return {
        function: functionOfStep(),
        explanation: `${place}${has ? ` ${sym(note)} in it, the ${what}, is what makes the mode.` : ""}`,
      };
    }
    return {
      explanation: nth(DEGREE_WORDS[isMinorish(key) ? "minor" : "major"], step)(
        sym(key.tonic),
        memberOf(chord, 3) ? sym(sure(memberOf(chord, 3)).name) : "",
      ),
    };
  },
};

/** The degree (0–6) by which a mode differs from the major or minor it resembles. */
const MARKS: Partial<Record<Mode, [step: number, what: string]>> = {
  dorian: [5, "raised sixth"],
  phrygian: [1, "lowered second"],
  lydian: [3, "raised fourth"],
  mixolydian: [6, "lowered seventh"],
  locrian: [4, "lowered fifth"],
};

type Words = (tonic: string, third: string) => string;
const DEGREE_WORDS: Record<"major" | "minor", Words[]> = {
  major: [
    (t) => `Home: the chord on ${t}.`,
    () => "Prepares the dominant; two notes of IV are in it.",
    (t) => `Between home and dominant: shares two notes with the chord on ${t} and two with V.`,
    () => "Leads away from home, to V or back to I.",
    (t, third) => (third ? `Wants home: its third ${third} leads up to ${t}.` : `Wants home to ${t}.`),
    (t) => `The relative minor: shares two notes with the chord on ${t} and can stand for it.`,
    (t) => `Leading-tone chord: the upper notes of V7, pulling to ${t}.`,
  ],
  minor: [
    (t) => `Home: the chord on ${t}.`,
    () => "Prepares the dominant.",
    () => "The relative major: the bright side of the key.",
    () => "Leads away from home, to V or back to i.",
    (t) => `The dominant's place without a leading tone: a mild pull to ${t}.`,
    (t) => `Shares two notes with the chord on ${t}; falls to V or climbs to VII.`,
    (t) => `A tone below ${t}: rises home or leads to III.`,
  ],
};
