/** Changes of a song, and what follows from them. */
export { applyEdit as apply, repeatEdit as repeat } from "../song/edits";
export { EDITS as ALL } from "../song/edits/list";
export { follow, followChange, isComplete, laidOutParts, WHAT_FOLLOWS, withFollowing } from "../judge/follow/follow";
