/** The public interface of the core: the only file that the server, the web application and outside scripts import. */
export { firstOf, lastOf, nth, pairwise, sure } from "./base/list";
export { fail, must, ok, type Problem, type Result } from "./base/result";
export {
  midiFrequency,
  mod,
  noteName,
  noteOf,
  parseNote,
  parsePitch,
  pitchClass,
  pitchMidi,
  pitchName,
  plainName,
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
} from "./theory/pitch/pitch";
export { intervalWords } from "./theory/pitch/interval";
export {
  keyName,
  MODES,
  nameInKey,
  parseKey,
  rootInKey,
  scaleStep,
  spellInKey,
  transposeKey,
  type Key,
  type Mode,
} from "./theory/pitch/key";
export {
  beatAt,
  beatsText,
  EIGHTH,
  EIGHTH_TRIPLET,
  metricalLevel,
  parseMeter,
  positionText,
  QUARTER,
  SIXTEENTH,
  SIXTEENTH_TRIPLET,
  THIRTY_SECOND,
  type Beat,
  type Bpm,
  type Meter,
  type Seconds,
  type Ticks,
} from "./theory/time/meter";
export { feelText, swung, tappedTempo, ticksToSeconds, type Swing } from "./theory/time/swing";
export {
  bassPc,
  chordPitchClasses,
  chordSymbol,
  chordToneName,
  rootPc,
  toneRole,
  type Chord,
  type ChordTone,
} from "./theory/chord/chord";
export {
  chordOf,
  LINE_LIMIT,
  NO_CHORD,
  readLine,
  shareBar,
  writeLine,
  type LineChord,
  type ParsedLine,
} from "./theory/chord/progression";
export { identifyChords, isSure, chordReadings, type Identify, type Reading } from "./theory/chord/identify";
export {
  identifyFrets,
  isReentrant,
  parseFrets,
  parseTuning,
  fretReadings,
  TUNINGS,
  type FretReadings,
  type FretShape,
} from "./theory/chord/frets";
export { diatonicChord, isMinorish, parseNumeral, readNumerals, romanOf } from "./theory/chord/numerals";
export {
  bendTone,
  COLORS,
  hasColor,
  moveBySemitones,
  moveInScale,
  toggleColor,
  withBass,
  type Bent,
  type Color,
} from "./theory/chord/modify";
export { parseChord, chordOfTones } from "./theory/chord/parse";
export { parseProgression } from "./song/progression";
export * from "./song/clip";
export { quantize, quantizeHits, tightened, type PlayedNote, type Quantize } from "./song/played";
export { DRUM_KINDS, DRUMS, TUNABLE, type DrumKind } from "./theory/instrument/drums";
export {
  LIMITS,
  PROFILES,
  SONG_VERSION,
  type ChordEvent,
  type Drum,
  type Groove,
  type Hit,
  type Lane,
  type Link,
  type Entry,
  type Matter,
  type NewNote,
  type Note,
  type OwnInstrument,
  type Part,
  type Pass,
  type Playing,
  type PlayingOf,
  type Profile,
  type Reason,
  type Section,
  type Singer,
  type Slide,
  type Song,
  type Take,
  type Waiver,
  type Way,
} from "./song/schema";
export {
  isWritten,
  MIGRATIONS,
  newSong,
  parseSong,
  partByRole,
  partOf,
  passOf,
  sectionKey,
  sectionMeter,
  sectionOf,
  sectionSwing,
  sectionTempo,
  type NewSong,
} from "./song/document";
export { capital, counted, freeName, withArticle } from "./theory/words/english";
export { countBeyond } from "./song/beyond";
export { applyEdit, EDITS, type Applied, type Edit } from "./song/edits";
export type { EditDefinition } from "./song/edits/define";
export { drumOf, drumPlayer, laneName, laneTitle, type PlayerId } from "./song/players";
export { ownerOf, playingOf, type Level, type Where } from "./song/playing";
export { findPlace, passPlace, sectionPlace, type Place } from "./song/place";
export { isUnlike, passView } from "./song/passView";
export { firstNote, wayOn, waysOn, type FirstNote, type WayOn } from "./song/onward";
export { passEndings } from "./write/bass/endings";
export { formOf, timeText, type FormPass } from "./song/form";
export { createMemory, factsOf, type Fact, type Memory, type Reader } from "./facts/memory";
export * from "./hear/sounding";
export * from "./hear/slice/facts";
export * from "./hear/line/facts";
export * from "./hear/harmony/facts";
export * from "./hear/accents/facts";
export * from "./arrange/reharm/facts";
export * from "./arrange/groove/facts";
export * from "./arrange/voicing/facts";
export { busyOf, type Busy } from "./hear/slice/busy";
export { echoNotes, echoSettings, fadedVelocity, USUAL_ECHO, type EchoSettings } from "./song/echo";
export { decibels, strengthOf, velocityOf } from "./theory/instrument/loudness";
export { spellAt } from "./song/spell";
export { because, describeReason, REASONS, weightOfReason, type ReasonId, type ReasonParams } from "./song/reasons";
export {
  chordAtTick,
  realize,
  secondsAt,
  sectionAt,
  tickAt,
  type RealizedChord,
  type RealizedHit,
  type RealizedNote,
  type RealizedPart,
  type RealizedSection,
  type RealizedSong,
} from "./song/realize";
export { cheapestPath, cheapestPaths, prepare, type Lattice, type Path } from "./search/lattice";
export { kicks, LOUD_KICK, type KickHit } from "./hear/slice/accents";
export * from "./hear/line/echo";
export { reportMelody, type MelodyReport } from "./hear/line/melody";
export { nonChordTones, type NonChordTone } from "./hear/slice/nonChord";
export {
  KIND_WORDS,
  noteRoles,
  ROLE_WORDS,
  SIGNS,
  textbookKind,
  type RoleKind,
  type RoleSpan,
} from "./hear/slice/roles";
export {
  slices,
  sliceReal,
  sliceSong,
  soundingNames,
  type Slice,
  type Sliced,
  type SliceNote,
} from "./hear/slice/slices";
export * from "./theory/motion/motion";
export * from "./theory/motion/roughness";
export { threads, type Counted, type Thread, type ThreadKind } from "./theory/motion/threads";
export * from "./hear/harmony/analyze";
export type { Cadence, LoopJoin } from "./hear/harmony/cadence";
export {
  chordDistance,
  regionOf,
  setDistance,
  smallestMotion,
  tonicOf,
  type LerdahlDistance,
} from "./hear/harmony/distance";
export {
  EQUAL,
  EQUAL_CHORDS,
  findKeys,
  findKeysOfChords,
  PROFILES_KK,
  type KeyFit,
  type WeighedNote,
} from "./hear/harmony/keys";
export { RECOGNIZERS } from "./hear/harmony/recognize";
export { AT_HOME, CATEGORIES, type Category } from "./hear/harmony/recognize/types";
export { PISTON, rootProgression, stepOf } from "./hear/harmony/roots";
export { fittingScales, SCALES, tensions, type FittingScale, type Tension } from "./hear/harmony/scales";
export {
  CLEFS,
  INSTRUMENTS,
  instrumentOf,
  instrumentsFor,
  midiRange,
  ROLES,
  SOUNDS,
  type Clef,
  type Held,
  type Instrument,
  type Role,
  type SoundKind,
  type WithInstruments,
} from "./theory/instrument/instruments";
export { handStrain, NINTH_SPAN, OCTAVE_SPAN, twoHands, type Hand, type Hands } from "./theory/instrument/hands";
export {
  findShapes,
  holdShape,
  SHAPE_LIMITS,
  shapeOf,
  WIDE_REACH,
  type Neck,
  type Shape,
  type ShapeLimits,
} from "./theory/instrument/fretboard";
export { COMP_KINDS } from "./song/comp/kinds";
export type { CompKind, SettingName } from "./song/comp/kind";
export { parsePattern, PATTERNS, STEP, stepsOf, type CompPattern } from "./song/comp/patterns";
export { linkedNotes, voicedChords, voicesOf } from "./song/linked";
export {
  countedBy,
  sumTerms,
  TERM_NAMES,
  TERMS,
  TOP_SHAPES,
  trade,
  type TermName,
  type Terms,
  type TopShape,
  type Weights,
} from "./arrange/voicing/cost";
export { VOICING_STYLES } from "./arrange/voicing/styles";
export type { VoicingStyle } from "./arrange/voicing/style";
export { usualVoices, type PathOptions } from "./arrange/voicing/setting";
export { neckOf } from "./theory/instrument/neck";
export { voicingSpace } from "./arrange/voicing/space";
export { type TopReport } from "./arrange/voicing/candidate";
export {
  pathsOf,
  voicePaths,
  voicedProgressions,
  voiceProgression,
  type Alternative,
  type VoicedChord,
  type VoicedPath,
} from "./arrange/voicing/path";
export { blockNotes } from "./arrange/voicing/block";
export { chooseCapo, type CapoChoice } from "./arrange/voicing/capo";
export type { Anew } from "./arrange/voicing/anew";
export {
  partOptions,
  sectionPaths,
  storeLayouts,
  storeVoicing,
  tuneOver,
  voiceSection,
  type SectionPath,
  type SectionVoicing,
} from "./arrange/voicing/section";
export { invert } from "./arrange/voicing/invert";
export { tabOf, type TabPlace } from "./arrange/voicing/tab";
export * from "./files/notation";
export type { NoteValue } from "./files/notation/durations";
export {
  describeChange,
  reharmonize,
  reharmonizations,
  type ReharmCandidate,
  type ReharmRequest,
} from "./arrange/reharm/reharmonize";
export { judgeProgression, type Verdict } from "./arrange/reharm/verdict";
export { reharmonizeSection, type Progressed, type SectionRequest } from "./arrange/reharm/section";
export { RHYTHMS, type HarmonicRhythm } from "./arrange/reharm/choices";
export {
  harmonizeBass,
  harmonizeMelody,
  harmonizations,
  type Harmonization,
  type HarmonizeRequest,
} from "./arrange/reharm/harmonize";
export type { Technique } from "./arrange/reharm/technique";
export { TECHNIQUES } from "./arrange/reharm/techniques";
export {
  accentMap,
  pairOf,
  type AccentMap,
  type AccentPair,
  type AccentRow,
  type PairKind,
} from "./hear/accents/accentMap";
export { agreeOnAccents, moveAttacks, type Agreement, type PlayerRequest } from "./arrange/groove/agree";
export { moveAway, nearness, parseReference, swapDistance, type Nearness } from "./arrange/groove/reference";
export { euclid } from "./arrange/groove/euclid";
export {
  DRUM_PATTERNS,
  mergeLanes,
  patternLanes,
  roll,
  stepHits,
  withFill,
  withVariation,
  type DrumPattern,
} from "./arrange/groove/patterns";
export { syncopation, syncopations, type Syncopation } from "./hear/accents/syncopation";
export { reasonOf } from "./write/bass/reasons";
export { reportBass } from "./write/bass/report";
export * from "./hear/line/tune";
export * from "./hear/line/report";
export * from "./hear/line/text";
export * from "./hear/lyrics/syllables";
export * from "./hear/lyrics/words";
export * from "./hear/lyrics/rhythm";
export { roomAt, roomForVoice, roomOffers, type InTheRoom, type Room, type RoomOffer } from "./arrange/room/room";
export { COUNTER_STYLES } from "./write/counter/styles";
export { leadsOf } from "./write/counter/context";
export { counterMeasures, type CounterReport } from "./write/counter/measures";
export type { CounterStyle } from "./write/counter/style";
export { counterSettings, type CounterSettings } from "./write/counter/settings";
export { cheapestSecond, type SecondOrder } from "./search/second";
export * from "./write/counter/write";
export * from "./hear/singer";
export * from "./write/vocal";
export * from "./hear/line/between";
export { bassVerdictAt, judgeBass, type BassVerdict, type JustifiedNote } from "./write/bass/judge";
export { BASS_MEASURES, measuresOf, reportOf, type BassReport } from "./write/bass/measures";
export type { Aim, BassMeasure } from "./write/bass/measures/measure";
export type { ToneUse } from "./write/bass/measures/chordTones";
export { bassStyle, bassStyleOf, usualFor } from "./write/bass/chosen";
export { adaptBass } from "./write/bass/adapt";
export { BASS_STYLES } from "./write/bass/styles";
export type { BassStyle, BassTargets } from "./write/bass/style";
export { buildUp, gates, justified, thinOut, type Gate, type ShapeStep } from "./write/bass/shape";
export { impliedChords, impliedRoots, type ImpliedRoot } from "./write/bass/implied";
export {
  bassLayers,
  drumAsBass,
  drumUntuned,
  layerOffers,
  type BassLayer,
  type BassLayers,
  type LayerOffer,
  type LayerProblem,
} from "./write/bass/layers";
export { weavePlan, type WeavePlace } from "./write/bass/others";
export { bassSettings, USUAL_SETTINGS, type BassSettings } from "./write/bass/settings";
export { bassRequest, bassLines, writeBass, type BassLine, type BassRequest } from "./write/bass/write";
export type { Conflict, Measure } from "./write/lines/measure";
export * from "./song/transposeSong";
export {
  follow,
  followChange,
  isComplete,
  laidOutParts,
  WHAT_FOLLOWS,
  withFollowing,
  type FollowOptions,
} from "./judge/follow/follow";
export * from "./arrange/room/brings";
export * from "./judge/check";
export { readSongFile, writeSongFile } from "./files/json";
export { BEND_RANGE, GLIDE_SHARE, GM_DRUMS, writeMidi } from "./files/midi";
export { songOfMidi } from "./files/midiSong";
export { nameChords } from "./files/midiChords";
export { writeMusicXml } from "./files/musicxml/write";
export { drumNotes, importMidi, laneForNote, type MidiChoices, type MidiImport } from "./files/midiImport";
export { readMidi, type MidiContents, type MidiNote, type MidiTrack } from "./files/midiRead";
