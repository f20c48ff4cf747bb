import { transposeKey, type Key } from "../pitch/key";
import {
  mod,
  noteOf,
  parseNote,
  pitchClass,
  pitchMidi,
  pitchName,
  plainName,
  transposeNote,
  type Midi,
  type NoteName,
  type PitchName,
  type Semitones,
} from "../pitch/pitch";
import { QUARTER, type Meter, type Ticks } from "../time/meter";
import { swung, type Swing } from "../time/swing";
import { chordSymbol, transposeChord } from "../chord/chord";
import { chordOf, NO_CHORD } from "../chord/progression";
import { CLOSING } from "../instrument/drums";
import { sectionKey, sectionMeter, sectionSwing, sectionTempo } from "./document";
import { echoNotes } from "./echo";
import { linkedHarmony, linkedNotes } from "./linked";
import { playingOf } from "./playing";
import { findPlace, passPlace, sectionPlace, type Place } from "./place";
import type { RealizedChord, RealizedHit, RealizedNote, RealizedSection, RealizedSong } from "./realized";
import type { Hit, Lane, Note, Part, Pass, Section, Song } from "./schema";

export * from "./realized";

/** An open hat that nothing closes rings for a beat. */
const OPEN_HAT: Ticks = QUARTER;

export interface Scope {
  /** Only this section, once, starting at tick 0. Otherwise the whole form. */
  section?: string;
  /** Linked parts as the harmony they come from: their chords held, and parts that play another part's voicings left out. */
  harmony?: boolean;
}

/**
 * Expands linked parts and the form into plain notes on one absolute axis. Analysis reads notated positions (`start`), sound reads
 * played ones (`played`). Passes that differ in nothing are worked out once.
 */
export function realize(song: Song, scope: Scope = {}): RealizedSong {
  const harmony = scope.harmony ?? false;
  if (scope.section !== undefined) return realizePlace(song, sectionPlace(scope.section), harmony);
  const known = new Map<Place, RealizedSong>();
  return joinPasses(
    song,
    song.form.map((pass) => {
      const place = passPlace(song, pass.id);
      let real = known.get(place);
      if (!real) known.set(place, (real = realizePlace(song, place, harmony)));
      return real;
    }),
  );
}

/** One section or pass by itself, from tick 0; nothing where there is no such place. */
export function realizePlace(song: Song, place: Place, harmony: boolean): RealizedSong {
  const frame = frameOf(song, place);
  return assemble(
    song,
    frame,
    frame ? realizedChords(frame) : [],
    (part) => (frame ? realizedNotes(song, frame, part, harmony) : []),
    frame ? realizedHits(song, frame) : [],
  );
}

/** Puts together what was worked out for one place. */
export function assemble(
  song: Song,
  frame: Frame | null,
  chords: RealizedChord[],
  notesOf: (part: Part) => RealizedNote[],
  hits: RealizedHit[],
): RealizedSong {
  return {
    duration: frame ? frame.to - frame.from : 0,
    loops: true,
    ...(song.instruments ? { instruments: song.instruments } : {}),
    sections: frame ? [realizedSection(song, frame)] : [],
    chords,
    parts: song.parts.map((part) => ({
      id: part.id,
      name: part.name,
      role: part.role,
      instrument: part.instrument,
      ...(part.range ? { range: part.range } : {}),
      linked: part.link !== undefined || part.echoes !== undefined,
      muted: part.muted ?? false,
      notes: notesOf(part),
    })),
    hits,
  };
}

/** The passes of a form, each realized by itself, one after the other. */
export function joinPasses(song: Song, passes: readonly RealizedSong[]): RealizedSong {
  const whole = assemble(song, null, [], () => [], []);
  whole.loops = false;
  for (const [i, real] of passes.entries()) {
    const at = whole.duration;
    const pass = song.form[i]!.id;
    const moved = <T extends { start: Ticks }>(x: T): T & { pass: string } => ({ ...x, pass, start: x.start + at });
    const played = <T extends { start: Ticks; played: number }>(x: T): T & { pass: string } => ({ ...moved(x), played: x.played + at });
    whole.duration += real.duration;
    whole.sections.push(...real.sections.map(moved));
    whole.chords.push(...real.chords.map(moved));
    whole.hits.push(...real.hits.map(played));
    real.parts.forEach((part, p) => whole.parts[p]!.notes.push(...part.notes.map((n) => ({ ...played(n), playedEnd: n.playedEnd + at }))));
  }
  for (const part of whole.parts) part.notes.sort((a, b) => a.start - b.start || a.midi - b.midi);
  whole.hits.sort((a, b) => a.start - b.start);
  return whole;
}

/** One section or pass with what its parts need to be realized; `from` and `to` are ticks of the section. */
export interface Frame {
  section: Section;
  pass: Pass | undefined;
  meter: Meter;
  swing: Swing;
  sectionId: string;
  /** The pass; the section itself where it is realized alone. */
  passId: string;
  /** As it sounds: transposed with the pass. */
  key: Key;
  from: Ticks;
  to: Ticks;
  semitones: Semitones;
  /** A note's name as it sounds: as many letters and semitones from its own as the keys are apart. */
  moved(name: NoteName): NoteName;
}

/** How names go from one key to another; plain where the exact name would need two accidentals. */
export function movedBetween(from: Key, to: Key, semitones: Semitones): (name: NoteName) => NoteName {
  const letters = mod(parseNote(to.tonic)!.step - parseNote(from.tonic)!.step, 7);
  const distance = mod(semitones, 12);
  return (name) => {
    const exact = transposeNote(name, letters, distance);
    return Math.abs(parseNote(exact)!.alter) < 2 ? exact : plainName(mod(pitchClass(name) + distance, 12), to.flats);
  };
}

export function frameOf(song: Song, place: Place): Frame | null {
  const found = findPlace(song, place);
  if (!found) return null;
  const { section, pass } = found;
  const meter = sectionMeter(song, section);
  const [fromBar, toBar] = pass?.bars ?? [0, section.bars];
  const semitones = pass?.transpose ?? 0;
  const home = sectionKey(song, section);
  const from = Math.min(fromBar, section.bars) * meter.bar;
  const key = semitones ? transposeKey(home, semitones) : home;
  return {
    section,
    pass,
    sectionId: section.id,
    passId: pass?.id ?? section.id,
    meter,
    swing: sectionSwing(song, section),
    key,
    moved: movedBetween(home, key, semitones),
    from,
    to: Math.max(from, Math.min(toBar, section.bars) * meter.bar),
    semitones,
  };
}

function realizedSection(song: Song, frame: Frame): RealizedSection {
  const { section, meter, key, swing, from, to } = frame;
  return {
    pass: frame.passId,
    section: section.id,
    name: section.name,
    start: 0,
    duration: to - from,
    bars: (to - from) / meter.bar,
    meter,
    key,
    tempo: sectionTempo(song, section),
    swing,
    groove: section.groove,
  };
}

/** Chords of a place, cut to it. */
export function realizedChords(frame: Frame): RealizedChord[] {
  const { section, from, to, semitones, moved } = frame;
  return section.chords.flatMap((event): RealizedChord[] => {
    const start = Math.max(event.start, from);
    const end = Math.min(event.start + event.duration, to);
    if (end <= start) return [];
    const written = chordOf(event.symbol);
    const chord = written && semitones ? transposeChord(written, moved) : written;
    return [
      {
        id: event.id,
        pass: frame.passId,
        start: start - from,
        duration: end - start,
        symbol: chord ? chordSymbol(chord) : NO_CHORD,
        chord,
      },
    ];
  });
}

/** Where a notated tick, counted from the beginning of the place, is played. */
const playedAt =
  ({ meter, from }: Frame, swing: Swing) =>
  (tick: Ticks): number => {
    const inSection = tick + from;
    const bar = Math.floor(inSection / meter.bar) * meter.bar;
    return bar + swung(inSection - bar, meter.bar, swing) - from;
  };

/** Velocity from one step of loudness to the next: p 48, mp 64, mf 80, f 96 (common practice). */
const LOUDNESS_STEP = 16;

const louderBy = (part: Part, { section, pass }: Frame): number =>
  (playingOf(part, "dynamics", { section, pass }).steps ?? 0) * LOUDNESS_STEP;
const clampVelocity = (velocity: number): number => Math.min(127, Math.max(1, velocity));

/** Notes of one part at a place; none where the pass mutes it. With `harmony`, a linked part's chords held. */
export function realizedNotes(song: Song, frame: Frame, part: Part, harmony: boolean): RealizedNote[] {
  const { section, pass, from, to, semitones, moved } = frame;
  if (pass?.muted?.includes(part.id)) return [];
  const played = playedAt(frame, frame.swing);
  const { id: partId, offset: late = 0 } = part;
  const { passId: passName, sectionId } = frame;
  const notes: { note: Note; chordId?: string }[] = part.link
    ? (harmony ? linkedHarmony : linkedNotes)(song, section, part, pass)
    : part.echoes !== undefined
      ? echoNotes(song, section, part, pass).map((note) => ({ note }))
      : (section.notes[partId] ?? []).map((note) => ({ note }));
  const louder = louderBy(part, frame);
  const spell = (m: Midi, name: PitchName) => (semitones ? pitchName(m, moved(noteOf(name))) : name);
  const out: RealizedNote[] = [];
  for (const { note, chordId } of notes) {
    const reachesBack = note.start < 0 && from === 0;
    if ((note.start < from && !reachesBack) || note.start >= to) continue;
    const midi = pitchMidi(note.pitch) + semitones;
    if (midi < 0 || midi > 127) continue;
    const offset = (note.offset ?? 0) + late;
    const start = note.start - from;
    const real: RealizedNote = {
      id: note.id,
      part: partId,
      section: sectionId,
      pass: passName,
      start,
      duration: note.duration,
      midi,
      pitch: spell(midi, note.pitch),
      velocity: louder ? clampVelocity(note.velocity + louder) : note.velocity,
      played: played(start) + offset,
      playedEnd: played(start + note.duration) + offset,
    };
    // Set one by one: most notes have none of these, and there are thousands.
    if (note.slide) real.glideTo = spell(pitchMidi(note.slide.to) + semitones, note.slide.to);
    if (note.pinned) real.pinned = true;
    if (note.reason) real.reason = note.reason;
    if (note.lyrics?.[0]) real.lyric = note.lyrics[0];
    if (note.lyrics) real.lyrics = note.lyrics;
    if (chordId) real.chordId = chordId;
    if (note.swell) real.swell = true;
    out.push(real);
  }
  return out.sort((a, b) => a.start - b.start || a.midi - b.midi);
}

/** Drum hits of a place, in order; none where the pass mutes the drums. */
export function realizedHits(song: Song, frame: Frame): RealizedHit[] {
  const drums = song.parts.find((p) => p.role === "drums");
  const { section, pass } = frame;
  if (!drums || pass?.muted?.includes(drums.id)) return [];
  const { lanes } = section.groove;
  const late = drums.offset ?? 0;
  const louder = louderBy(drums, frame);
  const closing = lanes
    .filter((l) => CLOSING.includes(l.drum))
    .flatMap((l) => l.hits.map((h) => h.start))
    .sort((a, b) => a - b);
  const out: RealizedHit[] = [];
  for (const lane of lanes) {
    const played = playedAt(frame, lane.swing === undefined ? frame.swing : { ...frame.swing, ratio: lane.swing });
    for (const hit of lane.hits)
      if (hit.start >= frame.from && hit.start < frame.to)
        out.push(
          realizedHit(
            frame,
            lane,
            louder ? { ...hit, velocity: clampVelocity(hit.velocity + louder) } : hit,
            closing,
            played(hit.start - frame.from) + late,
          ),
        );
  }
  return out.sort((a, b) => a.start - b.start);
}

function realizedHit(frame: Frame, lane: Lane, hit: Hit, closing: readonly Ticks[], played: number): RealizedHit {
  const { from, semitones } = frame;
  // An open hat rings until it is closed.
  const closed = lane.drum === "openHat" ? closing.find((c) => c > hit.start) : undefined;
  const length = closed === undefined ? hit.duration : Math.min(hit.duration ?? OPEN_HAT, closed - hit.start);
  return {
    drum: lane.drum,
    pass: frame.passId,
    start: hit.start - from,
    velocity: hit.velocity,
    played: played + (hit.offset ?? 0) + (lane.offset ?? 0),
    inSection: hit.start,
    ...(length ? { duration: length } : {}),
    ...(hit.pitch && lane.tuned ? { midi: pitchMidi(hit.pitch) + semitones } : {}),
    ...(hit.pitch && hit.glideTo && lane.tuned ? { glideTo: pitchMidi(hit.glideTo) + semitones } : {}),
    ...(lane.note !== undefined ? { note: lane.note } : {}),
  };
}
