import { fail, must, ok, type Result } from "../result";
import { nameInKey, parseKey, transposeKey, type Key } from "../pitch/key";
import { type Midi, mod, noteOf, pitchName, type PitchName, type Semitones, transposeNote } from "../pitch/pitch";
import type { Meter, Ticks } from "../time/meter";
import { chordSymbol, transposeChord, type Chord } from "../chord/chord";
import { parseChord } from "../chord/parse";
import { instrumentOf, type Clef, type Instrument } from "../instrument/instruments";
import { partOf, sectionKey, sectionMeter, sectionOf } from "../song/document";
import { realize, type RealizedHit, type RealizedNote, type RealizedSong } from "../song/realize";
import type { Song } from "../song/schema";
import { gridsOf, write, type NoteValue } from "./durations";
import { drumNotes, headOf, type Head } from "./percussion";
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
  notes: { id: string; pitch: PitchName; midi: Midi; tied: boolean; head?: Head }[];
  articulation: Articulation | null;
  /** A rest of a second voice that is silent: it takes its time and is not drawn. */
  hidden?: boolean;
}

export interface EngravedStaff {
  clef: Exclude<Clef, "grand"> | "percussion";
  /** Written an octave above (−1) or below (1) where it sounds, with an eight at the clef: a tenor's or a guitar's treble, a bass in a score at sounding pitch. */
  octave: 0 | -1 | 1;
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
export const STEPS = [0, 1, 1, 2, 2, 3, 3, 4, 5, 5, 6, 6];

/** A sounding pitch as an instrument reads it; `key` is the written key, where its notes are not named by the plain interval. */
export function writtenPitch(pitch: PitchName, midi: Midi, transposition: Semitones, key?: Key): PitchName {
  const name = noteOf(pitch);
  if (transposition % 12 === 0) return transposition ? pitchName(midi - transposition, name) : pitch;
  const up = mod(-transposition, 12);
  return pitchName(midi - transposition, key ? nameInKey(mod(midi - transposition, 12), key) : transposeNote(name, STEPS[up]!, up));
}

/** A chord symbol as the player of a transposing instrument reads it; "N.C." and what cannot be read stay. */
export function writtenSymbol(symbol: string, transposition: Semitones): string {
  const chord = transposition % 12 ? parseChord(symbol) : null;
  return chord?.ok ? chordSymbol(writtenChord(chord.value, transposition)) : symbol;
}

export function writtenChord(chord: Chord, transposition: Semitones): Chord {
  const up = mod(-transposition, 12);
  return up ? transposeChord(chord, (name) => transposeNote(name, STEPS[up]!, up)) : chord;
}

/** The key a transposing instrument reads, and whether it had to be respelled. */
function writtenKey(home: Key, transposition: Semitones): { key: Key; respelled: boolean } {
  if (transposition % 12 === 0) return { key: home, respelled: false };
  const up = mod(-transposition, 12);
  const key = transposeKey(home, up);
  return { key, respelled: key.tonic !== transposeNote(home.tonic, STEPS[up]!, up) };
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

/** How the player of an instrument reads a key: the written key, the notes, an octave clef, and how many voices a staff takes. */
function readingOf(instrument: Instrument, home: Key, written: boolean, notes: readonly RealizedNote[]) {
  const octaves = instrument.transposition % 12 === 0;
  const shift = octaves ? instrument.transposition : written ? instrument.transposition : 0;
  const { key, respelled } = writtenKey(home, shift);
  const far = shift === 0 && instrument.clef !== "grand" ? farFrom(instrument.clef, notes) : 0;
  // A bass player knows that the part sounds an octave lower; in a score at sounding pitch an eight says so.
  const octave: EngravedStaff["octave"] = shift === -12 && (instrument.clef === "treble" || !written) ? -1 : far;
  const lifted = far ? far * 12 : shift;
  return {
    key,
    read: (n: RealizedNote) => writtenPitch(n.pitch, n.midi, lifted, respelled ? key : undefined),
    octave,
    // On strings one row of numbers stands under one row of notes.
    voices: (instrument.held.by === "frets" ? 1 : 2) as 1 | 2,
  };
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
  const notes = realize(song, { section: sectionId }).parts.find((p) => p.id === partId)!.notes;
  const { key, ...reading } = readingOf(instrument, sectionKey(song, section), options.written ?? false, notes);
  const staves = stavesOf({ clefs: staffClefs(instrument.clef, notes), notes, meter, bars: section.bars, ...reading });
  return ok({ part: partId, name: part.name, meter, key, staves });
}

/** The drums of a section on a percussion staff: hands with stems up, feet down. Errors: `notation.place`. */
export function engraveDrums(song: Song, sectionId: string, partId: string): Result<EngravedPart> {
  const section = sectionOf(song, sectionId);
  const part = partOf(song, partId);
  if (!section || part?.role !== "drums") return fail("notation.place", `No section "${sectionId}" or drum part "${partId}"`);
  const meter = sectionMeter(song, section);
  const { hits } = realize(song, { section: sectionId });
  return ok({ part: partId, name: part.name, meter, key: NO_KEY, staves: [drumStaff(hits, 0, meter, section.bars)] });
}

/** Percussion has no key signature. */
const NO_KEY: Key = must(parseKey("C major"));

function drumStaff(hits: readonly RealizedHit[], from: number, meter: Meter, bars: number): EngravedStaff {
  const length = bars * meter.bar;
  const [hands, feet] = drumNotes(
    hits.filter((h) => h.start >= from && h.start < from + length),
    from,
    meter,
  );
  // Feet alone are written in one voice.
  const [upper, lower] = hands.length ? [hands, feet] : [feet, []];
  const signed = (chords: EngravedChord[]) =>
    chords.map((c) => ({
      ...c,
      notes: c.notes.map((n) => {
        const head = headOf(n.id);
        return { ...n, tied: false, ...(head ? { head } : {}) };
      }),
    }));
  const [staff] = stavesOf({ clefs: ["percussion"], notes: upper, under: lower, meter, bars, octave: 0, read: (n) => n.pitch, voices: 1 });
  return { ...staff!, measures: staff!.measures.map(signed), second: staff!.second.map(signed) };
}

/** A part in one pass of the form, as its player reads it; places count from the beginning of the pass. */
export interface EngravedPass extends EngravedPart {
  pass: string;
  bars: number;
}

/** A part through the whole form, pass by pass; an upbeat to a later pass stands in the last bar of the one before. Errors: `notation.place`. */
export function engraveForm(song: Song, real: RealizedSong, partId: string): Result<EngravedPass[]> {
  const part = partOf(song, partId);
  const realized = real.parts.find((p) => p.id === partId);
  if (!part || !realized) return fail("notation.place", `No part "${partId}"`);
  if (part.role === "drums")
    return ok(
      real.sections.map((s): EngravedPass => {
        const staves = [drumStaff(real.hits, s.start, s.meter, s.bars)];
        return { part: partId, name: part.name, meter: s.meter, key: NO_KEY, pass: s.pass, bars: s.bars, staves };
      }),
    );
  const instrument = instrumentOf(part.instrument, song);
  const clefs = staffClefs(instrument.clef, realized.notes);
  return ok(
    real.sections.map((s, i): EngravedPass => {
      const { key, ...reading } = readingOf(instrument, s.key, true, realized.notes);
      const notes = realized.notes
        .filter((n) => n.start < s.start + s.duration && (n.start >= s.start || (i === 0 && n.start < 0)))
        .map((n) => ({ ...n, start: n.start - s.start }));
      const staves = stavesOf({ clefs, notes, meter: s.meter, bars: s.bars, ...reading });
      return { part: partId, name: part.name, meter: s.meter, key, pass: s.pass, bars: s.bars, staves };
    }),
  );
}

/** All pitched parts of a section together on two staves, as they sound. Errors: `notation.place`. */
export function engraveGrand(song: Song, sectionId: string): Result<EngravedPart> {
  const section = sectionOf(song, sectionId);
  if (!section) return fail("notation.place", `No section "${sectionId}"`);
  const meter = sectionMeter(song, section);
  const notes = realize(song, { section: sectionId }).parts.flatMap((p) => (p.role === "drums" || p.muted ? [] : p.notes));
  const staves = stavesOf({ clefs: ["treble", "bass"], notes, meter, bars: section.bars, octave: 0, read: (n) => n.pitch, voices: 2 });
  return ok({ part: "all", name: "All parts", meter, key: sectionKey(song, section), staves });
}

type StaffClef = EngravedStaff["clef"];

/** The staves of an instrument: two for a keyboard, but a hand that is silent throughout has none. */
function staffClefs(clef: Clef, notes: readonly RealizedNote[]): StaffClef[] {
  if (clef !== "grand") return [clef];
  const [right, left] = handsOf(notes);
  if (!left.length && right.length) return ["treble"];
  if (!right.length && left.length) return ["bass"];
  return ["treble", "bass"];
}

interface StavesRequest {
  clefs: readonly StaffClef[];
  notes: readonly RealizedNote[];
  meter: Meter;
  bars: number;
  octave: EngravedStaff["octave"];
  read(note: RealizedNote): PitchName;
  voices: 1 | 2;
  /** What the lower voice has, where that is known. */
  under?: readonly RealizedNote[];
}

function stavesOf({ clefs, notes, meter, bars, octave, read, voices, under = [] }: StavesRequest): EngravedStaff[] {
  const length = bars * meter.bar;
  const staff = (clef: StaffClef, own: readonly RealizedNote[]): EngravedStaff => {
    const [upper, lower] = voices === 1 ? [own, under] : voicesOf(own);
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
  if (clefs.length === 1) return [staff(clefs[0]!, notes)];
  const [right, left] = handsOf(notes);
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
