import { firstOf, lastOf, nth, sure } from "../../base/list";
import { given } from "../../base/given";
import { fail, ok, type Result } from "../../base/result";
import {
  mod,
  noteName,
  parseNote,
  parsePitch,
  plainName,
  pitchMidi,
  pitchName,
  spelledPc,
  type Midi,
  type PitchName,
  type Semitones,
} from "../pitch/pitch";
import { identifyChords, type Reading } from "./identify";

/** Common tunings, sixth (lowest drawn) string first. */
export const TUNINGS: { id: string; title: string; strings: PitchName[] }[] = [
  { id: "guitar", title: "Guitar, standard", strings: ["E2", "A2", "D3", "G3", "B3", "E4"] },
  { id: "dropD", title: "Guitar, drop D", strings: ["D2", "A2", "D3", "G3", "B3", "E4"] },
  { id: "openD", title: "Guitar, open D", strings: ["D2", "A2", "D3", "F#3", "A3", "D4"] },
  { id: "openG", title: "Guitar, open G", strings: ["D2", "G2", "D3", "G3", "B3", "D4"] },
  { id: "dadgad", title: "Guitar, D A D G A D", strings: ["D2", "A2", "D3", "G3", "A3", "D4"] },
  { id: "ukulele", title: "Ukulele, high G", strings: ["G4", "C4", "E4", "A4"] },
  { id: "ukuleleLow", title: "Ukulele, low G", strings: ["G3", "C4", "E4", "A4"] },
  { id: "bass", title: "Bass, four strings", strings: ["E1", "A1", "D2", "G2"] },
  { id: "bass5", title: "Bass, five strings", strings: ["B0", "E1", "A1", "D2", "G2"] },
];

export const MAX_FRET = 24;

export interface FretShape {
  /** Frets from the first string of the tuning to the last, counted from the capo; null is not played. */
  frets: readonly (number | null)[];
  tuning?: readonly PitchName[];
  /** Frets the capo raises all strings by. */
  capo?: Semitones;
  key?: string;
  /** Symbols of the chords that stand before and after it. */
  before?: string;
  after?: string;
}

export interface FretReadings {
  /** Readings of the shape as if there were no capo. */
  shape: Reading[];
  sounding: Reading[];
  /** Sounding pitches, in the order of the strings. */
  pitches: PitchName[];
}

/** Names a shape and what sounds; both lists are empty where `fretReadings` would name an error. */
export function identifyFrets(request: FretShape): FretReadings {
  const result = fretReadings(request);
  return result.ok ? result.value : { shape: [], sounding: [], pitches: [] };
}

/** A tuning whose strings do not rise from first to last has no true bass string. */
export const isReentrant = (tuning: readonly PitchName[]): boolean => comesBack(tuning.map(pitchMidi));

/** Errors: `frets.count`, `frets.range`, `frets.few`, `frets.capo`, `pitch.*` for the tuning. */
export function fretReadings({
  frets,
  tuning = firstOf(TUNINGS).strings,
  capo = 0,
  key,
  before,
  after,
}: FretShape): Result<FretReadings> {
  if (frets.length !== tuning.length)
    return fail("frets.count", `The shape has ${frets.length} strings and the tuning ${tuning.length}`, {
      hint: `Write ${tuning.length} frets, x for a string that is not played.`,
    });
  if (!Number.isInteger(capo) || capo < 0 || capo > 12)
    return fail("frets.capo", `A capo sits on fret 0 to 12, not ${capo}`);
  const open: Midi[] = [];
  for (const string of tuning) {
    const midi = parsePitch(string);
    if (!midi.ok) return midi;
    open.push(midi.value);
  }
  const wrong = frets.find((f) => f !== null && (!Number.isInteger(f) || f < 0 || f + capo > MAX_FRET));
  if (wrong !== undefined)
    return fail("frets.range", `Fret ${wrong} is not on the neck`, { hint: `Frets go from 0 to ${MAX_FRET - capo}.` });
  const played = frets.flatMap((fret, i) => (fret === null ? [] : [nth(open, i) + fret]));
  if (new Set(played.map((m) => mod(m, 12))).size < 2)
    return fail("frets.few", "A chord needs at least two different notes", { hint: "Write frets such as x32010." });
  const noBass = isReentrant(tuning);
  // Under a capo the shape is another chord than what stands around it.
  const read = (midis: Midi[], around: Around = {}) => respelled(midis, noBass, around);
  const around = { key, before, after };
  const shape = read(played);
  let sounding: { readings: Reading[]; pitches: PitchName[] };
  if (capo)
    sounding = read(
      played.map((m) => m + capo),
      around,
    );
  else if (key || before || after) sounding = read(played, around);
  else sounding = shape;
  return ok({ shape: shape.readings, sounding: sounding.readings, pitches: sounding.pitches });
}

/** What helps to name a chord: the key, and what stands before and after it. */
type Around = { [K in "key" | "before" | "after"]?: string | undefined };

/** Readings of notes that have no spelling yet: roots get their usual names, the notes follow the first reading. */
function respelled(
  midis: readonly Midi[],
  noBass: boolean,
  around: Around,
): { readings: Reading[]; pitches: PitchName[] } {
  const first = identifyPlain(midis, true, noBass, around);
  const root = first[0] ? sure(/^[A-G][b#]?/.exec(first[0].symbol))[0] : "C";
  const flats =
    root.includes("b") || /^[FC]/.test(root) || (/^[DG]/.test(root) && /^[DG]m/.test(firstOf(first).symbol));
  const readings = identifyPlain(midis, flats, noBass, around);
  return { readings, pitches: midis.map((m) => pitchName(m, plainName(m, flats))) };
}

/** Names notes by MIDI number alone, with roots as they are usually written. */
function identifyPlain(midis: readonly Midi[], flats: boolean, noBass: boolean, around: Around): Reading[] {
  return identifyChords({
    pitches: midis.map((m) => pitchName(m, plainName(m, flats))),
    soundsOnly: true,
    noBass,
    ...given(around),
  });
}

/** Reads "x32010", "x 3 2 0 1 0" or "10-12-12-11-10-10"; x, X, m and - alone are strings that are not played. */
export function parseFrets(text: string): Result<(number | null)[]> {
  const trimmed = text.trim();
  let parts: string[];
  if (/[\s,]/.test(trimmed)) parts = trimmed.split(/[\s,]+/);
  else if (/\d-|-\d|x-/i.test(trimmed)) parts = trimmed.split("-");
  else parts = [...trimmed];
  const frets: (number | null)[] = [];
  for (const [i, part] of parts.entries()) {
    if (/^[xXmM-]$/.test(part)) frets.push(null);
    else if (/^\d{1,2}$/.test(part)) frets.push(Number(part));
    else
      return fail("frets.text", `"${part}" (string ${i + 1}) is not a fret`, {
        hint: "Write a number a string, x for silence: x32010 or 10 12 12 11 10 10.",
      });
  }
  return frets.length ? ok(frets) : fail("frets.text", "There is no fret here", { hint: "Write for example x32010." });
}

/**
 * Reads a tuning as text: "D2 A2 D3 G3 B3 E4", or without octaves, "D A D F# A D": each string then lies nearest to the
 * usual one.
 */
export function parseTuning(text: string, like: readonly PitchName[]): Result<PitchName[]> {
  const parts = /[\s,]/.test(text.trim())
    ? text.trim().split(/[\s,]+/)
    : (text.trim().match(/[A-Ga-g][b#]?\d?/g) ?? []);
  if (parts.length < 3 || parts.length > 12)
    return fail("tuning.count", `A tuning has 3 to 12 strings; this has ${parts.length}`, {
      hint: "Write for example D A D F# A D, lowest drawn string first.",
    });
  const strings: PitchName[] = [];
  for (const [i, part] of parts.entries()) {
    const name = sure(part[0]).toUpperCase() + part.slice(1);
    const plain = parseNote(name);
    if (!plain) {
      const pitch = parsePitch(name);
      if (!pitch.ok)
        return fail("tuning.note", `String ${i + 1}: "${part}" is not a note`, {
          hint: "Write notes like D, F# or Eb3.",
        });
      strings.push(name);
      continue;
    }
    let near: number;
    if (like[i]) near = pitchMidi(nth(like, i));
    else if (strings.length) near = pitchMidi(lastOf(strings)) + 5;
    else near = 40;
    const midi = near + mod(spelledPc(plain) - near + 6, 12) - 6;
    strings.push(pitchName(midi, noteName(plain)));
  }
  return ok(strings);
}

/** Whether the strings, first drawn one first, do not rise all the way: a re-entrant tuning. */
export function comesBack(strings: readonly Midi[]): boolean {
  return strings.some((s, i) => i > 0 && s < nth(strings, i - 1));
}
