/** Bass lines against kick, chords and tune. */
export { bassRequest as request, bassLines as write } from "../write/bass/write";
export { reportBass as report } from "../write/bass/report";
export { BASS_STYLES as STYLES } from "../write/bass/styles";
export { bassStyleOf as styleOf, usualFor as usual } from "../write/bass/chosen";
export { bassSettings as settings } from "../write/bass/settings";
export { passEndings as endings } from "../write/bass/endings";
export { impliedChords as implied } from "../write/bass/implied";
export { bassLayers as layers } from "../write/bass/layers";
export { drumAsBass as fromDrum, drumUntuned as untuneDrum } from "../write/bass/fromDrum";
export { layerOffers } from "../write/bass/sharing";
export { weavePlan as weave } from "../write/bass/others";
export { reasonOf as reason } from "../write/bass/reasons";
export { buildUp, thinOut, gates } from "../write/bass/shape";
