/** The public interface of the core: the only file that the server, the web application and outside scripts import. */
import * as pitch from "./public/pitch";
import * as key from "./public/key";
import * as meter from "./public/meter";
import * as plain from "./public/plain";
import * as text from "./public/text";
import * as chord from "./public/chord";
import * as frets from "./public/frets";
import * as instrument from "./public/instrument";
import * as drums from "./public/drums";
import * as song from "./public/song";
import * as edit from "./public/edit";
import * as clip from "./public/clip";
import * as figure from "./public/figure";
import * as take from "./public/take";
import * as place from "./public/place";
import * as form from "./public/form";
import * as comp from "./public/comp";
import * as fact from "./public/fact";
import * as slice from "./public/slice";
import * as harmony from "./public/harmony";
import * as reharm from "./public/reharm";
import * as voicing from "./public/voicing";
import * as groove from "./public/groove";
import * as room from "./public/room";
import * as tune from "./public/tune";
import * as echo from "./public/echo";
import * as words from "./public/words";
import * as singer from "./public/singer";
import * as bass from "./public/bass";
import * as counter from "./public/counter";
import * as vocal from "./public/vocal";
import * as check from "./public/check";
import * as notation from "./public/notation";
import * as midi from "./public/midi";
import * as musicXml from "./public/musicXml";
import * as songFile from "./public/songFile";
import * as format from "./public/format";

/** Notes and pitches by name: "Eb", "Eb4". Midi numbers, pitch classes 0 to 11, semitones, hertz. */
export const Pitch: typeof pitch = pitch;
/** Keys by name: "Eb major", "F# dorian". */
export const Key: typeof key = key;
/** Meters, places and lengths in ticks, 480 to a quarter; tempo in quarters a minute. */
export const Meter: typeof meter = meter;
/** Plain values: what two of them have in common. */
export const Plain: typeof plain = plain;
/** Words of a sentence. */
export const Text: typeof text = text;
/** Chords: symbols, tones, numerals, names for notes. */
export const Chord: typeof chord = chord;
/** Necks and the shapes on them: frets are counted from the capo, the lowest string first. */
export const Frets: typeof frets = frets;
/** Instruments: range, clef, transposition, how they are held and how loud they are. */
export const Instrument: typeof instrument = instrument;
/** Drums, their lanes and players. */
export const Drums: typeof drums = drums;
/** The document: parts, sections, passes. */
export const Song: typeof song = song;
/** Changes of a song, and what follows from them. */
export const Edit: typeof edit = edit;
/** What is copied, and set down elsewhere. */
export const Clip: typeof clip = clip;
/** Figures and bars that are carried elsewhere: refitted to other chords, moved along the scale, given other values. */
export const Figure: typeof figure = figure;
/** Kept states: how they differ from what stands there, and what in them is worth taking. */
export const Take: typeof take = take;
/** Where something is read: a section by itself, or one pass of the form. */
export const Place: typeof place = place;
/** The passes of a song: where each lies in ticks and seconds, what it plays, where it leads. */
export const Form: typeof form = form;
/** How parts play the chords. */
export const Comp: typeof comp = comp;
/** What follows from a song, worked out when it is asked for and remembered with what it read. */
export const Fact: typeof fact = fact;
/** The moments at which anything changes, and what each note is there. */
export const Slice: typeof slice = slice;
/** What chords are in a key. */
export const Harmony: typeof harmony = harmony;
/** Other chords for a place, a section, a tune or a bass. */
export const Reharm: typeof reharm = reharm;
/** Chords laid out for hands, necks and sections, from chord to chord. */
export const Voicing: typeof voicing = voicing;
/** Drum patterns, accents, and rhythms to stay clear of. */
export const Groove: typeof groove = groove;
/** Who is in the way of a voice. */
export const Room: typeof room = room;
/** A tune: entered as text, measured, and how two lines go together. */
export const Tune: typeof tune = tune;
/** Parts that repeat another one later. */
export const Echo: typeof echo = echo;
/** Words under notes: syllables, stresses, verses, and a rhythm for them. */
export const Words: typeof words = words;
/** Singers: ranges, keys that fit them, breaths, pages. */
export const Singer: typeof singer = singer;
/** Bass lines against kick, chords and tune. */
export const Bass: typeof bass = bass;
/** Counter melodies against a tune. */
export const Counter: typeof counter = counter;
/** Voices beside a tune. */
export const Vocal: typeof vocal = vocal;
/** What is wrong between instruments, why, and the ways out. */
export const Check: typeof check = check;
/** Parts as they are written. */
export const Notation: typeof notation = notation;
/** Standard MIDI Files. */
export const Midi: typeof midi = midi;
/** Scores for notation programs. */
export const MusicXml: typeof musicXml = musicXml;
/** File formats: what can be opened and written. */
export const Format: typeof format = format;
/** Song files. */
export const SongFile: typeof songFile = songFile;

// Lists that cannot be empty, values that cannot be missing, and answers that say what was wrong.
export { firstOf, lastOf, nth, pairwise, sure } from "./base/list";
export { fail, must, ok } from "./base/result";

// For scripts: these names stay as they are.
export { parseChord } from "./theory/chord/parse";
export { chordSymbol, chordPitchClasses } from "./theory/chord/chord";
export { parseProgression } from "./song/progression";
export { identifyChords } from "./theory/chord/identify";
export { identifyFrets } from "./theory/chord/frets";
export { analyzeProgression } from "./hear/harmony/analyze";
export { findKeys } from "./hear/harmony/keys";
export { reharmonize } from "./arrange/reharm/reharmonize";
export { harmonizeMelody, harmonizeBass } from "./arrange/reharm/harmonize";
export { voiceProgression } from "./arrange/voicing/path";
export { writeBass } from "./write/bass/write";
export { reportBass } from "./write/bass/write";
export { writeCounterMelody } from "./write/counter/write";
export { writeVocalHarmony } from "./write/vocal/write";
export { reportMelody } from "./hear/line/melody";
export { nonChordTones } from "./hear/slice/nonChord";
export { fitKey } from "./hear/singer/fit";
export { transposeSong } from "./song/transposeSong";
export { transpose } from "./hear/singer/transpose";
export { follow } from "./judge/follow/follow";
export { realize } from "./song/realize";
export { slices } from "./hear/slice/slices";
export { checkSong } from "./judge/check/check";
export { parseSong, newSong } from "./song/document";
export { writeMidi } from "./files/midi";
export { readMidi } from "./files/midiRead";
export { writeMusicXml } from "./files/musicxml/write";

// Types.
export type { AccentMap, AccentPair, AccentRow } from "./hear/accents/accentMap";
export type { Agreement } from "./arrange/groove/agree";
export type { Alternative, VoicedChord } from "./arrange/voicing/path";
export type { Anew } from "./arrange/voicing/anew";
export type { BassLayers } from "./write/bass/layers";
export type { BassLine, BassRequest } from "./write/bass/write";
export type { BassReport } from "./write/bass/measures";
export type { BassSettings } from "./write/bass/settings";
export type { BassStyle } from "./write/bass/style";
export type { BassVerdict } from "./write/bass/judge";
export type { Bpm, Seconds, Ticks } from "./theory/time/meter";
export type { Busy } from "./hear/slice/busy";
export type { CapoChoice } from "./arrange/voicing/capo";
export type { CheckReport, ReportedFinding } from "./judge/check/report";
export type { ChordAnalysis, HarmonyReport } from "./hear/harmony/analyze";
export type { Opened } from "./song/document";
export type { ChordEvent, Hit, Lane, NewNote, Note } from "./song/schema/material";
export type { Clef, SoundKind, WithInstruments } from "./theory/instrument/instruments";
export type { Color } from "./theory/chord/modify";
export type { CompKind, SettingName } from "./song/comp/kind";
export type { Conflict, Measure } from "./write/lines/measure";
export type { CounterLine, CounterRequest } from "./write/counter/write";
export type { CounterReport } from "./write/counter/measures";
export type { CounterSettings } from "./write/counter/settings";
export type { CounterStyle } from "./write/counter/style";
export type { Drum } from "./theory/instrument/drums";
export type { Dynamic, SungSyllable } from "./files/notation/marks";
export type { EngravedChord, EngravedStaff, StaffClef } from "./files/notation/staff";
export type { EngravedPart, EngravedPass } from "./files/notation/engrave";
export type { Family, Finding, FindingPlace, Fix, Severity } from "./judge/check/rule";
export type { FormPass } from "./song/form";
export type { Gate, ShapeStep } from "./write/bass/shape";
export type { HarmonicRhythm } from "./arrange/reharm/choices";
export type { Harmonization, HarmonizeRequest } from "./arrange/reharm/harmonize";
export type { ImpliedRoot } from "./write/bass/implied";
export type { InTheRoom, RoomOffer } from "./arrange/room/room";
export type { KickHit } from "./hear/slice/accents";
export type { Lattice } from "./search/lattice";
export type { Layout } from "./files/notation/slashes";
export type { Level } from "./song/playing";
export type { Link, OwnInstrument, Part, Pass, Section, Waiver } from "./song/schema/song";
export type { NoteName, PitchName, Semitones } from "./theory/pitch/pitch";
export type { MidiChoices } from "./files/midiImport";
export type { MidiContents, MidiTrack } from "./files/midiRead";
export type { MomentNote } from "./judge/check/moment";
export type { Nearness } from "./arrange/groove/reference";
export type { NeckKey } from "./hear/singer/shapes";
export type { Order, PageBlock, Pages } from "./files/notation/pages";
export type { Overview, OverviewBar } from "./judge/check/overview";
export type { PageSection, SingerPage } from "./hear/singer/page";
export type { PlayedNote } from "./song/played";
export type { PlayerId } from "./song/players";
export type { Playing, PlayingOf, Profile, Way } from "./song/schema/playing";
export type { Problem, Result } from "./base/result";
export type { Steps } from "./base/steps";
export type { Progressed, SectionRequest } from "./arrange/reharm/section";
export type { Reader } from "./facts/memory";
export type { Reading } from "./theory/chord/identify";
export type { RealizedChord, RealizedNote, RealizedPart, RealizedSong, Timed } from "./song/realized";
export type { ReharmCandidate, ReharmRequest } from "./arrange/reharm/reharmonize";
export type { RoleSpan } from "./hear/slice/roles";
export type { RoughSpot } from "./write/vocal/spots";
export type { SafeFixes, SafeProgress } from "./judge/check/verify";
export type { SectionPath, SectionVoicing } from "./arrange/voicing/section";
export type { Chosen, Piece } from "./song/stretch";
export type { FigureShape } from "./arrange/figure/shape";
export type { Ground, Refitted } from "./arrange/figure/refit";
export type { BestBar } from "./arrange/figure/bestBars";
export type { TakeDifference } from "./song/takes";
export type { Heard, ListeningTest } from "./hear/harmony/listening";
export type { ForeignVoice, RestingStroke, VoiceRequest } from "./arrange/voicing/hands/voices";
export type { Unheld } from "./arrange/voicing/refit";
export type { HeldShape } from "./song/schema/material";
export type { Shape } from "./theory/instrument/fretboard";
export type { Stress, Syllable, WordBook } from "./hear/lyrics/syllables";
export type { SungKey, Zone } from "./hear/singer/fit";
export type { Swing } from "./theory/time/swing";
export type { TabMoment, Tablature } from "./files/notation/tab";
export type { Tension } from "./hear/harmony/scales";
export type { TermName, TopShape } from "./arrange/voicing/cost";
export type { Verdict } from "./arrange/reharm/verdict";
export type { VocalLines, VocalRequest } from "./write/vocal/write";
export type { VocalSchool } from "./write/vocal/school";
export type { VocalSettings } from "./write/vocal/settings";
export type { VoiceRange } from "./hear/singer/range";
export type { VoicingStyle } from "./arrange/voicing/style";
export type { WayOn } from "./song/onward";
export type { WeavePlace } from "./write/bass/others";
export type Meter = import("./theory/time/meter").Meter;
export type Chord = import("./theory/chord/chord").Chord;
export type Instrument = import("./theory/instrument/instruments").Instrument;
export type Clip = import("./song/clip").Clip;
export type Edit = import("./song/edits/list").Edit;
export type Key = import("./theory/pitch/key").Key;
export type Singer = import("./song/schema/song").Singer;
export type Song = import("./song/schema/song").Song;
export type Midi = import("./theory/pitch/pitch").Midi;
export type Format = import("./files/format").Format;
