import { nth } from "../../base/list";
import { LETTERS } from "../../theory/pitch/interval";
import { nameInKey, transposeKey, type Key } from "../../theory/pitch/key";
import {
  type Midi,
  mod,
  noteOf,
  pitchName,
  type PitchName,
  type Semitones,
  transposeNote,
} from "../../theory/pitch/pitch";
import { chordSymbol, transposeChord, type Chord } from "../../theory/chord/chord";
import { parseChord } from "../../theory/chord/parse";
import type { Clef, Instrument } from "../../theory/instrument/instruments";
import type { RealizedNote } from "../../song/realize";
import type { EngravedStaff } from "./staff";

/**
 * A sounding pitch as an instrument reads it; `key` is the written key, where its notes are not named by the plain
 * interval.
 */
export function writtenPitch(pitch: PitchName, midi: Midi, transposition: Semitones, key?: Key): PitchName {
  const name = noteOf(pitch);
  if (transposition % 12 === 0) return transposition ? pitchName(midi - transposition, name) : pitch;
  const up = mod(-transposition, 12);
  return pitchName(
    midi - transposition,
    key ? nameInKey(mod(midi - transposition, 12), key) : transposeNote(name, nth(LETTERS, up), up),
  );
}

/** A chord symbol as the player of a transposing instrument reads it; "N.C." and what cannot be read stay. */
export function writtenSymbol(symbol: string, transposition: Semitones): string {
  const chord = transposition % 12 ? parseChord(symbol) : null;
  return chord?.ok ? chordSymbol(writtenChord(chord.value, transposition)) : symbol;
}

export function writtenChord(chord: Chord, transposition: Semitones): Chord {
  const up = mod(-transposition, 12);
  return up ? transposeChord(chord, (name) => transposeNote(name, nth(LETTERS, up), up)) : chord;
}

/** The key a transposing instrument reads, and whether it had to be respelled. */
export function writtenKey(home: Key, transposition: Semitones): { key: Key; respelled: boolean } {
  if (transposition % 12 === 0) return { key: home, respelled: false };
  const up = mod(-transposition, 12);
  const key = transposeKey(home, up);
  return { key, respelled: key.tonic !== transposeNote(home.tonic, nth(LETTERS, up), up) };
}

/** The middle line of each clef, and how far from it four ledger lines reach. */
const MIDDLE_LINE: Record<Exclude<Clef, "grand">, Midi> = { treble: 71, bass: 50, alto: 60, tenor: 57 };
const FOUR_LEDGERS: Semitones = 21;

/** Whether most of a part lies past four ledger lines: −1 below, written an octave higher; 1 above. */
function farFrom(clef: Exclude<Clef, "grand">, notes: readonly RealizedNote[]): -1 | 0 | 1 {
  const off = (sign: 1 | -1) => notes.filter((n) => sign * (n.midi - MIDDLE_LINE[clef]) > FOUR_LEDGERS).length;
  if (off(-1) > notes.length / 4) return -1;
  return off(1) > notes.length / 4 ? 1 : 0;
}

/** How a part is read. */
export interface StaffReading {
  key: Key;
  octave: EngravedStaff["octave"];
  /** Semitones from where it is read up to where it sounds. */
  lifted: Semitones;
  /** The pitch a player reads, as its name moves with the key. */
  read(note: { pitch: PitchName; midi: Midi }): PitchName;
  chord(chord: Chord): Chord;
  /** How many voices a staff takes. */
  voices: 1 | 2;
}

/**
 * How the player of an instrument reads a key: the written key, the notes, an octave clef, and how many voices a staff
 * takes.
 */
export function readingOf(
  instrument: Instrument,
  home: Key,
  written: boolean,
  notes: readonly RealizedNote[],
): StaffReading {
  const octaves = instrument.transposition % 12 === 0;
  const shift = octaves || written ? instrument.transposition : 0;
  const { key, respelled } = writtenKey(home, shift);
  const far = shift === 0 && instrument.clef !== "grand" ? farFrom(instrument.clef, notes) : 0;
  // A bass player knows that the part sounds an octave lower; in a score at sounding pitch an eight says so.
  const octave: EngravedStaff["octave"] = shift === -12 && (instrument.clef === "treble" || !written) ? -1 : far;
  const lifted = far ? far * 12 : shift;
  return {
    key,
    octave,
    lifted,
    read: (n) => writtenPitch(n.pitch, n.midi, lifted, respelled ? key : undefined),
    chord: (chord) => writtenChord(chord, shift),
    // On strings one row of numbers stands under one row of notes.
    voices: instrument.held.by === "frets" ? 1 : 2,
  };
}
