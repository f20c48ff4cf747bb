import { nth } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";

/** MIDI note number, 0–127; 60 is C4 and 69 is A4 (MIDI 1.0). */
export type Midi = number;
/** 0 = C … 11 = B. */
export type PitchClass = number;
export type Semitones = number;
export type Hertz = number;
/** A spelled sounding pitch, for example "Eb4". */
export type PitchName = string;
/** A spelled note without octave, for example "Eb". */
export type NoteName = string;

const LETTERS = ["C", "D", "E", "F", "G", "A", "B"] as const;
const NATURAL: readonly number[] = [0, 2, 4, 5, 7, 9, 11];

/** A spelled note: letter step 0–6 from C, alteration in semitones (−2 to 2). */
export interface Spelled {
  step: number;
  alter: number;
}

export const mod = (n: number, m: number): number => ((n % m) + m) % m;

/** Reads "Eb", "F#", "B♭", "Cx"; null when the text is not a note name. */
export function parseNote(text: string): Spelled | null {
  const match = /^([A-Ga-g])(bb|b|##|x|#|♭♭|♭|♯♯|♯)?$/.exec(text);
  if (!match) return null;
  const step = LETTERS.indexOf(nth(match, 1).toUpperCase() as (typeof LETTERS)[number]);
  const marks = (match[2] ?? "").replace(/♭/g, "b").replace(/♯/g, "#").replace("x", "##");
  return { step, alter: marks.startsWith("b") ? -marks.length : marks.length };
}

export const noteName = ({ step, alter }: Spelled): NoteName =>
  nth(LETTERS, mod(step, 7)) + (alter < 0 ? "b".repeat(-alter) : "#".repeat(alter));

export const spelledPc = ({ step, alter }: Spelled): PitchClass => mod(nth(NATURAL, mod(step, 7)) + alter, 12);

/** Pitch class of a note name that is known to be good. */
export function pitchClass(name: NoteName): PitchClass {
  const known = classes.get(name);
  if (known !== undefined) return known;
  const note = parseNote(name);
  if (!note) throw new Error(`"${name}" is not a note name`);
  const pc = spelledPc(note);
  // Names are few; a song full of wrong ones has failed before.
  if (classes.size < 500) classes.set(name, pc);
  return pc;
}

const classes = new Map<NoteName, PitchClass>();

const PITCH = /^([A-G](?:bb|b|##|x|#)?)(-?\d+)$/;

/** MIDI number of a spelled pitch: "C4" → 60, "B#3" → 60, "Cb4" → 59. */
export function parsePitch(text: string): Result<Midi> {
  const match = PITCH.exec(text);
  const note = match && parseNote(nth(match, 1));
  if (!match || !note)
    return fail("pitch.unknown", `"${text}" is not a pitch`, {
      hint: "Write a letter, an accidental and an octave: Eb4.",
    });
  const midi = 12 * (Number(match[2]) + 1) + nth(NATURAL, note.step) + note.alter;
  if (midi < 0 || midi > 127) return fail("pitch.range", `"${text}" lies outside the MIDI range C-1 to G9`);
  return ok(midi);
}

/** The note of a pitch, without its octave: "Eb4" → "Eb". */
export const noteOf = (pitch: PitchName): NoteName => pitch.replace(/-?\d+$/, "");

const midiCache = new Map<PitchName, Midi>();

/** MIDI number of a pitch that is known to be good. */
export function pitchMidi(name: PitchName): Midi {
  const known = midiCache.get(name);
  if (known !== undefined) return known;
  const result = parsePitch(name);
  if (!result.ok) throw new Error(result.error.message);
  midiCache.set(name, result.value);
  return result.value;
}

/** Equal temperament, A4 = 440 Hz (ISO 16:1975): f = 440·2^((n−69)/12). */
export const midiFrequency = (midi: number): Hertz => 440 * 2 ** ((midi - 69) / 12);

/** The spelled pitch for a MIDI number, given the note name wanted for its pitch class. */
export function pitchName(midi: Midi, name: NoteName): PitchName {
  const note = parseNote(name);
  if (!note) throw new Error(`"${name}" is not a note name`);
  const octave = Math.round((midi - nth(NATURAL, note.step) - note.alter) / 12) - 1;
  return name + octave;
}

const SHARPS = ["C", "C#", "D", "D#", "E", "F", "F#", "G", "G#", "A", "A#", "B"];
const FLATS = ["C", "Db", "D", "Eb", "E", "F", "Gb", "G", "Ab", "A", "Bb", "B"];

export const plainName = (pc: PitchClass, flats: boolean): NoteName => nth(flats ? FLATS : SHARPS, mod(pc, 12));

/**
 * The note a given number of letters and semitones above another: transposeNote("Eb", 2, 4) → "G".
 * Falls back to a plain name where the exact spelling would need more than two accidentals.
 */
export function transposeNote(name: NoteName, letters: number, semitones: Semitones): NoteName {
  const note = parseNote(name);
  if (!note) throw new Error(`"${name}" is not a note name`);
  const step = mod(note.step + letters, 7);
  const target = mod(spelledPc(note) + semitones, 12);
  const alter = mod(target - nth(NATURAL, step) + 6, 12) - 6;
  return Math.abs(alter) > 2 ? plainName(target, note.alter < 0) : noteName({ step, alter });
}

/** Typeset accidentals: "Eb" → "E♭". */
export const typeset = (text: string): string =>
  text
    .replace(/bb/g, "𝄫")
    .replace(/b/g, "♭")
    .replace(/##|(?<=[A-G])x/g, "𝄪")
    .replace(/#/g, "♯");

/** Typeset accidentals of the note names and chord roots inside a sentence: "Ab1 over Ebmaj7" → "A♭1 over E♭maj7". */
export const typesetNames = (text: string): string =>
  text.replace(
    /(^|[\s(–\/"“])([A-G])(bb|b|##|#)(?=[\d\s,.:;)–\/"”]|$|m|M|sus|dim|aug)/g,
    (_, before: string, letter: string, marks: string) => before + letter + typeset(marks),
  );

/** "Eb4" → "E flat 4", for screen readers. */
export const spoken = (name: string): string =>
  name.replace(
    /^([A-G])(bb|b|##|x|#)?(-?\d+)?$/,
    (_, letter: string, mark: string | undefined, octave: string | undefined) =>
      [
        letter,
        { b: "flat", bb: "double flat", "#": "sharp", "##": "double sharp", x: "double sharp" }[mark ?? ""],
        octave,
      ]
        .filter(Boolean)
        .join(" "),
  );
