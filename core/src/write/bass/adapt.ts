import { lastOf } from "../../base/list";
import { mod, pitchMidi, type Midi, type PitchClass, type PitchName } from "../../theory/pitch/pitch";
import type { Ticks } from "../../theory/time/meter";
import { bassPc, chordPitchClasses, type Chord } from "../../theory/chord/chord";
import { chordOf } from "../../theory/chord/progression";
import { partOf, sectionOf } from "../../song/document";
import type { Edit } from "../../song/edits";
import { spellAt } from "../../song/spell";
import type { ChordEvent, Note, Song } from "../../song/schema";
import { usualRange } from "../lines/ground";

const chordOver = (chords: readonly ChordEvent[], tick: Ticks): Chord | null => {
  const event = chords.find((c) => c.start <= tick && tick < c.start + c.duration);
  return event ? chordOf(event.symbol) : null;
};

/**
 * Lets a bass line follow chords that changed between two ticks, keeping its rhythm: what stood on the old bass goes to
 * the new one, other notes that are no longer chord tones to the nearest chord tone; a note held into a new chord it
 * does not belong to is struck again there. Pinned notes stay. Null when nothing has to move.
 */
export function adaptBass(
  before: Song,
  after: Song,
  { section: sectionId, part: partId, span: [from, to] }: { section: string; part: string; span: [Ticks, Ticks] },
): Edit | null {
  const [old, now] = [sectionOf(before, sectionId), sectionOf(after, sectionId)];
  const part = partOf(after, partId);
  if (!old || !now || !part) return null;
  const follows: Follows = { before: old.chords, after: now.chords, range: usualRange(after, part), span: [from, to] };
  const changes: Change[] = [];
  const added: Omit<Note, "id">[] = [];
  for (const note of now.notes[partId] ?? []) {
    if (note.pinned || note.start + note.duration <= from || note.start >= to) continue;
    const [first, ...others] = struckAnew(note, follows);
    if (!first) continue;
    const named = (start: Ticks, midi: Midi): PitchName => spellAt(after, now, start, midi);
    const change = changeTo(note, first, named);
    if (change) changes.push(change);
    for (const { midi, ...place } of others)
      added.push({ ...place, pitch: named(place.start, midi), velocity: note.velocity });
  }
  const edits: Edit[] = [
    ...(changes.length ? [{ do: "changeNotes" as const, section: sectionId, part: partId, notes: changes }] : []),
    ...added.map((note) => ({ do: "addNote" as const, section: sectionId, part: partId, note })),
  ];
  return edits.length ? { do: "all", label: "bass follows", edits } : null;
}

type Change = { id: string; pitch?: PitchName; duration?: Ticks };
type Struck = { start: Ticks; duration: Ticks; midi: Midi };

function changeTo(note: Note, to: Struck, named: (start: Ticks, midi: Midi) => PitchName): Change | null {
  const change = {
    ...(to.midi === pitchMidi(note.pitch) ? {} : { pitch: named(note.start, to.midi) }),
    ...(to.duration === note.duration ? {} : { duration: to.duration }),
  };
  return Object.keys(change).length ? { id: note.id, ...change } : null;
}

/** Chords that changed between two ticks, and where the line may lie. */
interface Follows {
  before: readonly ChordEvent[];
  after: readonly ChordEvent[];
  range: [Midi, Midi];
  span: [Ticks, Ticks];
}

/** A note as it follows: its own pitch first, then each place where it is struck again for a chord it is not in. */
function struckAnew(note: Note, follows: Follows): Struck[] {
  const { after, span } = follows;
  const [from, to] = span;
  const end = note.start + note.duration;
  let midi = pitchMidi(note.pitch);
  if (note.start >= from) midi = movedAt(midi, note.start, follows);
  const struck = [{ start: note.start, duration: note.duration, midi }];
  for (const { start: cut } of after) {
    if (cut <= Math.max(note.start, from - 1) || cut >= Math.min(end, to)) continue;
    const is = chordOver(after, cut);
    if (!is || chordPitchClasses(is).includes(mod(midi, 12))) continue;
    midi = nearestOf(midi, [bassPc(is)], follows);
    const last = lastOf(struck);
    last.duration = cut - last.start;
    struck.push({ start: cut, duration: end - cut, midi });
  }
  return struck;
}

/** Where a pitch goes at a tick: it stays where the new chord has it. */
function movedAt(midi: Midi, tick: Ticks, follows: Follows): Midi {
  const [was, is] = [chordOver(follows.before, tick), chordOver(follows.after, tick)];
  if (!is) return midi;
  const onBass = was !== null && mod(midi, 12) === bassPc(was);
  return nearestOf(midi, onBass ? [bassPc(is)] : chordPitchClasses(is), follows);
}

function nearestOf(midi: Midi, allowed: readonly PitchClass[], { range: [low, high] }: Follows): Midi {
  if (allowed.includes(mod(midi, 12))) return midi;
  for (let d = 1; d <= 11; d++)
    for (const m of [midi - d, midi + d]) if (allowed.includes(mod(m, 12)) && m >= low && m <= high) return m;
  return midi;
}
