/** How parts play the chords. */
export { COMP_KINDS as KINDS } from "../song/comp/kinds";
export { PATTERNS, stepsOf as steps } from "../song/comp/patterns";
export { voicedChords, voicesOf as voices } from "../song/linked";
