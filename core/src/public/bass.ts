/** Bass lines against kick, chords and tune. */
export {
  bassRequest as request,
  reportBass as report,
  bassLines as write,
  bassSteps as steps,
  bassSettings as settings,
  bassStyleOf as styleOf,
  usualFor as usual,
} from "../write/bass/write";
export { BASS_STYLES as STYLES } from "../write/bass/styles";
export { passEndings as endings } from "../write/bass/endings";
export { impliedChords as implied } from "../write/bass/implied";
export { bassLayers as layers } from "../write/bass/layers";
export { drumAsBass as fromDrum, drumUntuned as untuneDrum } from "../write/bass/fromDrum";
export { layerOffers } from "../write/bass/sharing";
export { weavePlan as weave } from "../write/bass/others";
export { reasonOf as reason } from "../write/bass/reasons";
export { buildUp, thinOut, gates } from "../write/bass/shape";
