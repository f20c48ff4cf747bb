import { lastBefore, nth, sure } from "../base/list";
import type { Key } from "../theory/pitch/key";
import type { Midi, PitchName } from "../theory/pitch/pitch";
import { QUARTER, type Bpm, type Meter, type Seconds, type Ticks } from "../theory/time/meter";
import { ticksToSeconds, type Swing } from "../theory/time/swing";
import type { Chord } from "../theory/chord/chord";
import type { Drum } from "../theory/instrument/drums";
import type { OwnInstrument, Part, Reason, Section } from "./schema";

/** One pass of a section on the absolute axis. */
export interface RealizedSection {
  /** The pass; the section itself where a section is realized alone. */
  pass: string;
  section: string;
  name: string;
  start: Ticks;
  duration: Ticks;
  bars: number;
  meter: Meter;
  key: Key;
  tempo: Bpm;
  swing: Swing;
  groove: Section["groove"];
}

export interface RealizedChord {
  id: string;
  pass: string;
  start: Ticks;
  duration: Ticks;
  symbol: string;
  /** Null for N.C. */
  chord: Chord | null;
}

export interface RealizedNote {
  id: string;
  part: string;
  section: string;
  pass: string;
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
  /** The syllable of the first verse, and those of all. */
  lyric?: string;
  lyrics?: readonly string[];
  /** The chord event a derived note comes from. */
  chordId?: string;
  /** Where the stroke began to which it belongs, where it comes later than that. */
  stroke?: Ticks;
  /** Rises out of silence over its whole length. */
  swell?: boolean;
}

export interface RealizedHit {
  drum: Drum;
  pass: string;
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

export interface RealizedPart {
  id: string;
  name: string;
  role: Part["role"];
  instrument: string;
  range?: [PitchName, PitchName];
  linked: boolean;
  muted: boolean;
  notes: RealizedNote[];
}

export interface RealizedSong {
  duration: Ticks;
  /** A single section is taken to repeat: its last note leads into its first. */
  loops: boolean;
  /** Instruments of the song's own. */
  instruments?: readonly OwnInstrument[];
  sections: RealizedSection[];
  chords: RealizedChord[];
  parts: RealizedPart[];
  hits: RealizedHit[];
}

/** Stretches of even tempo, one after the other. */
export interface Timed {
  sections: readonly Pick<RealizedSection, "start" | "duration" | "tempo">[];
}

/** When each pass begins, by the passes. */
const begun = new WeakMap<Timed["sections"], Seconds[]>();

function beginnings(sections: Timed["sections"]): Seconds[] {
  let times = begun.get(sections);
  if (times?.length !== sections.length) {
    let sum = 0;
    times = sections.map((s) => {
      const at = sum;
      sum += ticksToSeconds(s.duration, s.tempo);
      return at;
    });
    begun.set(sections, times);
  }
  return sure(times);
}

/** Time of a tick on the absolute axis, tempo changes between sections included. */
export function secondsAt(real: Timed, tick: number): Seconds {
  const i = Math.max(0, lastBegun(real.sections, tick));
  const section = real.sections[i];
  return section ? nth(beginnings(real.sections), i) + ticksToSeconds(tick - section.start, section.tempo) : 0;
}

/** The tick that is played at a time: the inverse of `secondsAt`. */
export function tickAt(real: Timed, seconds: Seconds): number {
  let rest = seconds;
  for (const section of real.sections) {
    const length = ticksToSeconds(section.duration, section.tempo);
    if (rest < length || section === real.sections.at(-1)) return section.start + (rest * section.tempo * QUARTER) / 60;
    rest -= length;
  }
  return 0;
}

/** The section a tick lies in (the last one for ticks past the end, the first for a pickup). */
export function sectionAt<S extends { start: Ticks }>(real: { sections: readonly S[] }, tick: Ticks): S {
  return nth(real.sections, Math.max(0, lastBegun(real.sections, tick)));
}

/** Index of the last of some things in order that begins at or before a tick; −1 where none does. */
export const lastBegun = (list: readonly { start: Ticks }[], tick: Ticks): number =>
  lastBefore(list, ({ start }) => start <= tick);

/** The chord that is meant at a tick, if any. Chords are in order of their starts. */
export function chordAtTick(chords: readonly RealizedChord[], tick: Ticks): RealizedChord | null {
  const chord = chords[lastBegun(chords, tick)];
  return chord && tick < chord.start + chord.duration ? chord : null;
}
