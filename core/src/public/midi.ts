/** Standard MIDI Files. */
export { readMidi as read } from "../files/midiRead";
export { writeMidi as write, GLIDE_SHARE } from "../files/midi";
export { songOfMidi as song } from "../files/midiSong";
export { importMidi as plan, drumNotes, laneForNote } from "../files/midiImport";
