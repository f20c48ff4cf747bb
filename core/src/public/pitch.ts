/** Notes and pitches by name: "Eb", "Eb4". Midi numbers, pitch classes 0 to 11, semitones, hertz. */
export {
  midiFrequency as frequency,
  mod,
  noteOf as note,
  parseNote,
  parsePitch as parse,
  pitchClass,
  pitchMidi as midi,
  pitchName as name,
  plainName as plain,
  spoken,
  transposeNote as transpose,
  typeset,
  typesetNames as typesetAll,
} from "../theory/pitch/pitch";
export { intervalWords as interval } from "../theory/pitch/interval";
