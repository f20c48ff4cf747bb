import { nameInKey, transposeKey, type Key } from "../pitch/key";
import { mod, pitchMidi, pitchName, type Midi, type PitchName, type Semitones } from "../pitch/pitch";
import { QUARTER, type Bpm, type Meter, type Seconds, type Ticks } from "../time/meter";
import { swung, ticksToSeconds } from "../time/swing";
import { chordSymbol, transposeChord, type Chord } from "../chord/chord";
import { parseChord } from "../chord/parse";
import { NO_CHORD } from "../chord/progression";
import { sectionKey, sectionMeter, sectionTempo } from "./document";
import { CLOSING } from "./drums";
import { linkedHarmony, linkedNotes, type LinkedNote } from "./linked";
import type { Drum, OwnInstrument, Part, Reason, Section, Song } from "./schema";

/** An open hat that nothing closes rings for a beat. */
const OPEN_HAT: Ticks = QUARTER;

/** One pass of a section on the absolute axis. */
export interface RealSection {
  occurrence: string;
  section: string;
  name: string;
  start: Ticks;
  duration: Ticks;
  bars: number;
  meter: Meter;
  key: Key;
  tempo: Bpm;
  groove: Section["groove"];
}

export interface RealChord {
  id: string;
  occurrence: string;
  start: Ticks;
  duration: Ticks;
  symbol: string;
  /** Null for N.C. */
  chord: Chord | null;
}

export interface RealNote {
  id: string;
  part: string;
  section: string;
  occurrence: string;
  /** Notated position and length. */
  start: Ticks;
  duration: Ticks;
  midi: Midi;
  pitch: PitchName;
  velocity: number;
  /** Where it sounds, in ticks on the same axis: swing and offsets applied. */
  played: number;
  playedEnd: number;
  glideTo?: PitchName;
  pinned?: boolean;
  reason?: Reason;
  lyric?: string;
  /** The chord event a derived note comes from. */
  chordId?: string;
  /** Rises out of silence over its whole length. */
  swell?: boolean;
}

export interface RealHit {
  drum: Drum;
  occurrence: string;
  start: Ticks;
  velocity: number;
  played: number;
  duration?: Ticks;
  /** Of a tuned drum, and where it slides to. */
  midi?: Midi;
  glideTo?: Midi;
  /** MIDI note of the lane, where it is not the usual one. */
  note?: number;
  /** Position within its section, and index in its lane. */
  inSection: Ticks;
}

export interface RealPart {
  id: string;
  name: string;
  role: Part["role"];
  instrument: string;
  range?: [PitchName, PitchName];
  linked: boolean;
  muted: boolean;
  notes: RealNote[];
}

export interface RealSong {
  title: string;
  duration: Ticks;
  /** A single section is taken to repeat: its last note leads into its first. */
  loops: boolean;
  swing: Song["swing"];
  /** Instruments of the song's own. */
  instruments?: readonly OwnInstrument[];
  sections: RealSection[];
  chords: RealChord[];
  parts: RealPart[];
  hits: RealHit[];
}

export interface Scope {
  /** Only this section, once, starting at tick 0. Otherwise the whole form. */
  section?: string;
  /** Linked parts as the harmony they come from: their chords held, and parts that play another part's voicings left out. */
  harmony?: boolean;
}

/**
 * Expands linked parts and the form into plain notes on one absolute axis. Analysis reads notated positions (`start`), sound reads
 * played ones (`played`).
 */
export function realize(song: Song, scope: Scope = {}): RealSong {
  const passes = scope.section ? [{ id: scope.section, sectionId: scope.section }] : song.form;
  const out: RealSong = {
    title: song.title,
    duration: 0,
    loops: scope.section !== undefined,
    swing: song.swing,
    ...(song.instruments ? { instruments: song.instruments } : {}),
    sections: [],
    chords: [],
    parts: [],
    hits: [],
  };
  out.parts = song.parts.map((p) => ({
    id: p.id,
    name: p.name,
    role: p.role,
    instrument: p.instrument,
    ...(p.range ? { range: p.range } : {}),
    linked: p.link !== undefined,
    muted: p.muted ?? false,
    notes: [],
  }));
  for (const pass of passes) {
    const section = song.sections.find((s) => s.id === pass.sectionId);
    if (!section) continue;
    addPass(song, section, pass, out, scope.harmony ?? false);
  }
  for (const part of out.parts) part.notes.sort((a, b) => a.start - b.start || a.midi - b.midi);
  return out;
}

function addPass(
  song: Song,
  section: Section,
  pass: { id: string; bars?: [number, number] | undefined; muted?: string[] | undefined; transpose?: Semitones | undefined },
  out: RealSong,
  harmony: boolean,
): void {
  const meter = sectionMeter(song, section);
  const [fromBar, toBar] = pass.bars ?? [0, section.bars];
  const from = fromBar * meter.bar;
  const to = Math.min(toBar, section.bars) * meter.bar;
  const shift = out.duration - from;
  const semitones = pass.transpose ?? 0;
  const home = sectionKey(song, section);
  const key = semitones ? transposeKey(home, semitones) : home;
  const real: RealSection = {
    occurrence: pass.id,
    section: section.id,
    name: section.name,
    start: out.duration,
    duration: to - from,
    bars: (to - from) / meter.bar,
    meter,
    key,
    tempo: sectionTempo(song, section),
    groove: section.groove,
  };
  out.sections.push(real);
  out.duration += to - from;

  for (const event of section.chords) {
    const start = Math.max(event.start, from);
    const end = Math.min(event.start + event.duration, to);
    if (end <= start) continue;
    const parsed = event.symbol === NO_CHORD ? null : parseChord(event.symbol);
    const written = parsed?.ok ? parsed.value : null;
    const chord = written && semitones ? transposeChord(written, (pc) => nameInKey(pc, key), semitones) : written;
    out.chords.push({
      id: event.id,
      occurrence: pass.id,
      start: start + shift,
      duration: end - start,
      symbol: chord ? chordSymbol(chord) : NO_CHORD,
      chord,
    });
  }

  const played = (tick: Ticks, swing = song.swing): number => {
    const inSection = tick + from;
    const bar = Math.floor(inSection / meter.bar) * meter.bar;
    return bar + swung(inSection - bar, meter.bar, swing) - from;
  };
  for (const part of out.parts) {
    if (pass.muted?.includes(part.id)) continue;
    const source = song.parts.find((p) => p.id === part.id)!;
    const notes = source.link
      ? (harmony ? linkedHarmony : linkedNotes)(song, section, source)
      : (section.notes[part.id] ?? []).map((note) => ({ note }));
    for (const { note, chordId } of notes as { note: LinkedNote; chordId?: string }[]) {
      const reachesBack = note.start < 0 && fromBar === 0;
      if ((note.start < from && !reachesBack) || note.start >= to) continue;
      const midi = pitchMidi(note.pitch) + semitones;
      if (midi < 0 || midi > 127) continue;
      const spell = (m: Midi, name: PitchName) => (semitones ? pitchName(m, nameInKey(mod(m, 12), key)) : name);
      const offset = (note.offset ?? 0) + (source.offset ?? 0);
      const start = note.start - from;
      part.notes.push({
        id: note.id,
        part: part.id,
        section: section.id,
        occurrence: pass.id,
        start: start + real.start,
        duration: note.duration,
        midi,
        pitch: spell(midi, note.pitch),
        velocity: note.velocity,
        played: real.start + played(start) + offset,
        playedEnd: real.start + played(start + note.duration) + offset,
        ...(note.glideTo ? { glideTo: spell(pitchMidi(note.glideTo) + semitones, note.glideTo) } : {}),
        ...(note.pinned ? { pinned: true } : {}),
        ...(note.reason ? { reason: note.reason } : {}),
        ...(note.lyrics?.[0] ? { lyric: note.lyrics[0] } : {}),
        ...(chordId ? { chordId } : {}),
        ...(note.swell ? { swell: true } : {}),
      });
    }
  }

  const drums = song.parts.find((p) => p.role === "drums");
  if (drums && !pass.muted?.includes(drums.id)) {
    const closing = section.groove.lanes
      .filter((l) => CLOSING.includes(l.drum))
      .flatMap((l) => l.hits.map((h) => h.start))
      .sort((a, b) => a - b);
    for (const lane of section.groove.lanes)
      for (const hit of lane.hits) {
        if (hit.start < from || hit.start >= to) continue;
        const start = hit.start - from;
        // An open hat rings until it is closed.
        const closed = lane.drum === "openHat" ? closing.find((c) => c > hit.start) : undefined;
        const length = closed === undefined ? hit.duration : Math.min(hit.duration ?? OPEN_HAT, closed - hit.start);
        const swing = lane.swing === undefined ? song.swing : { ...song.swing, ratio: lane.swing };
        out.hits.push({
          drum: lane.drum,
          occurrence: pass.id,
          start: start + real.start,
          velocity: hit.velocity,
          played: real.start + played(start, swing) + (hit.offset ?? 0) + (lane.offset ?? 0) + (drums.offset ?? 0),
          inSection: hit.start,
          ...(length ? { duration: length } : {}),
          ...(hit.pitch && lane.tuned ? { midi: pitchMidi(hit.pitch) + semitones } : {}),
          ...(hit.pitch && hit.glideTo && lane.tuned ? { glideTo: pitchMidi(hit.glideTo) + semitones } : {}),
          ...(lane.note !== undefined ? { note: lane.note } : {}),
        });
      }
    out.hits.sort((a, b) => a.start - b.start);
  }
}

/** Time of a tick on the absolute axis, tempo changes between sections included. */
export function secondsAt(real: RealSong, tick: number): Seconds {
  let seconds = 0;
  for (const section of real.sections) {
    const end = section.start + section.duration;
    if (tick <= end || section === real.sections.at(-1)) return seconds + ticksToSeconds(tick - section.start, section.tempo);
    seconds += ticksToSeconds(section.duration, section.tempo);
  }
  return seconds;
}

/** The tick that is played at a time: the inverse of `secondsAt`. */
export function tickAt(real: RealSong, seconds: Seconds): number {
  let rest = seconds;
  for (const section of real.sections) {
    const length = ticksToSeconds(section.duration, section.tempo);
    if (rest < length || section === real.sections.at(-1)) return section.start + (rest * section.tempo * QUARTER) / 60;
    rest -= length;
  }
  return 0;
}

/** The section a tick lies in (the last one for ticks past the end, the first for a pickup). */
export function sectionAt(real: RealSong, tick: Ticks): RealSection {
  return real.sections.findLast((s) => s.start <= tick) ?? real.sections[0]!;
}

/** The chord that is meant at a tick, if any. Chords are in order of their starts. */
export function chordAtTick(chords: readonly RealChord[], tick: Ticks): RealChord | null {
  let low = 0;
  let high = chords.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (chords[middle]!.start <= tick) low = middle + 1;
    else high = middle;
  }
  const chord = chords[low - 1];
  return chord && tick < chord.start + chord.duration ? chord : null;
}
