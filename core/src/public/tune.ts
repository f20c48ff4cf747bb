/** A tune: entered as text, measured, and how two lines go together. */
export { parseTune as parse, tuneText as write } from "../hear/line/text";
export { tuneReport as measure, tuneInShort as inShort } from "../hear/line/report";
export { samePlace } from "../hear/line/tune";
export { pairReport as pair } from "../hear/line/between";
export { byVoice } from "../hear/line/doubles";
export { reportMelody as report } from "../hear/line/melody";
