/** Necks and the shapes on them: frets are counted from the capo, the lowest string first. */
export {
  parseFrets as parse,
  parseTuning,
  identifyFrets as identify,
  fretReadings as readings,
  TUNINGS,
} from "../theory/chord/frets";
export { findShapes as find, WIDE_REACH } from "../theory/instrument/fretboard";
export { neckOf as neck } from "../theory/instrument/neck";
export { neckKey as keyOf } from "../hear/singer/shapes";
export { chooseCapo as capo } from "../arrange/voicing/capo";
