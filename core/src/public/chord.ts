/** Chords: symbols, tones, numerals, names for notes. */
export { parseChord as parse } from "../theory/chord/parse";
export {
  chordSymbol as symbol,
  chordPitchClasses as pitchClasses,
  chordToneName as toneName,
  rootPc,
} from "../theory/chord/chord";
export { chordOf as of, NO_CHORD as NONE, writeLine } from "../theory/chord/progression";
export { identifyChords as identify, isSure } from "../theory/chord/identify";
export { bendTone as bend, COLORS, hasColor, toggleColor, withBass } from "../theory/chord/modify";
export { diatonicChord as diatonic, readNumerals, romanOf as numeral } from "../theory/chord/numerals";
export { parseProgression as readLine } from "../song/progression";
export { chordDistance as distance, smallestMotion as motion } from "../hear/harmony/distance";
