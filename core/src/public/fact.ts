/** What follows from a song, worked out when it is asked for and remembered with what it read. */
export { createMemory as memory, factsOf as of } from "../facts/memory";
export { chordsAt as chords, notesAt as notes, realizedAt as realized } from "../hear/sounding";
export { rolesAt as roles, soundingAt as sounding, kicksAt as kicks } from "../hear/slice/facts";
export { tuneAt as tune } from "../hear/line/facts";
export { harmonyAt as harmony } from "../hear/harmony/facts";
export { accentsAt as accents } from "../hear/accents/facts";
export { agreementAt as agreement } from "../arrange/groove/facts";
export { verdictAt as verdict } from "../arrange/reharm/facts";
export { voicingAt as voicing, anewAt as anew } from "../arrange/voicing/facts";
export { bringsAt as brings } from "../arrange/room/brings";
export { bassVerdictAt as bass } from "../write/bass/judge";
export { counterVerdictAt as counter } from "../write/counter/write";
export { roomAt as room } from "../arrange/room/room";
