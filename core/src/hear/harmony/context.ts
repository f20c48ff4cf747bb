import { firstOf, nth } from "../../base/list";
import type { Key } from "../../theory/pitch/key";
import { mod, type PitchClass } from "../../theory/pitch/pitch";
import { bassPc, chordPitchClasses, rootPc, type Chord } from "../../theory/chord/chord";
import { isDiatonic, isMinorish } from "../../theory/chord/numerals";
import type { ChordEvent } from "../../song/schema";

/** A chord of a progression with the key it is heard in. */
export interface Heard {
  event: ChordEvent;
  chord: Chord;
  key: Key;
}

export type HarmonicFunction = "tonic" | "subdominant" | "dominant" | "chromatic";

export interface Progression {
  chords: Heard[];
  home: Key;
  /** The last chord leads into the first. */
  loop: boolean;
  /** What comes before the first chord, where that is another progression. */
  before?: Heard;
}

/** The chord before or after, around the loop where there is one. */
export function neighbor(p: Progression, index: number, by: number): Heard | undefined {
  const at = index + by;
  if (p.loop && p.chords.length > 1) return p.chords[mod(at, p.chords.length)];
  return at === -1 ? p.before : p.chords[at];
}

/**
 * The next harmony: the first chord after this one on another root. Repeats, other colors, suspensions and inversions
 * of a chord only prolong it. Undefined where nothing else comes.
 */
export function onward(p: Progression, index: number): Heard | undefined {
  return p.chords[indexOnward(p, index)];
}

/** Its index; −1 where nothing else comes. */
export const indexOnward = (p: Progression, index: number): number => different(p, index, 1);

/** The harmony before, in the same sense. */
export function earlier(p: Progression, index: number): Heard | undefined {
  const found = different(p, index, -1);
  if (found >= 0 || p.loop) return p.chords[found];
  return p.before && rootPc(p.before.chord) !== rootPc(nth(p.chords, index).chord) ? p.before : undefined;
}

function different(p: Progression, index: number, by: 1 | -1): number {
  const { chords, loop } = p;
  const root = rootPc(nth(chords, index).chord);
  for (let away = 1; away < chords.length; away++) {
    const at = loop ? mod(index + by * away, chords.length) : index + by * away;
    if (!chords[at]) return -1;
    if (rootPc(chords[at].chord) !== root) return at;
  }
  return -1;
}

/** Semitones of a chord's root above the tonic. */
export const above = (chord: Chord, key: Key): number => mod(rootPc(chord) - firstOf(key.pcs), 12);

const hasRole = (chord: Chord, role: string): boolean => chord.tones.some((t) => t.role === role);

/** Major third and minor seventh (or a plain major triad, when asked for); suspended sevenths count as dominants. */
export const isDominant = (chord: Chord, triads = false): boolean =>
  (hasRole(chord, "b7") && (hasRole(chord, "3") || hasRole(chord, "4"))) ||
  (triads && isMajor(chord) && !hasRole(chord, "7") && !hasRole(chord, "6"));
export const isMajor = (chord: Chord): boolean => hasRole(chord, "3") && !hasRole(chord, "b5") && !hasRole(chord, "#5");
export const isAugmented = (chord: Chord): boolean => hasRole(chord, "3") && hasRole(chord, "#5");
export const isMinor = (chord: Chord): boolean => hasRole(chord, "b3") && !hasRole(chord, "b5");
export const isHalfDiminished = (chord: Chord): boolean =>
  hasRole(chord, "b3") && hasRole(chord, "b5") && hasRole(chord, "b7");
export const isDiminished = (chord: Chord): boolean =>
  hasRole(chord, "b3") && hasRole(chord, "b5") && !hasRole(chord, "b7");
export const isFullyDiminished = (chord: Chord): boolean => isDiminished(chord) && hasRole(chord, "bb7");
export const isSuspended = (chord: Chord): boolean =>
  chord.tones.some((t) => t.degree === 2 || t.degree === 4) && !chord.tones.some((t) => t.degree === 3);

/** Semitones from one root up to another. */
export const rootMove = (from: Chord, to: Chord): number => mod(rootPc(to) - rootPc(from), 12);
export const bassMove = (from: Chord, to: Chord): number => mod(bassPc(to) - bassPc(from), 12);

export const shares = (a: Chord, b: Chord): PitchClass[] =>
  chordPitchClasses(a).filter((pc) => chordPitchClasses(b).includes(pc));

/** The chord belongs to the key; in minor the raised seventh (and sixth under it) does so too. */
export const belongs = (chord: Chord, key: Key): boolean => isDiatonic(chord, key, true);

/** Is this the tonic chord of the key (any color on it)? */
export const isTonic = (chord: Chord, key: Key): boolean =>
  rootPc(chord) === key.pcs[0] &&
  (isMinorish(key) ? isMinor(chord) : isMajor(chord)) &&
  !(isDominant(chord) && !isMinorish(key));
