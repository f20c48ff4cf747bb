import { must } from "../result";
import { parsePitch, type Midi, type PitchName } from "../pitch/pitch";

export type SoundKind = "piano" | "bass" | "upright" | "sub" | "voice" | "reed" | "pluck" | "keys" | "drums";

export interface Instrument {
  id: string;
  title: string;
  /** Sounding range. */
  range: [PitchName, PitchName];
  /** Where it is at ease. */
  comfortable: [PitchName, PitchName];
  /** General MIDI program, 0-based (GM System Level 1). */
  program: number;
  sound: SoundKind;
  roles: ("drums" | "bass" | "chords" | "melody" | "counter" | "vocal")[];
  source: string;
}

const HANDBOOK = "orchestration handbooks, values from memory";
const CHOIR = "Kostka & Payne, Tonal Harmony (four-part ranges), value from memory";
const MELODIC: Instrument["roles"] = ["melody", "counter"];
const SUNG: Instrument["roles"] = ["melody", "counter", "vocal"];

const row = (
  id: string,
  title: string,
  range: string,
  comfortable: string,
  program: number,
  sound: SoundKind,
  roles: Instrument["roles"],
  source = HANDBOOK,
): Instrument => ({
  id,
  title,
  range: range.split(" ") as [string, string],
  comfortable: comfortable.split(" ") as [string, string],
  program,
  sound,
  roles,
  source,
});

/** Instruments of the first version. Ranges are sounding. */
export const INSTRUMENTS: readonly Instrument[] = [
  row("piano", "Piano", "A0 C8", "C2 C6", 0, "piano", ["chords", ...MELODIC]),
  row("electricPiano", "Electric piano", "E1 E7", "C2 C6", 4, "keys", ["chords", ...MELODIC]),
  row("bassGuitar", "Bass guitar", "E1 G4", "E1 D3", 33, "bass", ["bass"]),
  row("doubleBass", "Double bass", "E1 C4", "E1 D3", 32, "upright", ["bass"]),
  row("subBass", "Sub bass", "C1 C3", "E1 E2", 38, "sub", ["bass"], "common practice: below C1 most loudspeakers no longer speak"),
  row("soprano", "Soprano", "C4 G5", "E4 E5", 52, "voice", SUNG, CHOIR),
  row("mezzo", "Mezzo-soprano", "A3 F5", "C4 D5", 52, "voice", SUNG),
  row("alto", "Alto", "F3 D5", "A3 B4", 52, "voice", SUNG, CHOIR),
  row("tenor", "Tenor", "C3 G4", "E3 E4", 52, "voice", SUNG, CHOIR),
  row("baritone", "Baritone", "A2 E4", "C3 C4", 52, "voice", SUNG),
  row("bassVoice", "Bass voice", "E2 C4", "G2 A3", 52, "voice", SUNG, CHOIR),
  row("clarinet", "Clarinet in B flat", "D3 G6", "D3 C6", 71, "reed", MELODIC),
  row("guitar", "Steel-string guitar", "E2 E6", "E2 A5", 25, "pluck", MELODIC),
  row("drums", "Drum set", "C1 C4", "C1 C4", 0, "drums", ["drums"]),
];

/** The instrument with an id; an unknown id gives the piano, so that a song never falls silent. */
export const instrumentOf = (id: string): Instrument => INSTRUMENTS.find((i) => i.id === id) ?? INSTRUMENTS[0]!;

export const midiRange = (range: readonly [PitchName, PitchName]): [Midi, Midi] => [must(parsePitch(range[0])), must(parsePitch(range[1]))];
