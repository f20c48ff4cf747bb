/** What chords are in a key. */
export { analyzeProgression as analyze, categoryTitle } from "../hear/harmony/analyze";
export { CATEGORIES, AT_HOME } from "../hear/harmony/recognize/types";
export { RECOGNIZERS } from "../hear/harmony/recognize";
export { fittingScales as scales, tensions } from "../hear/harmony/scales";
export { listeningTest as listen } from "../hear/harmony/listening";
