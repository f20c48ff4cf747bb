/** The document: parts, sections, passes. */
export {
  parseSong as parse,
  newSong as create,
  isWritten,
  partByRole,
  partOf as part,
  passOf as pass,
  sectionOf as section,
  sectionKey as keyOf,
  sectionMeter as meterOf,
  sectionSwing as swingOf,
  sectionTempo as tempoOf,
} from "../song/document";
export { joinSongs as join } from "../song/join";
export { countBeyond as beyond } from "../song/beyond";
export { realize } from "../song/realize";
export { chordAtTick as chordAt, lastBegun, secondsAt, tickAt } from "../song/realized";
export { spellAt as spell } from "../song/spell";
export { describeReason as reason } from "../song/reasons";
export { transposeSong as transpose, waysTo } from "../song/transposeSong";
export { LIMITS } from "../song/schema/scalars";
export { PROFILES } from "../song/schema/playing";
export { ownerOf, playingOf as playing } from "../song/playing";
export { quantize, quantizeHits, tightened as tighten } from "../song/played";
