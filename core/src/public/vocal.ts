/** Voices beside a tune. */
export {
  vocalLines as write,
  vocalSteps as steps,
  vocalSettings as settings,
  vocalSchoolOf as schoolOf,
  rejudge,
  mended as mend,
  writtenVoices as written,
} from "../write/vocal/write";
export { VOCAL_SCHOOLS as SCHOOLS } from "../write/vocal/schools";
export { tunesFor as tunes } from "../write/lines/ground";
export { takeVoices as take } from "../write/vocal/take";
