/** Keys by name: "Eb major", "F# dorian". */
export {
  keyName as name,
  parseKey as parse,
  rootInKey as root,
  scaleStep as step,
  spellInKey as spell,
  transposeKey as transpose,
} from "../theory/pitch/key";
export { isMinorish } from "../theory/chord/numerals";
export { regionOf as region, tonicOf as tonic } from "../hear/harmony/distance";
export { findKeysOfChords as ofChords, findKeys as find } from "../hear/harmony/keys";
