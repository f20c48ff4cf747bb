/** Other chords for a place, a section, a tune or a bass. */
export { reharmonizations as find, describeChange as describe } from "../arrange/reharm/reharmonize";
export { reharmonizeSection as section, sectionSteps } from "../arrange/reharm/section";
export { TECHNIQUES } from "../arrange/reharm/techniques";
export { RHYTHMS } from "../arrange/reharm/choices";
export { harmonizations as harmonize } from "../arrange/reharm/harmonize";
