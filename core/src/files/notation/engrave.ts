import { firstOf, nth, sure } from "../../base/list";
import { fail, must, ok, type Result } from "../../base/result";
import { parseKey, type Key } from "../../theory/pitch/key";
import type { Semitones } from "../../theory/pitch/pitch";
import type { Meter, Ticks } from "../../theory/time/meter";
import type { Chord } from "../../theory/chord/chord";
import { instrumentOf, type Clef } from "../../theory/instrument/instruments";
import { partOf, sectionOf } from "../../song/document";
import {
  chordAtTick,
  lastBegun,
  realize,
  type RealizedHit,
  type RealizedNote,
  type RealizedSection,
  type RealizedSong,
} from "../../song/realize";
import type { Song } from "../../song/schema";
import { withAccidentals } from "./accidentals";
import { withReadings } from "./clefs";
import { dynamicSigns } from "./marks";
import { DRUM_SIGNS, notesOfHits } from "./percussion";
import { readingOf, type StaffReading } from "./reading";
import { writeRhythm } from "./rhythm";
import { slashNotes, type Layout } from "./slashes";
import { mapChords, voicesIn, type EngravedChord, type EngravedStaff, type StaffClef } from "./staff";
import { barOf, voiceOf, type VoiceInBars } from "./voice";
import { handsOf, splitVoices } from "./voices";

export interface EngravedPart {
  part: string;
  name: string;
  meter: Meter;
  /** Key as written for the player. */
  key: Key;
  staves: EngravedStaff[];
}

export interface EngravingOptions {
  /** For the player of a transposing instrument; otherwise at sounding pitch (but octave clefs stay). */
  written?: boolean;
  /**
   * Passes stand by themselves: each has its own upbeat, and says its loudness anew where that is not the same
   * throughout.
   */
  apart?: boolean;
  /** Of a pitched part: its notes, its rhythm on slashes, or a slash a beat. */
  layout?: Layout;
  /**
   * Read as by an instrument that sounds so many semitones above what is written; the part's own instrument otherwise.
   */
  transposition?: Semitones;
}

/** A part in one pass of the form; places count from the beginning of the pass. */
export interface EngravedPass extends EngravedPart {
  pass: string;
  bars: number;
}

/**
 * A part of a section as it is written: values tied over beats and bars, triplets, rests; drums on a percussion staff.
 * Errors: `notation.place`.
 */
export function engrave(
  song: Song,
  sectionId: string,
  partId: string,
  options: { written?: boolean } = {},
): Result<EngravedPart> {
  const section = sectionOf(song, sectionId);
  if (!section) return fail("notation.place", `No section "${sectionId}"`);
  const passes = engraveForm(song, realize(song, { section: sectionId }), partId, {
    written: options.written ?? false,
  });
  return passes.ok ? ok(firstOf(passes.value)) : passes;
}

/**
 * A part through what is realized, pass by pass, as its player reads it unless told otherwise; an upbeat to a later
 * pass stands in the last bar of the one before. Errors: `notation.place`.
 */
export function engraveForm(
  song: Song,
  real: RealizedSong,
  partId: string,
  { written = true, apart = false, layout = "notes", transposition }: EngravingOptions = {},
): Result<EngravedPass[]> {
  const part = partOf(song, partId);
  const realized = real.parts.find((p) => p.id === partId);
  if (!part || !realized) return fail("notation.place", `No part "${partId}"`);
  const within = <T extends { start: Ticks; pass: string }>(list: readonly T[]) => byPass(real, list, apart);
  const about = (s: RealizedSection) => ({ part: partId, name: part.name, meter: s.meter, pass: s.pass, bars: s.bars });
  if (part.role === "drums")
    return ok(
      within(real.hits).map((hits, i) => {
        const s = nth(real.sections, i);
        return { ...about(s), key: NO_KEY, staves: [drumStaff(hits, s.meter, s.bars)] };
      }),
    );
  const own = instrumentOf(part.instrument, song);
  const instrument =
    transposition === undefined
      ? own
      : { ...own, transposition: transposition + (own.transposition % 12 ? 0 : own.transposition) };
  const clefs = staffClefs(instrument.clef, realized.notes);
  const [chordsOf, notesOf] = [within(real.chords), within(realized.notes)];
  const passes = real.sections.map((s, i): EngravedPass => {
    const reading = readingOf(instrument, s.key, written, realized.notes);
    const chords = nth(chordsOf, i);
    const chordAt = (tick: Ticks) => chordAtTick(chords, tick)?.chord ?? null;
    const notes = nth(notesOf, i);
    const frame = { meter: s.meter, bars: s.bars, reading, chordAt };
    const staves = layout === "notes" ? stavesOf({ clefs, notes, ...frame }) : [slashStaff(notes, layout, frame)];
    return { ...about(s), key: reading.key, staves };
  });
  return ok(withLoudness(passes, real, realized.notes, apart));
}

/**
 * What is realized, pass by pass, counted from the beginning of each: where it stands, or with `apart` the pass it
 * belongs to.
 */
function byPass<T extends { start: Ticks; pass: string }>(
  real: RealizedSong,
  list: readonly T[],
  apart: boolean,
): T[][] {
  const out = real.sections.map((): T[] => []);
  const index = new Map(real.sections.map((s, i) => [s.pass, i]));
  for (const x of list) {
    const i = apart ? index.get(x.pass) : Math.max(0, lastBegun(real.sections, x.start));
    const s = i === undefined ? undefined : real.sections[i];
    if (s && (apart || x.start < s.start + s.duration)) nth(out, sure(i)).push({ ...x, start: x.start - s.start });
  }
  return out;
}

/** Says at the first notes of a bar how loud it is, where that is another step than before. */
function withLoudness(
  passes: readonly EngravedPass[],
  real: RealizedSong,
  notes: readonly RealizedNote[],
  apart: boolean,
): EngravedPass[] {
  const bars = real.sections.flatMap((s) => Array.from({ length: s.bars }, (): number[] => []));
  const firsts: number[] = [];
  real.sections.reduce((sum, s) => (firsts.push(sum), sum + s.bars), 0);
  for (const n of notes) {
    const i = apart
      ? real.sections.findIndex((s) => s.pass === n.pass)
      : Math.max(0, lastBegun(real.sections, n.start));
    const s = nth(real.sections, i);
    const bar = nth(firsts, i) + Math.min(s.bars - 1, Math.max(0, Math.floor((n.start - s.start) / s.meter.bar)));
    bars[bar]?.push(n.velocity);
  }
  const signs = dynamicSigns(bars, new Set(apart ? firsts : []));
  return passes.map((pass, i) => {
    const first = new Map<number, number>();
    for (let k = 0; k < pass.bars; k++)
      if (signs[nth(firsts, i) + k])
        first.set(
          k,
          Math.min(
            ...pass.staves.flatMap((staff) =>
              voicesIn(staff, k).flatMap((v) => v.flatMap((c) => (c.notes.length ? [c.start] : []))),
            ),
          ),
        );
    if (!first.size) return pass;
    const said = new Set<number>();
    const say = (c: EngravedChord, k: number): EngravedChord => {
      if (!c.notes.length || first.get(k) !== c.start || said.has(k)) return c;
      said.add(k);
      return { ...c, dynamic: sure(signs[nth(firsts, i) + k]) };
    };
    return { ...pass, staves: pass.staves.map((staff) => mapChords(staff, say)) };
  });
}

/** Percussion has no key signature. */
const NO_KEY: Key = must(parseKey("C major"));
/** Its notes are read where they stand. */
const PLAIN: StaffReading = { key: NO_KEY, octave: 0, lifted: 0, read: (n) => n.pitch, chord: (c) => c, voices: 1 };

/** Hits on a percussion staff: hands with stems up, feet down. */
function drumStaff(hits: readonly RealizedHit[], meter: Meter, bars: number): EngravedStaff {
  const length = bars * meter.bar;
  const [hands, feet] = notesOfHits(
    hits.filter((h) => h.start < length),
    meter,
  );
  const drums = new Map([...hands, ...feet].map((n) => [n.id, n.drum]));
  // Feet alone are written in one voice.
  const [upper, lower] = hands.length ? [hands, feet] : [feet, []];
  const frame = { meter, bars, reading: PLAIN, chordAt: () => null };
  const staff = staffOf("percussion", upper, lower, frame);
  return mapChords({ ...staff, readings: staff.measures.map(() => ({ clef: "percussion", shift: 0 })) }, (c) => ({
    ...c,
    notes: c.notes.map((n) => {
      const drum = sure(drums.get(n.id));
      const { head } = DRUM_SIGNS[drum];
      return { ...n, tied: false, drum, ...(head ? { head } : {}) };
    }),
  }));
}

/** A part as slashes with its rhythm or the beats. */
function slashStaff(notes: readonly RealizedNote[], layout: Exclude<Layout, "notes">, frame: Frame): EngravedStaff {
  const reading: StaffReading = { ...PLAIN, key: frame.reading.key };
  const staff = staffOf("treble", slashNotes(notes, layout, frame.meter), [], {
    ...frame,
    reading,
    chordAt: () => null,
  });
  return mapChords(
    { ...staff, readings: staff.measures.map(() => ({ clef: "treble", shift: 0 })) },
    ({ words: _, ...c }) => ({
      ...c,
      articulation: layout === "slashes" ? null : c.articulation,
      notes: c.notes.map(({ slide: _, ...n }) => ({ ...n, pitch: "B4", head: "slash" as const })),
    }),
  );
}

/**
 * All pitched parts of a section together on two staves, as they sound: a reduction, without words, and without rests
 * where two voices share a staff. Errors: `notation.place`.
 */
export function engraveGrand(song: Song, sectionId: string): Result<EngravedPart> {
  const real = realize(song, { section: sectionId });
  const section = real.sections[0];
  if (!section) return fail("notation.place", `No section "${sectionId}"`);
  const { meter, key, bars } = section;
  // What two parts strike together at one height is written once, as the line has it rather than the comping.
  const lines = [...real.parts].sort((a, b) => Number(a.role === "chords") - Number(b.role === "chords"));
  const notes = [
    ...new Map(
      lines
        .flatMap((p) => (p.role === "drums" || p.muted ? [] : p.notes))
        .reverse()
        .map((n) => [`${n.start} ${n.midi}`, n]),
    ).values(),
  ].reverse();
  const chordAt = (tick: Ticks) => chordAtTick(real.chords, tick)?.chord ?? null;
  const reading: StaffReading = { ...PLAIN, key, voices: 2 };
  const staves = stavesOf({ clefs: ["treble", "bass"], notes, meter, bars, reading, chordAt }).map((staff) =>
    mapChords(staff, ({ words: _, ...c }, bar) =>
      bar >= 0 && nth(staff.second, bar).length && !c.notes.length ? { ...c, hidden: true } : c,
    ),
  );
  return ok({ part: "all", name: "All parts", meter, key, staves });
}

/** The staves of an instrument: two for a keyboard, but a hand that is silent throughout has none. */
function staffClefs(clef: Clef, notes: readonly RealizedNote[]): StaffClef[] {
  if (clef !== "grand") return [clef];
  const [right, left] = handsOf(notes);
  if (!left.length && right.length) return ["treble"];
  if (!right.length && left.length) return ["bass"];
  return ["treble", "bass"];
}

interface Frame {
  meter: Meter;
  bars: number;
  reading: StaffReading;
  chordAt(tick: Ticks): Chord | null;
}

function stavesOf({
  clefs,
  notes,
  ...frame
}: Frame & { clefs: readonly StaffClef[]; notes: readonly RealizedNote[] }): EngravedStaff[] {
  const staff = (clef: StaffClef, own: readonly RealizedNote[]): EngravedStaff => {
    const [upper, lower] = frame.reading.voices === 1 ? [own, []] : splitVoices(own);
    return withAccidentals(withReadings(staffOf(clef, upper, lower, frame)), frame.reading.key);
  };
  if (clefs.length === 1) return [staff(firstOf(clefs), notes)];
  const [right, left] = handsOf(notes);
  return [staff("treble", right), staff("bass", left)];
}

/** One or two voices on a staff, as their notes stand without a change of clef. */
function staffOf(
  clef: StaffClef,
  upper: readonly RealizedNote[],
  lower: readonly RealizedNote[],
  { meter, bars, reading, chordAt }: Frame,
): Omit<EngravedStaff, "readings"> {
  const length = bars * meter.bar;
  const voices = [upper, lower].map((own) => voiceOf(writeRhythm(own, meter, length), meter, reading, chordAt));
  const bar = (voice: VoiceInBars, k: number) => barOf(voice, k, meter, length);
  const [first, second] = voices as [VoiceInBars, VoiceInBars];
  const moves = (k: number) => second.bars.has(k);
  return {
    clef,
    octave: reading.octave,
    pickup: [...upper, ...lower].some((n) => n.start < 0) ? withoutRests(bar(first, -1)) : [],
    measures: Array.from({ length: bars }, (_, k) => bar(first, k)),
    second: Array.from({ length: bars }, (_, k) =>
      moves(k) ? bar(second, k).map((c) => (c.notes.length ? c : { ...c, hidden: true })) : [],
    ),
  };
}

const withoutRests = (chords: EngravedChord[]): EngravedChord[] =>
  chords.slice(
    Math.max(
      0,
      chords.findIndex((c) => c.notes.length),
    ),
  );
