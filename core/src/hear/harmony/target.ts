import { nth } from "../../base/list";
import type { Key } from "../../theory/pitch/key";
import { mod, type NoteName } from "../../theory/pitch/pitch";
import { rootPc, type Chord } from "../../theory/chord/chord";
import { diatonicChord, romanOf } from "../../theory/chord/numerals";
import { parseChord } from "../../theory/chord/parse";
import { isDiminished, isHalfDiminished, isMinor, onward, type Progression } from "./context";

/** What an applied chord is applied to. */
export interface Target {
  /** Its root as the key, or the chord that comes, spells it. */
  root: NoteName;
  /** Its degree as a numeral: "ii", "bVI". */
  degree: string;
  minor: boolean;
  /** The next harmony stands on it. */
  arrives: boolean;
}

/** Semitones up from an applied chord's root to its target. */
export const LEADS = { dominant: 5, diminished: 1, two: 10 } as const;

/** The degree of a key as a chord one could rest on; the fifth of minor is major, as a dominant. */
function ownDegree(key: Key, step: number): { degree: string; minor: boolean } | null {
  const triad = diatonicChord(key, step);
  if (triad.endsWith("dim") || triad.endsWith("aug")) return null;
  const minor = triad.endsWith("m") && !(step === 4 && key.mode === "minor");
  const chord = parseChord(nth(key.scale, step) + (minor ? "m" : ""));
  return chord.ok ? { degree: romanOf(chord.value, key), minor } : null;
}

/**
 * What a chord leads to when its root lies a given number of semitones below (`LEADS`): any degree of the key but the
 * tonic, or any other major or minor chord that really comes (borrowed degrees). Null where it leads to none, or to the
 * tonic itself.
 */
export function targetOf(
  p: Progression,
  i: number,
  by: number,
  comes: Chord | undefined = onward(p, i)?.chord,
): Target | null {
  const { chord, key } = nth(p.chords, i);
  const target = mod(rootPc(chord) + by, 12);
  const arrives = comes !== undefined && rootPc(comes) === target;
  if (target === key.pcs[0]) return null;
  const step = key.pcs.indexOf(target);
  const own = step < 0 ? null : ownDegree(key, step);
  if (own) return { root: nth(key.scale, step), ...own, arrives };
  if (!arrives || isDiminished(comes) || isHalfDiminished(comes)) return null;
  const minor = isMinor(comes);
  const plain = parseChord(comes.root + (minor ? "m" : ""));
  return plain.ok ? { root: comes.root, degree: romanOf(plain.value, key), minor, arrives } : null;
}
