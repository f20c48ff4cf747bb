import { nth, sure } from "../../base/list";
import { nameInKey, type Key } from "../../theory/pitch/key";
import { mod, pitchClass, transposeNote, typeset, type NoteName, type PitchClass } from "../../theory/pitch/pitch";
import { chordToneName, rootPc, type Chord } from "../../theory/chord/chord";

/**
 * Scales that fit over chords, by semitones above the root; modes of major, melodic and harmonic minor, and the
 * symmetrical ones.
 */
export const SCALES: { name: string; steps: number[]; letters?: number[] }[] = [
  { name: "major (ionian)", steps: [0, 2, 4, 5, 7, 9, 11] },
  { name: "dorian", steps: [0, 2, 3, 5, 7, 9, 10] },
  { name: "mixolydian", steps: [0, 2, 4, 5, 7, 9, 10] },
  { name: "minor (aeolian)", steps: [0, 2, 3, 5, 7, 8, 10] },
  { name: "lydian", steps: [0, 2, 4, 6, 7, 9, 11] },
  { name: "phrygian", steps: [0, 1, 3, 5, 7, 8, 10] },
  { name: "locrian", steps: [0, 1, 3, 5, 6, 8, 10] },
  { name: "harmonic minor", steps: [0, 2, 3, 5, 7, 8, 11] },
  { name: "melodic minor", steps: [0, 2, 3, 5, 7, 9, 11] },
  { name: "phrygian dominant", steps: [0, 1, 4, 5, 7, 8, 10] },
  { name: "lydian dominant", steps: [0, 2, 4, 6, 7, 9, 10] },
  { name: "mixolydian b6", steps: [0, 2, 4, 5, 7, 8, 10] },
  { name: "locrian natural 2", steps: [0, 2, 3, 5, 6, 8, 10] },
  { name: "altered", steps: [0, 1, 3, 4, 6, 8, 10], letters: [0, 1, 1, 2, 4, 5, 6] },
  { name: "lydian augmented", steps: [0, 2, 4, 6, 8, 9, 11] },
  { name: "half-whole diminished", steps: [0, 1, 3, 4, 6, 7, 9, 10], letters: [0, 1, 1, 2, 3, 4, 5, 6] },
  { name: "whole-half diminished", steps: [0, 2, 3, 5, 6, 8, 9, 11], letters: [0, 1, 2, 3, 4, 5, 6, 6] },
  { name: "whole tone", steps: [0, 2, 4, 6, 8, 10], letters: [0, 1, 2, 3, 4, 6] },
];

export interface FittingScale {
  name: string;
  notes: NoteName[];
  /** Notes of the scale outside the key. */
  outside: NoteName[];
}

/**
 * Scales that contain every tone of the chord, those with the fewest notes outside the key first; among equals in the
 * order of `SCALES`.
 */
export function fittingScales(chord: Chord, key: Key): FittingScale[] {
  const root = rootPc(chord);
  return SCALES.filter((s) => chord.tones.every((t) => s.steps.includes(t.semitones % 12)))
    .map((s) => {
      const notes = s.steps.map((step, i) => {
        const pc = mod(root + step, 12);
        return (
          chordToneName(chord, pc) ??
          (key.pcs.includes(pc)
            ? nameInKey(pc, key)
            : transposeNote(chord.root, nth(s.letters ?? [0, 1, 2, 3, 4, 5, 6], i), step))
        );
      });
      return { name: s.name, notes, outside: notes.filter((n) => !key.pcs.includes(pitchClass(n))) };
    })
    .sort((a, b) => strangeness(a) - strangeness(b));

  // A dominant whose root is foreign (tritone substitute, backdoor) is colored as lydian dominant (common practice).
  function strangeness(s: FittingScale): number {
    return s.outside.length - (s.name === "lydian dominant" && !key.pcs.includes(root) ? 2 : 0);
  }
}

export interface Tension {
  note: NoteName;
  pc: PitchClass;
  /** "9", "#11", "b13" … */
  role: string;
  inKey: boolean;
  available: boolean;
  /** The rule behind it, in words. */
  rule: string;
}

const ROLE = ["R", "b9", "9", "#9", "3", "11", "#11", "5", "b13", "13", "b7", "7"];

/**
 * The notes of the best fitting scale that the chord does not contain: tensions, and notes to avoid. The rule is the
 * usual one of jazz teaching (common practice): a note a semitone above a chord tone contradicts it; over dominants b9,
 * #9 and b13 are wanted colors, and only the fourth clashes with the third.
 */
export function tensions(chord: Chord, key: Key): Tension[] {
  const root = rootPc(chord);
  const pcs = chord.tones.map((t) => mod(root + t.semitones, 12));
  const dominant = chord.tones.some((t) => t.role === "3") && chord.tones.some((t) => t.role === "b7");
  const [scale] = fittingScales(chord, key);
  if (!scale) return [];
  return scale.notes
    .map((note): Tension | null => {
      const pc = pitchClass(note);
      if (pcs.includes(pc)) return null;
      const above = mod(pc - root, 12);
      const under = chord.tones.find((t) => mod(root + t.semitones + 1, 12) === pc);
      const minorThird = chord.tones.some((t) => t.role === "b3");
      let role: string;
      if (above === 3 && !minorThird) role = "#9";
      else if (above === 9 && !chord.tones.some((t) => t.degree === 7)) role = "6";
      else role = nth(ROLE, above);
      const inKey = key.pcs.includes(pc);
      const base = { note, pc, role, inKey };
      if (under && !(dominant && [1, 3, 6, 8].includes(above)))
        return {
          ...base,
          available: false,
          rule:
            `${typeset(note)} lies a semitone above ${typeset(sure(chordToneName(chord, mod(pc - 1, 12))))}, ` +
            `${TONE[under.role] ?? `the ${under.role}`}: short or passing only`,
        };
      return {
        ...base,
        available: true,
        rule: under
          ? `${typeset(note)} clashes on purpose: over a dominant it wants to fall or rise into the next chord`
          : `${typeset(note)} lies a whole tone or more above the chord tone below it`,
      };
    })
    .filter((t): t is Tension => t !== null)
    .sort((a, b) => Number(b.available) - Number(a.available));
}

const TONE: Record<string, string> = {
  R: "the root",
  "3": "the third",
  b3: "the third",
  "5": "the fifth",
  "7": "the seventh",
  b7: "the seventh",
  b5: "the fifth",
};
