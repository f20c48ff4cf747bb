import { keyName, MODES, type Key } from "../../pitch/key";
import {
  mod,
  noteName,
  noteOf,
  parseNote,
  pitchClass,
  pitchMidi,
  pitchName,
  plainName,
  type NoteName,
  type PitchName,
} from "../../pitch/pitch";
import { chordPitchClasses, chordSymbol, rootPc, toneName, type Chord, type ChordTone } from "../../chord/chord";
import { chordOfTones } from "../../chord/parse";
import { chordOf } from "../../chord/progression";
import type { Moving } from "./moving";

/** Semitones of the degrees of a chord without an alteration (a plain seventh is minor). */
const NATURAL: Record<number, number> = { 1: 0, 2: 2, 3: 4, 4: 5, 5: 7, 6: 9, 7: 10, 9: 2, 11: 5, 13: 9 };

/** The degree of a key that a name stands on, by its letter, and how far it is raised or lowered there. */
function degreeOf(name: NoteName, key: Key): { degree: number; alter: number } {
  const degree = mod(parseNote(name)!.step - parseNote(key.tonic)!.step, 7);
  return { degree, alter: mod(pitchClass(name) - key.pcs[degree]! + 6, 12) - 6 };
}

/** A degree of a key by name; plain where it would need three accidentals. */
function named(degree: number, alter: number, key: Key): NoteName {
  const { step, alter: own } = parseNote(key.scale[mod(degree, 7)]!)!;
  const all = own + alter;
  return Math.abs(all) > 2 ? plainName(mod(key.pcs[mod(degree, 7)]! + alter, 12), all < 0) : noteName({ step, alter: all });
}

const above = (key: Key, degree: number): number => MODES[key.mode][degree]!;

/**
 * How a degree is altered in another mode. The raised sixth and seventh of minor are those of major; with `leading`, the seventh of a major key stays a
 * leading tone in a mode whose own lies a whole tone below the tonic.
 */
function alterIn(degree: number, alter: number, from: Key, to: Key, leading: boolean): number {
  const raised = (degree === 5 || degree === 6) && alter === 1 && above(to, degree) === above(from, degree) + 1;
  if (raised) return 0;
  return leading && degree === 6 && alter === 0 && above(from, 6) === 11 && above(to, 6) === 10 ? 1 : alter;
}

/** Whether a chord leads home by its leading tone: the dominant, or the diminished chord on the seventh degree. */
export function isLeading(chord: Chord | null, key: Key): boolean {
  if (!chord) return false;
  const degree = key.pcs.indexOf(rootPc(chord));
  const has = (role: string) => chord.tones.some((t) => t.role === role);
  return (degree === 4 && has("3")) || (degree === 6 && has("b3") && has("b5"));
}

/**
 * What moving degrees does to each kind of name: each goes to the same degree of another key, or so many steps along the scale. Chords of the key become what
 * stands on that degree; chords with notes from outside keep their kind on the moved root.
 */
export function movingDegrees(from: Key, to: Key, steps: number): Moving & { leading(name: NoteName): NoteName } {
  const noteBy =
    (leading: boolean) =>
    (name: NoteName): NoteName => {
      const { degree, alter } = degreeOf(name, from);
      return named(degree + steps, steps ? alter : alterIn(degree, alter, from, to, leading), to);
    };
  const note = noteBy(false);
  // How far all goes on the whole: the nearer way from tonic to tonic, and the steps.
  const tonic = mod(to.pcs[0]! - from.pcs[0]! + 6, 12) - 6;
  const whole = tonic + 12 * Math.floor(steps / 7) + mod(to.pcs[mod(steps, 7)]! - to.pcs[0]!, 12);
  const chordTo = (chord: Chord): Chord => {
    const leads = isLeading(chord, from);
    const move = noteBy(leads);
    const outside = chordPitchClasses(chord).some((pc) => !from.pcs.includes(pc));
    const root = move(chord.root);
    const tones = outside
      ? chord.tones
      : chord.tones.map((t): Pick<ChordTone, "degree" | "alter"> => {
          const semitones = mod(pitchClass(move(toneName(chord, t))) - pitchClass(root), 12);
          return { degree: t.degree, alter: mod(semitones - NATURAL[t.degree]! + 6, 12) - 6 };
        });
    return chordOfTones(root, tones, chord.bass && move(chord.bass));
  };
  return {
    semitones: 0,
    note,
    leading: noteBy(true),
    pitch: (name: PitchName) => pitchTo(name, note(noteOf(name)), whole),
    symbol(text) {
      const chord = chordOf(text);
      return chord ? chordSymbol(chordTo(chord)) : text;
    },
    typed: (text) => text,
    key: () => keyName(to),
  };
}

/** A pitch under its new name, in the octave nearest to where it should come. */
export function pitchTo(name: PitchName, note: NoteName, by: number): PitchName {
  const wanted = pitchMidi(name) + by;
  const pc = pitchClass(note);
  return pitchName(wanted + mod(pc - wanted + 6, 12) - 6, note);
}
