import { nth, pairwise, sure } from "../../base/list";
import { onceFor } from "../../base/once";
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
  lastBegun,
  realize,
  sectionAt,
  type RealizedChord,
  type RealizedHit,
  type RealizedNote,
  type RealizedSong,
} from "../../song/realize";
import type { Song } from "../../song/schema";
import { kicksStruck, type KickHit } from "./accents";
import { barFrames, inBars, struckInBars, type BarFrame, type ChordBar, type HitBar, type PartBar } from "./bars";
import { noteRoles, type RoleSpan } from "./roles";
import { soundingBetween } from "./soundingIn";

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
  /** The pass it lies in; the section where that is sliced alone. */
  pass: string;
  /** 0-based bar and beat of its start, within the pass (bar −1 is the pickup). */
  bar: number;
  beat: number;
  chord: RealizedChord | null;
  /** The written chord with the bass part's note, where that note counts as the bass of the chord. */
  sounding: string | null;
  /** Low to high. */
  notes: readonly SliceNote[];
  hits: readonly RealizedHit[];
  kick: KickHit | null;
}

/** A realized song with its slices and roles: what analysis, reports, checks and views read. */
export interface Sliced {
  real: RealizedSong;
  slices: readonly Slice[];
  /** The same by the bars in which they begin: the same list for as long as nothing in it changes. */
  bars: readonly (readonly Slice[])[];
  roles: Map<string, Map<RealizedNote, RoleSpan[]>>;
}

/** The slice in which a tick lies: the last one that has begun. */
export const sliceAt = (slices: readonly Slice[], tick: Ticks): Slice | undefined => slices[lastBegun(slices, tick)];

/** All slices of one section or of the whole form, in order. */
export function slices(song: Song, scope: { section: string } | { form: true }): readonly Slice[] {
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
  const frames = barFrames(real.sections);
  const ordered = { ...real, chords: byStart(real.chords), hits: byStart(real.hits) };
  return sliceBars(real, roles, {
    frames,
    chords: chordBars(frames, ordered.chords, soundingNames(real)),
    hits: hitBars(
      frames,
      ordered.hits,
      kicksStruck(ordered.hits, (tick) => (real.sections.length ? sectionAt(real, tick) : undefined)),
    ),
    parts: real.parts.map((p) => partBars(frames, p.notes, sure(roles.get(p.id)))),
  });
}

const byStart = <T extends { start: Ticks }>(list: readonly T[]): T[] => [...list].sort((a, b) => a.start - b.start);

export const partBars = (
  frames: readonly BarFrame[],
  notes: readonly RealizedNote[],
  roles: ReadonlyMap<RealizedNote, RoleSpan[]>,
): PartBar[] =>
  inBars(frames, byStart(notes)).map(({ entries, ends }) => ({
    ends,
    notes: entries,
    spans: entries.map((n) => sure(roles.get(n))),
  }));

export const chordBars = (
  frames: readonly BarFrame[],
  chords: readonly RealizedChord[],
  names: ReadonlyMap<RealizedChord, string>,
): ChordBar[] =>
  inBars(frames, chords).map(({ entries, ends }) => ({
    ends,
    chords: entries,
    names: entries.map((c) => names.get(c)),
  }));

export const hitBars = (
  frames: readonly BarFrame[],
  hits: readonly RealizedHit[],
  kicks: readonly KickHit[],
): HitBar[] => {
  const kicksIn = struckInBars(frames, kicks);
  return struckInBars(frames, hits).map((hits, b) => ({ hits, kicks: nth(kicksIn, b) }));
};

/** What is sliced, by its bars. */
interface InBars {
  frames: readonly BarFrame[];
  chords: readonly ChordBar[];
  hits: readonly HitBar[];
  /** By part, in their order. */
  parts: readonly (readonly PartBar[])[];
}

/** Slices from what stands in the bars: a bar in which nothing has changed has the slices it had. */
export function sliceBars(real: RealizedSong, roles: Sliced["roles"], { frames, chords, hits, parts }: InBars): Sliced {
  const matters = frames.map((_, b): BarMatter => [nth(chords, b), nth(hits, b), ...parts.map((p) => nth(p, b))]);
  const bars: (readonly Slice[])[] = new Array<readonly Slice[]>(frames.length);
  // A slice that lasts over the end of its bar ends with the next edge, wherever that is.
  let next: Ticks | null = null;
  for (let b = frames.length - 1; b >= 0; b--) {
    const [frame, matter]: [BarFrame, BarMatter] = [nth(frames, b), nth(matters, b)];
    const ends: Ticks[] = [0, real.duration].filter((t) => t >= frame.from && t < frame.to);
    const { from, to, pass, origin, meter } = frame;
    const id = `${from} ${to} ${ends.join()} ${pass} ${origin} ${meter.text}`;
    const edges: readonly Ticks[] = onceFor(matter, `edges ${id}`, () => edgesOf(frame, matter, ends));
    const after: Ticks | null = next;
    bars[b] = onceFor(matter, `slices ${id} ${after}`, () => slicesOf(frame, matter, edges, after));
    next = edges[0] ?? next;
  }
  return { real, slices: bars.flat(), bars, roles };
}

type BarMatter = readonly [ChordBar, HitBar, ...PartBar[]];

/** Where anything begins or ends in a bar, in order. */
function edgesOf(
  { from, to }: BarFrame,
  [{ chords, ends: chordEnds }, { hits }, ...parts]: BarMatter,
  ends: readonly Ticks[],
): Ticks[] {
  const cuts = new Set<Ticks>([...ends, ...chordEnds, ...parts.flatMap((p) => p.ends)]);
  const put = (tick: Ticks) => {
    if (tick >= from && tick < to) cuts.add(tick);
  };
  for (const list of [chords, ...parts.map((p) => p.notes)])
    for (const { start, duration } of list) {
      put(start);
      put(start + duration);
    }
  for (const hit of hits) put(hit.start);
  return [...cuts].sort((a, b) => a - b);
}

/** The slices that begin in a bar. */
function slicesOf(
  { pass, origin, meter }: BarFrame,
  [{ chords, names }, { hits, kicks }, ...parts]: BarMatter,
  edges: readonly Ticks[],
  after: Ticks | null,
): Slice[] {
  const spans = new Map(parts.flatMap((p) => p.notes.map((n, i) => [n, nth(p.spans, i)])));
  const notes = inOrder([...spans.keys()].sort((a, b) => a.start - b.start));
  const struck = inOrder(hits);
  let active: RealizedNote[] = [];
  return pairwise(after === null ? edges : [...edges, after]).map(([start, end]): Slice => {
    active = active.concat(notes(start)).filter((n) => n.start + n.duration > start);
    const inPass = start - origin;
    const bar = Math.floor(inPass / meter.bar);
    const at = lastBegun(chords, start);
    const last = chords[at];
    const here = last && start < last.start + last.duration ? last : null;
    const own = struck(start);
    const span = (note: RealizedNote) =>
      sure(sure(spans.get(note)).find((s) => s.start <= start && start < s.start + s.duration));
    return {
      start,
      duration: end - start,
      pass,
      bar,
      beat: beatAt(meter, inPass - bar * meter.bar),
      chord: here,
      sounding: here && (names[at] ?? here.symbol),
      notes: active
        .map((note): SliceNote => ({ part: note.part, note, attack: note.start === start, span: span(note) }))
        .sort((a, b) => a.note.midi - b.note.midi),
      hits: own,
      kick: own.some((h) => h.drum === "kick") ? (kicks.find((k) => k.start === start) ?? null) : null,
    };
  });
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
    const found = soundingBetween(notes, chord.start, end).find((n) => {
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
