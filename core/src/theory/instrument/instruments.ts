import { firstOf } from "../../base/list";
import { must } from "../../base/result";
import { parsePitch, type Midi, type PitchName, type Semitones } from "../pitch/pitch";

/** The sounds the band can make; own instruments borrow one of them. */
export const SOUNDS = [
  "piano",
  "keys",
  "organ",
  "pad",
  "pluck",
  "electric",
  "bass",
  "upright",
  "sub",
  "strings",
  "flute",
  "reed",
  "brass",
  "mallet",
  "pan",
  "voice",
  "drums",
] as const;
export type SoundKind = (typeof SOUNDS)[number];

export const CLEFS = ["treble", "alto", "tenor", "bass", "grand"] as const;
export type Clef = (typeof CLEFS)[number];

export const ROLES = ["drums", "bass", "chords", "melody", "counter", "vocal"] as const;
export type Role = (typeof ROLES)[number];

/**
 * How it is held: keys under two hands (the widest span of one in semitones), strings with frets (open strings as
 * drawn, number of frets, vibrating length in millimetres), or note by note.
 */
export type Held =
  | { by: "hands"; span: Semitones }
  | { by: "frets"; strings: PitchName[]; frets: number; scale: number }
  | { by: "notes" };

export interface Instrument {
  id: string;
  title: string;
  /** Sounding range. */
  range: [PitchName, PitchName];
  /** Where it is at ease, sounding. */
  comfortable: [PitchName, PitchName];
  clef: Clef;
  /** Sounding pitch less written pitch: −2 for an instrument in B flat. */
  transposition: Semitones;
  /** How many notes sound at once. */
  polyphony: number;
  held: Held;
  /** General MIDI program, 0-based (GM System Level 1). */
  program: number;
  sound: SoundKind;
  roles: Role[];
  source: string;
}

// Both from memory.
const HANDBOOK = "orchestration handbooks";
const CHOIR = "Kostka & Payne, Tonal Harmony (four-part ranges)";
const CHORDS: Role[] = ["chords", "melody", "counter"];
const MELODIC: Role[] = ["melody", "counter", "chords"];
const SUNG: Role[] = ["melody", "counter", "vocal", "chords"];
const BASS: Role[] = ["bass", "counter"];

/** Octave to a ninth under one hand; a tenth is for few (common practice). */
const KEYS: Held = { by: "hands", span: 14 };
const NOTES: Held = { by: "notes" };
const frets = (strings: string, count: number, scale: number): Held => ({
  by: "frets",
  strings: strings.split(" "),
  frets: count,
  scale,
});

type Row = [
  id: string,
  title: string,
  range: string,
  comfortable: string,
  clef: Clef,
  transposition: Semitones,
  polyphony: number,
  held: Held,
  program: number,
  sound: SoundKind,
  roles: Role[],
  source?: string,
];

const GUITAR = "E2 A2 D3 G3 B3 E4";
const BASS_STRINGS = "E1 A1 D2 G2";

const ROWS: Row[] = [
  ["piano", "Grand piano", "A0 C8", "C2 C6", "grand", 0, 10, KEYS, 0, "piano", CHORDS],
  ["electricPiano", "Electric piano", "E1 E7", "C2 C6", "grand", 0, 10, KEYS, 4, "keys", CHORDS],
  ["organ", "Organ", "C2 C7", "C2 C6", "grand", 0, 10, KEYS, 16, "organ", CHORDS],
  ["pad", "Pad", "C1 C7", "C3 C6", "grand", 0, 10, KEYS, 89, "pad", CHORDS, "common practice"],
  [
    "nylonGuitar",
    "Nylon-string guitar",
    "E2 B5",
    "E2 E5",
    "treble",
    -12,
    6,
    frets(GUITAR, 19, 650),
    24,
    "pluck",
    CHORDS,
  ],
  ["guitar", "Steel-string guitar", "E2 C6", "E2 A5", "treble", -12, 6, frets(GUITAR, 20, 645), 25, "pluck", CHORDS],
  [
    "electricGuitar",
    "Electric guitar",
    "E2 D6",
    "E2 B5",
    "treble",
    -12,
    6,
    frets(GUITAR, 22, 640),
    27,
    "electric",
    CHORDS,
  ],
  ["ukulele", "Ukulele", "C4 A5", "C4 G5", "treble", 0, 4, frets("G4 C4 E4 A4", 15, 380), 24, "pluck", CHORDS],
  ["doubleBass", "Double bass", "E1 C4", "E1 D3", "bass", -12, 1, NOTES, 32, "upright", BASS],
  [
    "bassGuitar",
    "Bass guitar, four strings",
    "E1 G4",
    "E1 D3",
    "bass",
    -12,
    4,
    frets(BASS_STRINGS, 24, 864),
    33,
    "bass",
    BASS,
  ],
  [
    "bassGuitar5",
    "Bass guitar, five strings",
    "B0 G4",
    "B0 D3",
    "bass",
    -12,
    5,
    frets(`B0 ${BASS_STRINGS}`, 24, 864),
    33,
    "bass",
    BASS,
  ],
  [
    "subBass",
    "Sub bass",
    "C1 C3",
    "E1 E2",
    "bass",
    0,
    1,
    NOTES,
    38,
    "sub",
    BASS,
    "common practice: below C1 most loudspeakers no longer speak",
  ],
  ["violin", "Violin", "G3 A7", "G3 E6", "treble", 0, 1, NOTES, 40, "strings", MELODIC],
  ["viola", "Viola", "C3 E6", "C3 A5", "alto", 0, 1, NOTES, 41, "strings", MELODIC],
  ["cello", "Cello", "C2 C6", "C2 G4", "bass", 0, 1, NOTES, 42, "strings", [...MELODIC, "bass"]],
  ["strings", "String section", "E1 A7", "C2 E6", "grand", 0, 8, NOTES, 48, "strings", MELODIC],
  ["flute", "Flute", "C4 D7", "E4 A6", "treble", 0, 1, NOTES, 73, "flute", MELODIC],
  ["clarinet", "Clarinet in Bb", "D3 G6", "D3 C6", "treble", -2, 1, NOTES, 71, "reed", MELODIC],
  ["altoSax", "Alto saxophone in Eb", "Db3 Ab5", "F3 Eb5", "treble", -9, 1, NOTES, 65, "reed", MELODIC],
  ["tenorSax", "Tenor saxophone in Bb", "Ab2 Eb5", "C3 Bb4", "treble", -14, 1, NOTES, 66, "reed", MELODIC],
  ["trumpet", "Trumpet in Bb", "E3 Bb5", "Bb3 F5", "treble", -2, 1, NOTES, 56, "brass", MELODIC],
  ["trombone", "Trombone", "E2 Bb4", "Bb2 F4", "bass", 0, 1, NOTES, 57, "brass", [...MELODIC, "bass"]],
  ["vibraphone", "Vibraphone", "F3 F6", "F3 F6", "treble", 0, 4, NOTES, 11, "mallet", CHORDS],
  ["steelPan", "Steel pan", "C4 F6", "D4 D6", "treble", 0, 2, NOTES, 114, "pan", CHORDS],
  ["soprano", "Soprano", "C4 G5", "E4 E5", "treble", 0, 1, NOTES, 52, "voice", SUNG, CHOIR],
  ["mezzo", "Mezzo-soprano", "A3 F5", "C4 D5", "treble", 0, 1, NOTES, 52, "voice", SUNG],
  ["alto", "Alto", "F3 D5", "A3 B4", "treble", 0, 1, NOTES, 52, "voice", SUNG, CHOIR],
  ["tenor", "Tenor", "C3 G4", "E3 E4", "treble", -12, 1, NOTES, 52, "voice", SUNG, CHOIR],
  ["baritone", "Baritone", "A2 E4", "C3 C4", "bass", 0, 1, NOTES, 52, "voice", SUNG],
  ["bassVoice", "Bass voice", "E2 C4", "G2 A3", "bass", 0, 1, NOTES, 52, "voice", SUNG, CHOIR],
  ["choir", "Choir", "E2 G5", "G2 E5", "grand", 0, 8, NOTES, 52, "voice", SUNG, CHOIR],
  ["drums", "Drum set", "C1 C4", "C1 C4", "bass", 0, 16, NOTES, 0, "drums", ["drums"]],
];

/** The instruments every song knows. Ranges are sounding. */
export const INSTRUMENTS: readonly Instrument[] = ROWS.map(
  ([
    id,
    title,
    range,
    comfortable,
    clef,
    transposition,
    polyphony,
    held,
    program,
    sound,
    roles,
    source = HANDBOOK,
  ]) => ({
    id,
    title,
    range: range.split(" ") as [string, string],
    comfortable: comfortable.split(" ") as [string, string],
    clef,
    transposition,
    polyphony,
    held,
    program,
    sound,
    roles,
    source,
  }),
);

/** Anything that may bring instruments of its own: a song, or a realized one. */
export interface WithInstruments {
  instruments?: readonly Instrument[] | undefined;
}

/**
 * The instrument with an id: the song's own one first, so that a song may change a known instrument for itself. An
 * unknown id gives the piano, so that a song never falls silent.
 */
export const instrumentOf = (id: string, song?: WithInstruments): Instrument =>
  song?.instruments?.find((i) => i.id === id) ?? INSTRUMENTS.find((i) => i.id === id) ?? firstOf(INSTRUMENTS);

/** All instruments a song can choose from: the known ones, changed and joined by its own. */
export function instrumentsFor(song: WithInstruments): Instrument[] {
  const own = song.instruments ?? [];
  return [
    ...INSTRUMENTS.map((i) => own.find((o) => o.id === i.id) ?? i),
    ...own.filter((o) => !INSTRUMENTS.some((i) => i.id === o.id)),
  ];
}

export const midiRange = (range: readonly [PitchName, PitchName]): [Midi, Midi] => [
  must(parsePitch(range[0])),
  must(parsePitch(range[1])),
];
