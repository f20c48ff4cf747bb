/** How parts play the chords. */
export { COMP_KINDS as KINDS } from "../song/comp/kinds";
export { PATTERNS, stepsOf as steps } from "../song/comp/patterns";
export { linkedNotes as notes, voicedChords, voicesOf as voices } from "../song/linked";
