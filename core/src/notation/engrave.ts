import { fail, ok, type Result } from "../result";
import { nameInKey, transposeKey, type Key } from "../pitch/key";
import { type Midi, mod, noteOf, pitchName, type PitchName, type Semitones, transposeNote } from "../pitch/pitch";
import type { Meter, Ticks } from "../time/meter";
import { instrumentOf, type Clef } from "../instrument/instruments";
import { partOf, sectionKey, sectionMeter, sectionOf } from "../song/document";
import { realize, type RealizedNote } from "../song/realize";
import type { Song } from "../song/schema";
import { gridsOf, snapEdge, write, type NoteValue } from "./durations";

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
}

export interface EngravedStaff {
  clef: Exclude<Clef, "grand">;
  /** Written an octave away from where it sounds, for a tenor's or a guitar's treble clef. */
  octave: 0 | -1;
  /** The upbeat, where there is one, without its leading rests. */
  pickup: EngravedChord[];
  measures: EngravedChord[][];
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

/** Below this note (middle C) a grand staff writes on its lower staff. */
const MIDDLE: Midi = 60;

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
  const staves = stavesOf(instrument.clef, notes, octave, meter, section.bars, read);
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
): EngravedStaff[] {
  const length = bars * meter.bar;
  const staff = (clef: EngravedStaff["clef"], own: readonly RealizedNote[]): EngravedStaff => ({
    clef,
    octave,
    pickup: own.some((n) => n.start < 0) ? withoutRests(measure(own, -meter.bar, meter, length, read)) : [],
    measures: Array.from({ length: bars }, (_, bar) => measure(own, bar * meter.bar, meter, length, read)),
  });
  return clefs === "grand"
    ? [
        staff(
          "treble",
          notes.filter((n) => n.midi >= MIDDLE),
        ),
        staff(
          "bass",
          notes.filter((n) => n.midi < MIDDLE),
        ),
      ]
    : [staff(clefs, notes)];
}

const withoutRests = (chords: EngravedChord[]): EngravedChord[] =>
  chords.slice(
    Math.max(
      0,
      chords.findIndex((c) => c.notes.length),
    ),
  );

/** One bar of a staff, in one voice: wherever a note begins or ends, a new chord is written and what goes on is tied. */
function measure(
  notes: readonly RealizedNote[],
  from: Ticks,
  meter: Meter,
  length: Ticks,
  written: (note: RealizedNote) => PitchName,
): EngravedChord[] {
  const to = Math.min(length, from + meter.bar);
  const here = notes
    .map((n) => ({ n, start: Math.max(n.start, from), end: Math.min(n.start + n.duration, to) }))
    .filter((x) => x.end > x.start);
  const grids = gridsOf(
    meter,
    here.flatMap((x) => [x.start - from, x.end - from]),
  );
  const snapped = here
    .map((x) => ({
      ...x,
      start: snapEdge(x.start - from, grids),
      end: snapEdge(x.end - from, grids),
      goesOn: x.n.start + x.n.duration > to && to < length,
    }))
    .map((x) => (x.end > x.start ? x : { ...x, end: Math.min(meter.bar, x.start + 60) }));
  const edges = [...new Set([0, meter.bar, ...snapped.flatMap((x) => [x.start, x.end])])].sort((a, b) => a - b);
  const out: EngravedChord[] = [];
  edges.slice(0, -1).forEach((start, i) => {
    const end = edges[i + 1]!;
    const sounding = snapped.filter((x) => x.start <= start && x.end >= end).sort((a, b) => a.n.midi - b.n.midi);
    const unique = sounding.filter((x, k) => k === 0 || x.n.midi !== sounding[k - 1]!.n.midi);
    const pieces = write(start, end, meter, grids);
    pieces.forEach((piece, k) => {
      const last = k === pieces.length - 1;
      out.push({
        ...piece,
        start: from + piece.start,
        notes: unique.map(({ n, end: stop, goesOn }) => ({
          id: n.id,
          midi: n.midi,
          pitch: written(n),
          tied: !last || stop > end || (stop === end && end === meter.bar && goesOn),
        })),
      });
    });
  });
  return out;
}
