/** The moments at which anything changes, and what each note is there. */
export { slices as of } from "../hear/slice/slices";
export { noteRoles as roles, ROLE_WORDS, KIND_WORDS, SIGNS, textbookKind as textbook } from "../hear/slice/roles";
export { soundingOf as sounding } from "../hear/slice/soundingIn";
export { nonChordTones } from "../hear/slice/nonChord";
export { threads } from "../theory/motion/threads";
