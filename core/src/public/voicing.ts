/** Chords laid out for hands, necks and sections, from chord to chord. */
export { voicedProgressions as progressions } from "../arrange/voicing/path";
export {
  voiceSection as section,
  sectionPathSteps as pathSteps,
  storeLayouts as store,
} from "../arrange/voicing/section";
export { invert } from "../arrange/voicing/invert";
export {
  changeVoices as change,
  foreignVoices as foreign,
  restingStrokes as resting,
} from "../arrange/voicing/hands/voices";
export { usualVoices } from "../arrange/voicing/setting";
export { countedBy, TERM_NAMES, TERMS, TOP_SHAPES } from "../arrange/voicing/cost";
export { VOICING_STYLES as STYLES } from "../arrange/voicing/styles";
export { unheld } from "../arrange/voicing/refit";
export { spellVoicing as spell } from "../arrange/voicing/path";
export { playable } from "../arrange/voicing/hands/playable";
