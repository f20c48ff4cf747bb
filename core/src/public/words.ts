/** Words under notes: syllables, stresses, verses, and a rhythm for them. */
export { syllablesOf as syllables, soundsOf as sounds, LIGHT_ENGLISH } from "../hear/lyrics/syllables";
export { rhythmOfWords as rhythm } from "../hear/lyrics/rhythm";
export {
  layWords as lay,
  layOne,
  wordsText as text,
  HELD,
  writtenSyllable as written,
  sungNotes as sung,
  versesOf as verses,
} from "../hear/lyrics/words";
