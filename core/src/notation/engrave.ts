import { fail, ok, type Result } from "../result";
import { nameInKey, transposeKey, type Key } from "../pitch/key";
import { type Midi, mod, noteOf, pitchName, type PitchName, type Semitones, transposeNote } from "../pitch/pitch";
import type { Meter, Ticks } from "../time/meter";
import { instrumentOf, type Clef } from "../instrument/instruments";
import { partOf, sectionKey, sectionMeter, sectionOf } from "../song/document";
import { realize, type RealizedNote } from "../song/realize";
import type { Song } from "../song/schema";
import { gridsOf, write, type NoteValue } from "./durations";
import { writeRhythm, type Articulation, type WrittenAttack } from "./rhythm";
import { handsOf, voicesOf } from "./voices";

/** One written note, chord or rest. */
export interface EngravedChord {
  /** From the beginning of the section. */
  start: Ticks;
  ticks: Ticks;
  value: NoteValue;
  dots: 0 | 1;
  triplet: boolean;
  /** Low to high; empty for a rest. `tied` goes on into the next chord. */
  notes: { id: string; pitch: PitchName; midi: Midi; tied: boolean }[];
  articulation: Articulation | null;
  /** A rest of a second voice that is silent: it takes its time and is not drawn. */
  hidden?: boolean;
}

export interface EngravedStaff {
  clef: Exclude<Clef, "grand">;
  /** Written an octave away from where it sounds, for a tenor's or a guitar's treble clef. */
  octave: 0 | -1;
  /** The upbeat, where there is one, without its leading rests. */
  pickup: EngravedChord[];
  measures: EngravedChord[][];
  /** The lower of two voices, bar by bar; empty where one voice moves. */
  second: EngravedChord[][];
}

export interface EngravedPart {
  part: string;
  name: string;
  meter: Meter;
  /** Key as written for the player. */
  key: Key;
  staves: EngravedStaff[];
}

/** Letters an interval of so many semitones goes up. */
const STEPS = [0, 1, 1, 2, 2, 3, 3, 4, 5, 5, 6, 6];

/** A sounding pitch as an instrument reads it; `key` is the written key, where its notes are not named by the plain interval. */
export function writtenPitch(pitch: PitchName, midi: Midi, transposition: Semitones, key?: Key): PitchName {
  const name = noteOf(pitch);
  if (transposition % 12 === 0) return transposition ? pitchName(midi - transposition, name) : pitch;
  const up = mod(-transposition, 12);
  return pitchName(midi - transposition, key ? nameInKey(mod(midi - transposition, 12), key) : transposeNote(name, STEPS[up]!, up));
}

/** The key a transposing instrument reads, and whether it had to be respelled. */
function writtenKey(home: Key, transposition: Semitones): { key: Key; respelled: boolean } {
  if (transposition % 12 === 0) return { key: home, respelled: false };
  const up = mod(-transposition, 12);
  const key = transposeKey(home, up);
  return { key, respelled: key.tonic !== transposeNote(home.tonic, STEPS[up]!, up) };
}

/**
 * A part of a section as it is written: values tied over beats and bars, triplets, rests. With `written`, for the player of a transposing
 * instrument; otherwise at sounding pitch (but octave clefs stay). Errors: `notation.place`.
 */
export function engrave(song: Song, sectionId: string, partId: string, options: { written?: boolean } = {}): Result<EngravedPart> {
  const section = sectionOf(song, sectionId);
  const part = partOf(song, partId);
  if (!section || !part || part.role === "drums") return fail("notation.place", `No section "${sectionId}" or pitched part "${partId}"`);
  const instrument = instrumentOf(part.instrument, song);
  const meter = sectionMeter(song, section);
  const home = sectionKey(song, section);
  const octaves = instrument.transposition % 12 === 0;
  const shift = octaves ? instrument.transposition : options.written ? instrument.transposition : 0;
  const { key, respelled } = writtenKey(home, shift);
  const notes = realize(song, { section: sectionId }).parts.find((p) => p.id === partId)!.notes;
  const read = (n: RealizedNote) => writtenPitch(n.pitch, n.midi, shift, respelled ? key : undefined);
  const octave = octaves && shift === -12 && instrument.clef === "treble" ? -1 : 0;
  // On strings one row of numbers stands under one row of notes.
  const voices = instrument.held.by === "frets" ? 1 : 2;
  const staves = stavesOf(instrument.clef, notes, octave, meter, section.bars, read, voices);
  return ok({ part: partId, name: part.name, meter, key, staves });
}

/** All pitched parts of a section together on two staves, as they sound. Errors: `notation.place`. */
export function engraveGrand(song: Song, sectionId: string): Result<EngravedPart> {
  const section = sectionOf(song, sectionId);
  if (!section) return fail("notation.place", `No section "${sectionId}"`);
  const meter = sectionMeter(song, section);
  const notes = realize(song, { section: sectionId }).parts.flatMap((p) => (p.role === "drums" || p.muted ? [] : p.notes));
  const staves = stavesOf("grand", notes, 0, meter, section.bars, (n) => n.pitch);
  return ok({ part: "all", name: "All parts", meter, key: sectionKey(song, section), staves });
}

function stavesOf(
  clefs: Clef,
  notes: readonly RealizedNote[],
  octave: EngravedStaff["octave"],
  meter: Meter,
  bars: number,
  read: (note: RealizedNote) => PitchName,
  voices: 1 | 2 = 2,
): EngravedStaff[] {
  const length = bars * meter.bar;
  const staff = (clef: EngravedStaff["clef"], own: readonly RealizedNote[]): EngravedStaff => {
    const [upper, lower] = voices === 1 ? [own, []] : voicesOf(own);
    const [first, second] = [writeRhythm(upper, meter, length), writeRhythm(lower, meter, length)];
    const bar = (attacks: readonly WrittenAttack[], k: number) => measure(attacks, k * meter.bar, meter, length, read);
    const moves = (k: number) => second.some((a) => a.start < (k + 1) * meter.bar && a.end > k * meter.bar);
    return {
      clef,
      octave,
      pickup: own.some((n) => n.start < 0) ? withoutRests(bar(first, -1)) : [],
      measures: Array.from({ length: bars }, (_, k) => bar(first, k)),
      second: Array.from({ length: bars }, (_, k) =>
        moves(k) ? bar(second, k).map((c) => (c.notes.length ? c : { ...c, hidden: true })) : [],
      ),
    };
  };
  if (clefs !== "grand") return [staff(clefs, notes)];
  const [right, left] = handsOf(notes);
  // A hand that is silent throughout has no staff.
  if (!left.length && right.length) return [staff("treble", right)];
  if (!right.length && left.length) return [staff("bass", left)];
  return [staff("treble", right), staff("bass", left)];
}

const withoutRests = (chords: EngravedChord[]): EngravedChord[] =>
  chords.slice(
    Math.max(
      0,
      chords.findIndex((c) => c.notes.length),
    ),
  );

/** One bar of a voice: its attacks in values tied over beats and bars, and the rests between. */
function measure(
  attacks: readonly WrittenAttack[],
  from: Ticks,
  meter: Meter,
  length: Ticks,
  written: (note: RealizedNote) => PitchName,
): EngravedChord[] {
  const to = Math.min(length, from + meter.bar);
  const here = attacks.filter((a) => a.end > from && a.start < to);
  const grids = gridsOf(
    meter,
    here.filter((a) => a.start >= from).map((a) => a.start - from),
  );
  const out: EngravedChord[] = [];
  const rest = (start: Ticks, end: Ticks) => {
    for (const piece of write(start, end, meter, grids, true))
      out.push({ ...piece, start: from + piece.start, notes: [], articulation: null });
  };
  let at = 0;
  for (const a of here) {
    const start = Math.max(0, a.start - from);
    const end = Math.min(meter.bar, a.end - from);
    if (start > at) rest(at, start);
    const notes = [...new Map(a.notes.map((n) => [n.midi, n])).values()].sort((x, y) => x.midi - y.midi);
    const pieces = write(Math.max(at, start), end, meter, grids);
    pieces.forEach((piece, k) => {
      const last = k === pieces.length - 1;
      const tied = !last || (a.end > to && to < length);
      out.push({
        ...piece,
        start: from + piece.start,
        notes: notes.map((n) => ({ id: n.id, midi: n.midi, pitch: written(n), tied })),
        articulation: k === 0 && a.start >= from ? a.articulation : null,
      });
    });
    at = Math.max(at, end);
  }
  // A bar without notes is one rest, whatever its meter.
  if (!here.length) return [{ start: from, ticks: meter.bar, value: "w", dots: 0, triplet: false, notes: [], articulation: null }];
  if (at < meter.bar) rest(at, meter.bar);
  return out;
}
