import { nth, pairwise, sure } from "../../base/list";
import { mod, type NoteName, noteOf, pitchClass } from "../../theory/pitch/pitch";
import { beatAt, type Ticks } from "../../theory/time/meter";
import {
  bassPc,
  chordPitchClasses,
  chordSymbol,
  chordToneName,
  rootPc,
  toneName,
  type Chord,
} from "../../theory/chord/chord";
import { identifyChords } from "../../theory/chord/identify";
import {
  realize,
  type RealizedChord,
  type RealizedHit,
  type RealizedNote,
  type RealizedSection,
  type RealizedSong,
} from "../../song/realize";
import type { Song } from "../../song/schema";
import { kicks, type KickHit } from "./accents";
import { noteRoles, type RoleSpan } from "./roles";

export interface SliceNote {
  part: string;
  note: RealizedNote;
  /** Begins in this slice. */
  attack: boolean;
  span: RoleSpan;
}

/**
 * A moment at which nothing changes: one chord, the notes that sound with their roles, the drums that are struck at its
 * start.
 */
export interface Slice {
  start: Ticks;
  duration: Ticks;
  section: RealizedSection;
  /** 0-based bar and beat of its start, within the section (bar −1 is the pickup). */
  bar: number;
  beat: number;
  chord: RealizedChord | null;
  /** The written chord with the bass part's note, where that note counts as the bass of the chord. */
  sounding: string | null;
  /** Low to high. */
  notes: SliceNote[];
  hits: RealizedHit[];
  kick: KickHit | null;
}

/** A realized song with its slices and roles: what analysis, reports, checks and views read. */
export interface Sliced {
  real: RealizedSong;
  slices: Slice[];
  roles: Map<string, Map<RealizedNote, RoleSpan[]>>;
}

/** All slices of one section or of the whole form, in order. */
export function slices(song: Song, scope: { section: string } | { form: true }): Slice[] {
  return sliceSong(song, scope).slices;
}

/** With `harmony`, chopped and arpeggiated parts count as the chords they come from: so they are judged. */
export function sliceSong(song: Song, scope: ({ section: string } | { form: true }) & { harmony?: boolean }): Sliced {
  const harmony = scope.harmony ? { harmony: true } : {};
  const real = realize(song, "section" in scope ? { section: scope.section, ...harmony } : harmony);
  return sliceReal(real);
}

export function sliceReal(
  real: RealizedSong,
  roles: Sliced["roles"] = new Map(real.parts.map((part) => [part.id, noteRoles(real, part)])),
): Sliced {
  const kickMap = kicksByTick(real);
  const edges = edgesOf(real);
  const bassNames = soundingNames(real);
  const notes = inOrder(real.parts.flatMap((p) => p.notes).sort((a, b) => a.start - b.start));
  const chords = inOrder(real.chords);
  const sections = inOrder(real.sections);
  const hitsIn = inOrder(real.hits);

  const out: Slice[] = [];
  let active: RealizedNote[] = [];
  let chord: RealizedSong["chords"][number] | undefined;
  // An upbeat is heard in the first section.
  let section = real.sections[0];
  for (const [start, end] of pairwise(edges)) {
    active = active.filter((n) => n.start + n.duration > start).concat(notes(start));
    chord = chords(start).at(-1) ?? chord;
    section = sections(start).at(-1) ?? section;
    const hits = hitsIn(start);
    if (!section) break;
    const inSection = start - section.start;
    const bar = Math.floor(inSection / section.meter.bar);
    const here = chord && start < chord.start + chord.duration ? chord : null;
    out.push({
      start,
      duration: end - start,
      section,
      bar,
      beat: beatAt(section.meter, inSection - bar * section.meter.bar),
      chord: here,
      sounding: here && (bassNames.get(here) ?? here.symbol),
      notes: active.map((note) => soundingAt(roles, note, start)).sort((a, b) => a.note.midi - b.note.midi),
      hits,
      kick: hits.some((h) => h.drum === "kick") ? (kickMap.get(start) ?? null) : null,
    });
  }
  return { real, slices: out, roles };
}

function kicksByTick(real: RealizedSong): Map<Ticks, KickHit> {
  const found = new Map<Ticks, KickHit>();
  for (const section of real.sections)
    for (const kick of kicks(section.groove, section.meter))
      if (kick.start < section.duration) found.set(section.start + kick.start, kick);
  return found;
}

/** Where anything begins or ends, in order. */
function edgesOf(real: RealizedSong): Ticks[] {
  const cuts = new Set<Ticks>([0, real.duration]);
  for (const chord of real.chords) cuts.add(chord.start).add(chord.start + chord.duration);
  for (const { notes } of real.parts) for (const note of notes) cuts.add(note.start).add(note.start + note.duration);
  for (const hit of real.hits) cuts.add(hit.start);
  return [...cuts].sort((a, b) => a - b);
}

/** Walks through a list ordered by start: gives what has begun by a tick and was not given before. */
function inOrder<T extends { start: Ticks }>(list: readonly T[]): (tick: Ticks) => T[] {
  let at = 0;
  return (tick) => {
    const from = at;
    while (at < list.length && nth(list, at).start <= tick) at++;
    return list.slice(from, at);
  };
}

const soundingAt = (roles: Sliced["roles"], note: RealizedNote, tick: Ticks): SliceNote => ({
  part: note.part,
  note,
  attack: note.start === tick,
  span: sure(sure(sure(roles.get(note.part)).get(note)).find((s) => s.start <= tick && tick < s.start + s.duration)),
});

const heard = new Map<string, string>();

/** The name of a written chord over the bass note that sounds under it: Am over F is Fmaj7. */
function nameOver(chord: Chord, played: NoteName): string {
  const { bass: _, ...upper } = chord;
  if (pitchClass(played) === rootPc(chord)) return chordSymbol(upper);
  // A tone of the chord is named as the chord names it.
  const bass = chordToneName(upper, pitchClass(played)) ?? played;
  const id = `${chordSymbol(upper)}/${bass}`;
  const known = heard.get(id);
  if (known) return known;
  const pitches = upper.tones.map((t) => toneName(upper, t));
  const [first] = identifyChords({ pitches, bass });
  // An inversion keeps its name; otherwise the best reading of all that sounds counts.
  const inverted = chordPitchClasses(upper).includes(pitchClass(bass));
  const name = inverted || !first || first.added.length ? chordSymbol({ ...upper, bass }) : first.symbol;
  if (heard.size < 2000) heard.set(id, name);
  return name;
}

/**
 * Chords whose bass part sounds another bass than the written one: for at least half of the chord, or on its first
 * beat.
 */
export function soundingNames(real: Pick<RealizedSong, "chords" | "parts">): Map<RealizedChord, string> {
  return namesOver(
    real.chords,
    real.parts.filter((p) => p.role === "bass").flatMap((p) => p.notes),
  );
}

/** The same for chords and the notes of the bass alone. */
export function namesOver(
  chords: readonly RealizedChord[],
  notes: readonly RealizedNote[],
): Map<RealizedChord, string> {
  const names = new Map<RealizedChord, string>();
  if (!notes.length) return names;
  for (const chord of chords) {
    if (!chord.chord) continue;
    const end = chord.start + chord.duration;
    const found = notes.find((n) => {
      const overlap = Math.min(end, n.start + n.duration) - Math.max(chord.start, n.start);
      return overlap > 0 && (overlap * 2 >= chord.duration || (n.start <= chord.start && overlap >= 120));
    });
    if (!found) continue;
    const pc = mod(found.midi, 12);
    if (pc === bassPc(chord.chord)) continue;
    const name = noteOf(found.pitch);
    names.set(chord, nameOver(chord.chord, name));
  }
  return names;
}
