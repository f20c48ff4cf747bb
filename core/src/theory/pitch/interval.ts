import { sure } from "../../base/list";
import { mod, parseNote, type NoteName, type Semitones } from "./pitch";

/** Letters an interval of so many semitones goes up: a second, a third, a fourth, an augmented fourth, a fifth … */
export const LETTERS: readonly number[] = [0, 1, 1, 2, 2, 3, 3, 4, 5, 5, 6, 6];

/** A step, up or down. */
export const isStep = (move: Semitones): boolean => Math.abs(move) === 1 || Math.abs(move) === 2;

/**
 * Tritones and sevenths are hard to hit, and what goes beyond an octave falls into two lines (any textbook of
 * counterpoint).
 */
export const isHardLeap = (move: Semitones): boolean => [6, 10, 11].includes(Math.abs(move)) || Math.abs(move) > 12;

/** Whether a move of so many semitones is written as a step and wider than one: F up to G sharp. */
export function isAugmentedSecond(from: NoteName, to: NoteName, move: Semitones): boolean {
  if (Math.abs(move) !== 3) return false;
  const [a, b] = [sure(parseNote(from)).step, sure(parseNote(to)).step];
  return mod(move > 0 ? b - a : a - b, 7) === 1;
}

const NAMES = [
  "unison",
  "minor second",
  "major second",
  "minor third",
  "major third",
  "fourth",
  "tritone",
  "fifth",
  "minor sixth",
  "major sixth",
  "minor seventh",
  "major seventh",
  "octave",
  "minor ninth",
  "major ninth",
  "minor tenth",
  "major tenth",
  "eleventh",
  "compound tritone",
  "twelfth",
];

/**
 * An interval by its semitones: "major sixth", "minor tenth"; what is wider than a twelfth by its octaves ("major third
 * and 2 octaves").
 */
export function intervalWords(semitones: Semitones): string {
  const name = NAMES[semitones];
  if (name) return name;
  const octaves = Math.floor(semitones / 12);
  return semitones % 12
    ? `${NAMES[semitones % 12]} and ${octaves} ${octaves === 1 ? "octave" : "octaves"}`
    : `${octaves} octaves`;
}
