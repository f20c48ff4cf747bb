import { nth } from "../base/list";
import { noteOf, pitchMidi, pitchName, type Midi, type PitchName } from "../theory/pitch/pitch";
import type { Ticks } from "../theory/time/meter";
import { chordSymbol, transposeChord } from "../theory/chord/chord";
import { chordOf, NO_CHORD } from "../theory/chord/progression";
import { sectionTempo } from "./document";
import { echoNotes } from "./echo";
import { atVelocity, frameOf, louderBy, playedAt, type Frame } from "./frame";
import { realizedHits } from "./hits";
import { linkedHarmony, linkedNotes, type LinkedNote } from "./linked";
import { passPlace, placeKey, sectionPlace, type Place } from "./place";
import type { RealizedChord, RealizedHit, RealizedNote, RealizedSection, RealizedSong } from "./realized";
import type { Note, Part, Song } from "./schema";

export * from "./realized";
export { frameOf, movedBetween, type Frame } from "./frame";
export { realizedHits } from "./hits";

export interface Scope {
  /** Only this section, once, starting at tick 0. Otherwise the whole form. */
  section?: string;
  /**
   * Linked parts as the harmony they come from: their chords held, and parts that play another part's voicings left
   * out.
   */
  harmony?: boolean;
}

/**
 * Expands linked parts and the form into plain notes on one absolute axis. Analysis reads notated positions (`start`),
 * sound reads played ones (`played`). Passes that differ in nothing are worked out once.
 */
export function realize(song: Song, scope: Scope = {}): RealizedSong {
  const harmony = scope.harmony ?? false;
  if (scope.section !== undefined) return realizePlace(song, sectionPlace(scope.section), harmony);
  const known = new Map<string, RealizedSong>();
  return joinPasses(
    song,
    song.form.map((pass) => {
      const place = passPlace(song, pass.id);
      let real = known.get(placeKey(place));
      if (!real) known.set(placeKey(place), (real = realizePlace(song, place, harmony)));
      return real;
    }),
  );
}

/** One section or pass by itself, from tick 0; nothing where there is no such place. */
export function realizePlace(song: Song, place: Place, harmony: boolean): RealizedSong {
  const frame = frameOf(song, place);
  return assemble(song, frame, frame ? realizedChords(frame) : [], {
    notesOf: (part) => (frame ? realizedNotes(song, frame, part, harmony) : []),
    hits: frame ? realizedHits(song, frame) : [],
  });
}

/** Puts together what was worked out for one place. */
export function assemble(
  song: Song,
  frame: Frame | null,
  chords: RealizedChord[],
  { notesOf, hits }: { notesOf: (part: Part) => RealizedNote[]; hits: RealizedHit[] },
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
  const whole = assemble(song, null, [], { notesOf: () => [], hits: [] });
  whole.loops = false;
  for (const [i, real] of passes.entries()) {
    const at = whole.duration;
    const pass = nth(song.form, i).id;
    const moved = <T extends { start: Ticks }>(x: T): T & { pass: string } => ({ ...x, pass, start: x.start + at });
    const played = <T extends { start: Ticks; played: number }>(x: T): T & { pass: string } => ({
      ...moved(x),
      played: x.played + at,
    });
    whole.duration += real.duration;
    whole.sections.push(...real.sections.map(moved));
    whole.chords.push(...real.chords.map(moved));
    whole.hits.push(...real.hits.map(played));
    real.parts.forEach((part, p) =>
      nth(whole.parts, p).notes.push(
        ...part.notes.map((n) => ({
          ...played(n),
          playedEnd: n.playedEnd + at,
          ...(n.stroke === undefined ? {} : { stroke: n.stroke + at }),
        })),
      ),
    );
  }
  for (const part of whole.parts) part.notes.sort((a, b) => a.start - b.start || a.midi - b.midi);
  whole.hits.sort((a, b) => a.start - b.start);
  return whole;
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

/** Notes of one part at a place; none where the pass mutes it. With `harmony`, a linked part's chords held. */
export function realizedNotes(song: Song, frame: Frame, part: Part, harmony: boolean): RealizedNote[] {
  const { pass, from, to, semitones } = frame;
  if (pass?.muted?.includes(part.id)) return [];
  const ways: Ways = {
    frame,
    part: part.id,
    late: part.offset ?? 0,
    louder: louderBy(part, frame),
    played: playedAt(frame, frame.swing),
  };
  const out: RealizedNote[] = [];
  for (const { note, chordId, stroke } of writtenNotes(song, frame, part, harmony)) {
    const reachesBack = note.start < 0 && from === 0;
    if ((note.start < from && !reachesBack) || note.start >= to) continue;
    const midi = pitchMidi(note.pitch) + semitones;
    if (midi < 0 || midi > 127) continue;
    const real = realizedNote(note, midi, ways);
    if (chordId) real.chordId = chordId;
    if (stroke !== undefined) real.stroke = stroke - from;
    out.push(real);
  }
  return out.sort((a, b) => a.start - b.start || a.midi - b.midi);
}

/** Notes of a part in the section of a place: by its link, after the part it echoes, or its own. */
function writtenNotes(
  song: Song,
  { section, pass }: Frame,
  part: Part,
  harmony: boolean,
): (Pick<LinkedNote, "note"> & Partial<LinkedNote>)[] {
  if (part.link) return (harmony ? linkedHarmony : linkedNotes)(song, section, part, pass);
  const own = part.echoes === undefined ? (section.notes[part.id] ?? []) : echoNotes(song, section, part, pass);
  return own.map((note) => ({ note }));
}

/** How the notes of a part are played at a place: how late and loud, and when what is written is played. */
interface Ways {
  frame: Frame;
  part: string;
  late: Ticks;
  louder: ReturnType<typeof louderBy>;
  played: (tick: Ticks) => Ticks;
}

function realizedNote(note: Note, midi: Midi, { frame, part, late, louder, played }: Ways): RealizedNote {
  const { semitones, moved } = frame;
  const spelledIn = (m: Midi, name: PitchName) => (semitones ? pitchName(m, moved(noteOf(name))) : name);
  const offset = (note.offset ?? 0) + late;
  const start = note.start - frame.from;
  const real: RealizedNote = {
    id: note.id,
    part,
    section: frame.sectionId,
    pass: frame.passId,
    start,
    duration: note.duration,
    midi,
    pitch: spelledIn(midi, note.pitch),
    velocity: atVelocity(note.velocity, louder),
    played: played(start) + offset,
    playedEnd: played(start + note.duration) + offset,
  };
  // Set one by one: most notes have none of these, and there are thousands.
  if (note.slide) real.glideTo = spelledIn(pitchMidi(note.slide.to) + semitones, note.slide.to);
  if (note.pinned) real.pinned = true;
  if (note.reason) real.reason = note.reason;
  if (note.lyrics?.[0]) real.lyric = note.lyrics[0];
  if (note.lyrics) real.lyrics = note.lyrics;
  if (note.swell) real.swell = true;
  return real;
}
