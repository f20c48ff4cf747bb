/** The public interface of the core: the only file that the server, the web application and outside scripts import. */
export { fail, must, ok, type Problem, type Result } from "./result";
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
} from "./pitch/pitch";
export { intervalWords } from "./pitch/interval";
export { keyName, MODES, nameInKey, parseKey, rootInKey, scaleStep, spellInKey, transposeKey, type Key, type Mode } from "./pitch/key";
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
} from "./time/meter";
export { feelText, swung, tappedTempo, ticksToSeconds, type Swing } from "./time/swing";
export { bassPc, chordPitchClasses, chordSymbol, chordToneName, rootPc, toneRole, type Chord, type ChordTone } from "./chord/chord";
export { chordOf, LINE_LIMIT, NO_CHORD, readLine, shareBar, writeLine, type LineChord, type ParsedLine } from "./chord/progression";
export { identifyChords, isSure, chordReadings, type Identify, type Reading } from "./chord/identify";
export {
  identifyFrets,
  isReentrant,
  parseFrets,
  parseTuning,
  fretReadings,
  TUNINGS,
  type FretReadings,
  type FretShape,
} from "./chord/frets";
export { diatonicChord, isMinorish, parseNumeral, readNumerals, romanOf } from "./chord/numerals";
export { bendTone, COLORS, hasColor, moveBySemitones, moveInScale, toggleColor, withBass, type Bent, type Color } from "./chord/modify";
export { parseChord, chordOfTones } from "./chord/parse";
export { parseProgression } from "./song/progression";
export * from "./song/clip";
export { quantize, quantizeHits, tightened, type PlayedNote, type Quantize } from "./song/played";
export { DRUM_KINDS, DRUMS, TUNABLE, type DrumKind } from "./instrument/drums";
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
export { capital, counted, freeName, withArticle } from "./words";
export { countBeyond } from "./song/beyond";
export { applyEdit, EDITS, type Applied, type Edit } from "./song/edits";
export type { EditDefinition } from "./song/edits/define";
export { drumOf, drumPlayer, laneName, laneTitle, type PlayerId } from "./song/players";
export { ownerOf, playingOf, type Level, type Where } from "./song/playing";
export { findPlace, passPlace, sectionPlace, type Place } from "./song/place";
export { isUnlike, passView } from "./song/passView";
export { firstNote, wayOn, waysOn, type FirstNote, type WayOn } from "./song/onward";
export { passEndings } from "./bass/endings";
export { formOf, timeText, type FormPass } from "./song/form";
export { createMemory, factsOf, type Fact, type Memory, type Reader } from "./facts/memory";
export * from "./facts/facts";
export { busyOf, type Busy } from "./facts/busy";
export { echoNotes, echoSettings, fadedVelocity, USUAL_ECHO, type EchoSettings } from "./song/echo";
export { decibels, strengthOf, velocityOf } from "./instrument/loudness";
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
export { cheapestPath, cheapestPaths, prepare, type Lattice, type Path } from "./lattice/lattice";
export { kicks, LOUD_KICK, type KickHit } from "./slice/accents";
export * from "./facts/echo";
export { reportMelody, type MelodyReport } from "./facts/melody";
export { nonChordTones, type NonChordTone } from "./facts/nonChord";
export { KIND_WORDS, noteRoles, ROLE_WORDS, SIGNS, textbookKind, type RoleKind, type RoleSpan } from "./slice/roles";
export { slices, sliceReal, sliceSong, soundingNames, type Slice, type Sliced, type SliceNote } from "./slice/slices";
export * from "./motion/motion";
export * from "./motion/roughness";
export { threads, type Counted, type Thread, type ThreadKind } from "./motion/threads";
export * from "./harmony/analyze";
export type { Cadence, LoopJoin } from "./harmony/cadence";
export { chordDistance, regionOf, setDistance, smallestMotion, tonicOf, type LerdahlDistance } from "./harmony/distance";
export { EQUAL, EQUAL_CHORDS, findKeys, findKeysOfChords, PROFILES_KK, type KeyFit, type WeighedNote } from "./harmony/keys";
export { RECOGNIZERS } from "./harmony/recognize";
export { AT_HOME, CATEGORIES, type Category } from "./harmony/recognize/types";
export { PISTON, rootProgression, stepOf } from "./harmony/roots";
export { fittingScales, SCALES, tensions, type FittingScale, type Tension } from "./harmony/scales";
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
} from "./instrument/instruments";
export { handStrain, NINTH_SPAN, OCTAVE_SPAN, twoHands, type Hand, type Hands } from "./instrument/hands";
export { findShapes, holdShape, SHAPE_LIMITS, shapeOf, WIDE_REACH, type Neck, type Shape, type ShapeLimits } from "./instrument/fretboard";
export { COMP_KINDS } from "./comp/kinds";
export type { CompKind, SettingName } from "./comp/kind";
export { parsePattern, PATTERNS, STEP, stepsOf, type CompPattern } from "./comp/patterns";
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
} from "./voicing/cost";
export { VOICING_STYLES } from "./voicing/styles";
export type { VoicingStyle } from "./voicing/style";
export { neckOf, usualVoices, type PathOptions } from "./voicing/setting";
export { voicingSpace, type TopReport } from "./voicing/space";
export {
  pathsOf,
  voicePaths,
  voicedProgressions,
  voiceProgression,
  type Alternative,
  type VoicedChord,
  type VoicedPath,
} from "./voicing/path";
export { blockNotes } from "./voicing/block";
export { chooseCapo, type CapoChoice } from "./voicing/capo";
export type { Anew } from "./voicing/anew";
export {
  partOptions,
  sectionPaths,
  storeLayouts,
  storeVoicing,
  tuneOver,
  voiceSection,
  type SectionPath,
  type SectionVoicing,
} from "./voicing/section";
export { invert } from "./voicing/invert";
export { tabOf, type TabPlace } from "./voicing/tab";
export * from "./notation";
export type { NoteValue } from "./notation/durations";
export { describeChange, reharmonize, reharmonizations, type ReharmCandidate, type ReharmRequest } from "./reharm/reharmonize";
export { judgeProgression, type Verdict } from "./reharm/verdict";
export { reharmonizeSection, type Progressed, type SectionRequest } from "./reharm/section";
export { RHYTHMS, type HarmonicRhythm } from "./reharm/choices";
export { harmonizeBass, harmonizeMelody, harmonizations, type Harmonization, type HarmonizeRequest } from "./reharm/harmonize";
export type { Technique } from "./reharm/technique";
export { TECHNIQUES } from "./reharm/techniques";
export { accentMap, pairOf, type AccentMap, type AccentPair, type AccentRow, type PairKind } from "./groove/accentMap";
export { agreeOnAccents, moveAttacks, type Agreement, type PlayerRequest } from "./groove/agree";
export { moveAway, nearness, parseReference, swapDistance, type Nearness } from "./groove/reference";
export { euclid } from "./groove/euclid";
export { DRUM_PATTERNS, mergeLanes, patternLanes, roll, stepHits, withFill, withVariation, type DrumPattern } from "./groove/patterns";
export { syncopation, syncopations, type Syncopation } from "./groove/syncopation";
export { reasonOf } from "./bass/reasons";
export { reportBass } from "./bass/report";
export * from "./line/tune";
export * from "./line/report";
export * from "./line/text";
export * from "./lyrics/syllables";
export * from "./lyrics/words";
export * from "./lyrics/rhythm";
export { roomAt, roomForVoice, roomOffers, type InTheRoom, type Room, type RoomOffer } from "./room/room";
export { COUNTER_STYLES } from "./counter/styles";
export { leadsOf } from "./counter/context";
export { counterMeasures, type CounterReport } from "./counter/measures";
export type { CounterStyle } from "./counter/style";
export { counterSettings, type CounterSettings } from "./counter/settings";
export { cheapestSecond, type SecondOrder } from "./lattice/second";
export * from "./counter/write";
export * from "./singer";
export * from "./vocal";
export * from "./line/between";
export { bassVerdictAt, judgeBass, type BassVerdict, type JustifiedNote } from "./bass/judge";
export { BASS_MEASURES, measuresOf, reportOf, type BassReport } from "./bass/measures";
export type { Aim, BassMeasure } from "./bass/measures/measure";
export type { ToneUse } from "./bass/measures/chordTones";
export { bassStyle, bassStyleOf, usualFor } from "./bass/chosen";
export { adaptBass } from "./bass/adapt";
export { BASS_STYLES } from "./bass/styles";
export type { BassStyle, BassTargets } from "./bass/style";
export { buildUp, gates, justified, thinOut, type Gate, type ShapeStep } from "./bass/shape";
export { impliedChords, impliedRoots, type ImpliedRoot } from "./bass/implied";
export {
  bassLayers,
  drumAsBass,
  drumUntuned,
  layerOffers,
  type BassLayer,
  type BassLayers,
  type LayerOffer,
  type LayerProblem,
} from "./bass/layers";
export { weavePlan, type WeavePlace } from "./bass/others";
export { bassSettings, USUAL_SETTINGS, type BassSettings } from "./bass/settings";
export { bassRequest, bassLines, writeBass, type BassLine, type BassRequest } from "./bass/write";
export type { Conflict, Measure } from "./writer/measure";
export * from "./song/transposeSong";
export { follow, followChange, isComplete, laidOutParts, WHAT_FOLLOWS, withFollowing, type FollowOptions } from "./follow/follow";
export * from "./room/brings";
export * from "./check";
export { readSongFile, writeSongFile } from "./format/json";
export { BEND_RANGE, GLIDE_SHARE, GM_DRUMS, writeMidi } from "./format/midi";
export { songOfMidi } from "./format/midiSong";
export { nameChords } from "./format/midiChords";
export { writeMusicXml } from "./format/musicxml/write";
export { drumNotes, importMidi, laneForNote, type MidiChoices, type MidiImport } from "./format/midiImport";
export { readMidi, type MidiContents, type MidiNote, type MidiTrack } from "./format/midiRead";
