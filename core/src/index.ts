/** The public interface of the core: the only file that the server, the web application and outside scripts import. */
export { fail, must, ok, type Problem, type Result } from "./result";
export {
  midiFrequency,
  mod,
  noteName,
  parseNote,
  parsePitch,
  pitchClass,
  pitchMidi,
  pitchName,
  spoken,
  transposeNote,
  typeset,
  typesetNames,
  type Hertz,
  type Midi,
  type NoteName,
  type PitchClass,
  type PitchName,
  type Semitones,
} from "./pitch/pitch";
export { keyName, MODES, nameInKey, parseKey, scaleStep, spellInKey, transposeKey, type Key, type Mode } from "./pitch/key";
export {
  beatAt,
  beatsText,
  metricalLevel,
  parseMeter,
  positionText,
  QUARTER,
  type Beat,
  type Bpm,
  type Meter,
  type Seconds,
  type Ticks,
} from "./time/meter";
export { swung, tappedTempo, ticksToSeconds, type Swing } from "./time/swing";
export { bassPc, chordPitchClasses, chordSymbol, chordToneName, rootPc, toneRole, type Chord, type ChordTone } from "./chord/chord";
export { parseChord } from "./chord/parse";
export { LINE_LIMIT, NO_CHORD, readLine, shareBar, writeLine, type LineChord, type ParsedLine } from "./chord/progression";
export { parseProgression } from "./song/progression";
export {
  DRUMS,
  LIMITS,
  PROFILES,
  SONG_VERSION,
  type ChordEvent,
  type Drum,
  type Groove,
  type Hit,
  type Note,
  type Occurrence,
  type Part,
  type Profile,
  type Reason,
  type Section,
  type Song,
  type Waiver,
} from "./song/schema";
export {
  MIGRATIONS,
  newSong,
  parseSong,
  partByRole,
  partOf,
  sectionKey,
  sectionMeter,
  sectionOf,
  sectionTempo,
  type NewSong,
} from "./song/document";
export type { Applied, Edit } from "./song/edit";
export { applyEdit } from "./song/edits";
export { spellAt } from "./song/spell";
export { describeReason, REASON_WORDS } from "./song/reason";
export {
  chordAtTick,
  realize,
  secondsAt,
  sectionAt,
  tickAt,
  type RealChord,
  type RealHit,
  type RealNote,
  type RealPart,
  type RealSection,
  type RealSong,
} from "./song/realize";
export { cheapestPath, cheapestPaths, prepare, type Lattice, type Path } from "./lattice/lattice";
export { kicks, LOUD_KICK, type KickHit } from "./slice/accents";
export { KIND_WORDS, noteRoles, ROLE_WORDS, type RoleKind, type RoleSpan } from "./slice/roles";
export { slices, sliceReal, sliceSong, type Slice, type Sliced, type SliceNote } from "./slice/slices";
export {
  belowLimit,
  commonTones,
  LOW_INTERVAL_LIMITS,
  motionBetween,
  motionKind,
  parallelPerfect,
  voiceLeadingDistance,
} from "./motion/motion";
export { INSTRUMENTS, instrumentOf, midiRange, type Instrument, type SoundKind } from "./instrument/instruments";
export { sumTerms, TERMS, type TermName, type Terms } from "./voicing/cost";
export {
  VOICING_STYLES,
  voicePaths,
  tryVoiceProgression,
  voiceProgression,
  voiceSection,
  voicingSpace,
  type SectionVoicing,
  type VoicedChord,
  type VoicedPath,
} from "./voicing/path";
export { reasonOf, reportBass, type BassReport } from "./bass/report";
export { BASS_STYLES } from "./bass/styles";
export { tryWriteBass, writeBass, type BassLine, type BassRequest, type Conflict } from "./bass/write";
export { checkSong, createChecker, PROFILE_WORDS, type Checker } from "./check/check";
export { RULES } from "./check/rules";
export type { Finding, Fix, Rule, Severity } from "./check/rule";
export { readSongFile, writeSongFile } from "./format/json";
export { BEND_RANGE, GLIDE_SHARE, GM_DRUMS, writeMidi } from "./format/midi";
