import { mod, pitchMidi, type Midi } from "../../theory/pitch/pitch";
import type { Ticks } from "../../theory/time/meter";
import { bassPc, chordPitchClasses, type Chord } from "../../theory/chord/chord";
import { parseChord } from "../../theory/chord/parse";
import { NO_CHORD } from "../../theory/chord/progression";
import { partOf, sectionOf } from "../../song/document";
import type { Edit } from "../../song/edits";
import { spellAt } from "../../song/spell";
import type { ChordEvent, Note, Song } from "../../song/schema";
import { instrumentOf, midiRange } from "../../theory/instrument/instruments";

const chordOver = (chords: readonly ChordEvent[], tick: Ticks): Chord | null => {
  const event = chords.find((c) => c.start <= tick && tick < c.start + c.duration);
  const chord = event && event.symbol !== NO_CHORD ? parseChord(event.symbol) : null;
  return chord?.ok ? chord.value : null;
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
  const [low, high] = midiRange(part.range ?? instrumentOf(part.instrument, after).comfortable);
  const nearest = (midi: Midi, allowed: readonly number[]): Midi => {
    for (let d = 0; d <= 11; d++)
      for (const m of [midi - d, midi + d]) if (allowed.includes(mod(m, 12)) && m >= low && m <= high) return m;
    return midi;
  };
  /** Where a pitch goes at a tick; null when it may stay. */
  const moved = (midi: Midi, tick: Ticks): Midi | null => {
    const [was, is] = [chordOver(old.chords, tick), chordOver(now.chords, tick)];
    if (!is) return null;
    const onBass = was !== null && mod(midi, 12) === bassPc(was);
    const allowed = onBass ? [bassPc(is)] : chordPitchClasses(is);
    return allowed.includes(mod(midi, 12)) ? null : nearest(midi, allowed);
  };
  const changes: { id: string; pitch?: string; duration?: Ticks }[] = [];
  const added: Omit<Note, "id">[] = [];
  for (const n of now.notes[partId] ?? []) {
    const end = n.start + n.duration;
    if (n.pinned || end <= from || n.start >= to) continue;
    let midi = pitchMidi(n.pitch);
    const first = n.start >= from ? moved(midi, n.start) : null;
    const change: (typeof changes)[number] = { id: n.id };
    if (first !== null) {
      change.pitch = spellAt(after, now, n.start, first);
      midi = first;
    }
    const cuts = now.chords.map((c) => c.start).filter((t) => t > Math.max(n.start, from - 1) && t < Math.min(end, to));
    let last: { start: Ticks; duration: Ticks } = { start: n.start, duration: n.duration };
    for (const cut of cuts) {
      const is = chordOver(now.chords, cut);
      if (!is || chordPitchClasses(is).includes(mod(midi, 12))) continue;
      midi = nearest(midi, [bassPc(is)]);
      last.duration = cut - last.start;
      if (last.start === n.start) change.duration = last.duration;
      last = { start: cut, duration: end - cut };
      added.push(Object.assign(last, { pitch: spellAt(after, now, cut, midi), velocity: n.velocity }));
    }
    if (change.pitch !== undefined || change.duration !== undefined) changes.push(change);
  }
  const edits: Edit[] = [
    ...(changes.length ? [{ do: "changeNotes" as const, section: sectionId, part: partId, notes: changes }] : []),
    ...added.map((note) => ({ do: "addNote" as const, section: sectionId, part: partId, note })),
  ];
  return edits.length ? { do: "all", label: "bass follows", edits } : null;
}
