/** Voices beside a tune. */
export {
  vocalLines as write,
  vocalSchoolOf as schoolOf,
  rejudge,
  mended as mend,
  writtenVoices as written,
} from "../write/vocal/write";
export { VOCAL_SCHOOLS as SCHOOLS } from "../write/vocal/schools";
export { vocalSettings as settings } from "../write/vocal/settings";
export { tunesFor as tunes } from "../write/vocal/context";
export { takeVoices as take } from "../write/vocal/take";
