import { nth, sure } from "../../base/list";
import {
  mod,
  pitchClass,
  spelledPc,
  parseNote,
  transposeNote,
  type NoteName,
  type PitchClass,
  type Semitones,
} from "../pitch/pitch";

/**
 * One tone of a chord: its degree as the symbol names it (1 3 5 6 7 9 11 13, 2 and 4 in sus chords) and its distance
 * from the root.
 */
export interface ChordTone {
  degree: number;
  alter: number;
  semitones: Semitones;
  /** "R", "b3", "#11" … */
  role: string;
}

export interface Chord {
  root: NoteName;
  /** Quality in canonical spelling, for example "m7b5" or "7(b9,#11)". */
  quality: string;
  /** Root first, then by degree. */
  tones: ChordTone[];
  /** Slash bass, when written. */
  bass?: NoteName;
}

/** Semitones of the unaltered degrees over a root (major scale, minor seventh for a plain 7). */
export const DEGREE: Record<number, Semitones> = { 1: 0, 2: 2, 3: 4, 4: 5, 5: 7, 6: 9, 7: 10, 9: 14, 11: 17, 13: 21 };

export function tone(degree: number, alter = 0): ChordTone {
  const semitones = sure(DEGREE[degree]) + alter;
  // A plain 7 is the minor seventh: shown as b7, and the major seventh as 7.
  const shown = degree === 7 ? alter - 1 : alter;
  const mark = shown < 0 ? "b".repeat(-shown) : "#".repeat(shown);
  return { degree, alter, semitones, role: degree === 1 ? "R" : `${mark}${degree}` };
}

/** Canonical symbol, for example "Ebmaj9", "F#m7b5/A". */
export const chordSymbol = (chord: Chord): string => chord.root + chord.quality + (chord.bass ? `/${chord.bass}` : "");

export const rootPc = (chord: Chord): PitchClass => pitchClass(chord.root);
export const bassPc = (chord: Chord): PitchClass => pitchClass(chord.bass ?? chord.root);

const pcsCache = new WeakMap<Chord, PitchClass[]>();

/** Pitch classes, root first in the order of the tones; a slash bass that is not a chord tone comes last. */
export function chordPitchClasses(chord: Chord): PitchClass[] {
  const known = pcsCache.get(chord);
  if (known) return known;
  const root = rootPc(chord);
  const pcs = chord.tones.map((t) => mod(root + t.semitones, 12));
  const all = [...new Set(chord.bass ? [...pcs, pitchClass(chord.bass)] : pcs)];
  pcsCache.set(chord, all);
  return all;
}

/** Names of intervals that no chord tone claims. */
const OUTSIDE = ["R", "b9", "9", "b3", "3", "11", "#11", "5", "b13", "13", "b7", "7"];

/** What a pitch class is over a chord: a chord tone's role, or the name of the interval from the root. */
export function toneRole(chord: Chord, pc: PitchClass): { role: string; inChord: boolean } {
  const above = mod(pc - rootPc(chord), 12);
  const found = chord.tones.find((t) => t.semitones % 12 === above);
  if (found) return { role: found.role, inChord: true };
  const inChord = chord.bass !== undefined && pitchClass(chord.bass) === pc;
  // Beside a minor third the natural third is called so; beside a major one, the minor third is a raised ninth.
  let role: string;
  if (above === 3 && chord.tones.some((t) => t.role === "3")) role = "#9";
  else if (above === 9 && !chord.tones.some((t) => t.degree === 7)) role = "6";
  else role = nth(OUTSIDE, above);
  return { role, inChord };
}

/** Spelled name of a tone of a chord, by its own letter. */
export const toneName = (chord: Pick<Chord, "root">, t: Pick<ChordTone, "degree" | "semitones">): NoteName =>
  transposeNote(chord.root, t.degree - 1, t.semitones);

/** Spelled name of a pitch class in a chord: the chord's own letter when it is a chord tone, otherwise null. */
export function chordToneName(chord: Chord, pc: PitchClass): NoteName | null {
  if (chord.bass && pitchClass(chord.bass) === pc) return chord.bass;
  const root = sure(parseNote(chord.root));
  const found = chord.tones.find((t) => mod(spelledPc(root) + t.semitones, 12) === pc);
  return found ? toneName(chord, found) : null;
}

/** The chord a number of semitones higher; the letters move as the given spelling of the new root tells. */
export function transposeChord(chord: Chord, move: (note: NoteName) => NoteName): Chord {
  return { ...chord, root: move(chord.root), ...(chord.bass ? { bass: move(chord.bass) } : {}) };
}

/** Tones that may be left out of a voicing without losing the name, most dispensable first. */
export function dispensable(chord: Chord): ChordTone[] {
  const has = (degree: number) => chord.tones.some((t) => t.degree === degree);
  return [
    ...chord.tones.filter((t) => t.degree === 5 && t.alter === 0 && chord.tones.length > 3),
    // Third and eleventh of a dominant clash: common practice leaves out the third.
    ...chord.tones.filter(
      (t) =>
        t.degree === 3 &&
        t.alter === 0 &&
        has(11) &&
        has(7) &&
        chord.tones.some((e) => e.degree === 11 && e.alter === 0),
    ),
    ...chord.tones.filter((t) => (t.degree === 11 || t.degree === 9) && t.alter === 0 && has(13)),
  ];
}
