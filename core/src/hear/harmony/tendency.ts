import { firstOf, sure } from "../../base/list";
import { mod, type Midi, type PitchClass } from "../../theory/pitch/pitch";
import type { Key } from "../../theory/pitch/key";
import { chordPitchClasses, rootPc } from "../../theory/chord/chord";
import type { RealizedChord } from "../../song/realize";

/** Upper voices of four are at most an octave apart (Kostka & Payne, Tonal Harmony). */
export const WIDEST_UPPER = 12;

/**
 * The leading tone a chord brings: the third of a major triad or dominant seventh, or the root of a diminished triad, a
 * semitone under a root it can fall to; of the chords of the key, that a semitone under the tonic. Null where it brings
 * none.
 */
export function leadingToneOf(key: Key, chord: RealizedChord | null): PitchClass | null {
  if (!chord?.chord) return null;
  const own = mod(firstOf(key.pcs) - 1, 12);
  const pcs = chordPitchClasses(chord.chord);
  const root = rootPc(chord.chord);
  const dominant = chord.chord.tones.some((t) => t.role === "3") && chord.chord.tones.some((t) => t.role === "b7");
  if (dominant) return mod(root + 4, 12);
  const fifth = mod(firstOf(key.pcs) + 7, 12);
  return pcs.includes(own) && (root === fifth || root === own) ? own : null;
}

/** The seventh of a chord; null where it has none. */
export function seventhOf(chord: RealizedChord | null): PitchClass | null {
  const tone = chord?.chord?.tones.find((t) => t.degree === 7);
  return tone ? mod(rootPc(sure(sure(chord).chord)) + tone.semitones, 12) : null;
}

/**
 * How far a tone that wants to fall by step should have fallen, in semitones, where it does not; null where it does, or
 * where the next chord holds it or lacks the tone below.
 */
export function fallsFrom(from: Midi, to: Midi, tone: PitchClass | null, after: readonly PitchClass[]): 1 | 2 | null {
  const pc = mod(from, 12);
  if (pc !== tone || after.includes(pc) || to === from - 1 || to === from - 2) return null;
  return ([1, 2] as const).find((d) => after.includes(mod(pc - d, 12))) ?? null;
}

/** Whether a leading tone does not rise although the next chord has the tone it leads to, and does not hold it. */
export function risesFrom(from: Midi, to: Midi, leads: PitchClass | null, after: readonly PitchClass[]): boolean {
  const pc = mod(from, 12);
  return pc === leads && after.includes(mod(pc + 1, 12)) && !after.includes(pc) && to !== from + 1;
}
