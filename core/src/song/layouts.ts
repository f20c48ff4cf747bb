import { pitchMidi, type PitchName } from "../theory/pitch/pitch";
import type { CompNote } from "./comp/kind";
import type { ChordEvent, Stroke, Voicing } from "./schema";

/** A layout of a pass: pitches alone in older files. */
export const layoutIn = (stored: Voicing | PitchName[]): Voicing =>
  Array.isArray(stored) ? { pitches: stored } : stored;

/** Whether two layouts are one: the same notes, held, pinned and struck alike. */
export const sameLayout = (a: Voicing | undefined, b: Voicing | undefined): boolean =>
  JSON.stringify(a) === JSON.stringify(b);

/** A chord that begins later: what is changed in single strokes stays where it sounds. */
export function beginningAt<C extends Omit<ChordEvent, "id">>(chord: C, start: number): C {
  const by = start - chord.start;
  const { voicings } = chord;
  if (!by || !voicings || !Object.values(voicings).some((v) => v.strokes)) return { ...chord, start };
  const moved = Object.entries(voicings).map(([part, v]): [string, Voicing] => [
    part,
    v.strokes ? { ...v, strokes: v.strokes.map((s) => ({ ...s, at: s.at - by })) } : v,
  ]);
  return { ...chord, start, voicings: Object.fromEntries(moved) };
}

/** Strokes of a part that are played otherwise than its layout has them, by chord. */
export type StrokesByChord = ReadonlyMap<string, { start: number; strokes: readonly Stroke[] }>;

/**
 * What a part plays of its chords, with single strokes as they were changed. A stroke that the rhythm does not make
 * rests.
 */
export function withStrokes(notes: readonly CompNote[], changed: StrokesByChord): CompNote[] {
  if (!changed.size) return [...notes];
  const done = new Set<Stroke>();
  return notes.flatMap((note): CompNote[] => {
    const chord = changed.get(note.chord);
    const stroke = chord?.strokes.find((s) => chord.start + s.at === note.start);
    if (!stroke) return [note];
    if (done.has(stroke)) return [];
    done.add(stroke);
    const end = Math.max(
      ...notes.filter((n) => n.chord === note.chord && n.start === note.start).map((n) => n.duration),
    );
    return stroke.notes.map((n): CompNote => {
      const from = n.from ?? 0;
      return {
        ...note,
        start: note.start + from,
        stroke: note.start,
        duration: n.duration ?? Math.max(1, end - from),
        midi: pitchMidi(n.pitch),
        name: n.pitch,
        velocity: n.velocity ?? note.velocity,
      };
    });
  });
}
