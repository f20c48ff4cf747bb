import { firstOf, nth, sure } from "../../base/list";
import type { Key } from "../../theory/pitch/key";
import { mod, type NoteName, noteOf, pitchClass } from "../../theory/pitch/pitch";
import type { Meter, Ticks } from "../../theory/time/meter";
import { chordPitchClasses, chordSymbol, rootPc, type Chord } from "../../theory/chord/chord";
import { diatonicChord } from "../../theory/chord/numerals";
import { parseChord } from "../../theory/chord/parse";
import type { RealizedNote } from "../../song/realize";
import type { ChordEvent } from "../../song/schema";
import { parallelMinor, symbolAt } from "./tools";

/** How often the harmony may change. "free" may change on every half bar (or beat) and stays where the tune lets it. */
export const RHYTHMS = ["two bars", "bar", "half bar", "beat", "free"] as const;
export type HarmonicRhythm = (typeof RHYTHMS)[number];

/** A chord that may stand in a stretch. */
export interface Choice {
  symbol: string;
  chord: Chord;
  /** Costs of its own: sevenths, chords from outside. */
  distance: number;
  /** Pitch class it must lead to, for applied dominants. */
  leads?: number;
  /** Inside a bar: goes on from the stretch before, or is new there; undefined where a bar begins. */
  held?: boolean;
}

/** A stretch that takes one chord. */
export interface Segment {
  start: Ticks;
  duration: Ticks;
}

/** Stretches that take one chord each; pinned chords cut them. */
export function cutSegments(
  length: Ticks,
  meter: Meter,
  rhythm: HarmonicRhythm,
  pinned: readonly ChordEvent[],
): Segment[] {
  const cuts = new Set<Ticks>([0, length]);
  for (let bar = 0; bar * meter.bar < length; bar++) {
    const at = bar * meter.bar;
    if (rhythm === "two bars" ? bar % 2 === 0 : true) cuts.add(at);
    if (rhythm === "beat") for (const beat of meter.beats) cuts.add(at + beat.start);
    if (rhythm === "half bar" || rhythm === "free") {
      // The beat nearest the middle: beat 3 of 4/4, the second dotted quarter of 6/8, beat 3 of 3/4.
      const middle =
        meter.beats.length > 1
          ? meter.beats.reduce((best, b) =>
              Math.abs(b.start - meter.bar / 2) <= Math.abs(best.start - meter.bar / 2) ? b : best,
            )
          : null;
      if (middle && middle.start > 0) cuts.add(at + middle.start);
    }
  }
  for (const c of pinned) cuts.add(c.start).add(Math.min(length, c.start + c.duration));
  const edges = [...cuts].filter((t) => t >= 0 && t <= length).sort((a, b) => a - b);
  return edges.slice(0, -1).map((start, i) => ({ start, duration: nth(edges, i + 1) - start }));
}

/**
 * Chords of the key and its near neighbors, each with its distance; the more color is wanted, the cheaper sevenths and
 * neighbors are. A mode keeps its own chords.
 */
export function candidates(key: Key, color: number): Choice[] {
  const out = new Map<string, Choice>();
  const add = (symbol: string, distance: number, leads?: number) => {
    const chord = parseChord(symbol);
    if (chord.ok && !out.has(symbol))
      out.set(symbol, { symbol, chord: chord.value, distance, ...(leads === undefined ? {} : { leads }) });
  };
  const far = (base: number) => base + 1.4 * (1 - color);
  const plain = key.mode === "major" || key.mode === "minor";
  const tonic = firstOf(key.pcs);
  for (let step = 0; step < 7; step++) {
    const triad = diatonicChord(key, step, 3);
    const diminished = triad.endsWith("dim");
    // The minor v has no leading tone: it is a color, not the dominant.
    const mild = step === 4 && key.mode === "minor" ? 0.4 : 0;
    const sevenths = step === 4 && key.mode === "major" ? 0.15 : 0.1 + 0.8 * (1 - color);
    add(triad, mild + (diminished ? 0.6 : 0) + Math.max(0, color - 0.5) * 0.4);
    add(diatonicChord(key, step, 4), mild + (diminished ? 0.5 : 0) + sevenths);
  }
  if (!plain) return [...out.values()];
  if (key.mode === "minor") {
    add(symbolAt(tonic + 7, "", key), 0.05);
    add(symbolAt(tonic + 7, "7", key), 0.1);
    add(symbolAt(tonic + 11, "dim7", key, false), 0.7);
    // With the raised sixth, as dorian and melodic minor have it.
    add(symbolAt(tonic + 5, "", key), far(0.3));
    add(symbolAt(tonic + 9, "m7b5", key, false), far(0.5));
  } else {
    const minor = parallelMinor(key);
    add(symbolAt(nth(minor.pcs, 3), "m", key), far(0.5));
    add(symbolAt(tonic + 10, "", key), far(0.5));
    add(symbolAt(tonic + 8, "", key), far(0.5));
  }
  for (let step = 1; step < 7; step++) {
    if (diatonicChord(key, step, 3).endsWith("dim")) continue;
    add(symbolAt(nth(key.pcs, step) + 7, "7", key), far(0.4), nth(key.pcs, step));
  }
  return [...out.values()];
}

/** The note that counts as the bass of a stretch: the one on its first beat, otherwise the longest. */
export function bassOf(notes: readonly RealizedNote[], s: Segment): RealizedNote | undefined {
  const inside = notes.filter((n) => n.start < s.start + s.duration && n.start + n.duration > s.start);
  const overlap = (n: RealizedNote) =>
    Math.min(n.start + n.duration, s.start + s.duration) - Math.max(n.start, s.start);
  return (
    inside.find((n) => n.start <= s.start && overlap(n) >= 240) ??
    [...inside].sort((a, b) => overlap(b) - overlap(a))[0]
  );
}

/**
 * The chord with the line's note as its bass, written as a slash where it is not a root. Roots are best; a third in the
 * bass is good where the line steps on; a fifth only in passing, held, or under the tonic before the dominant; a
 * seventh only where it falls a step (any harmony textbook).
 */
export function onBass(
  choice: Choice,
  notes: readonly RealizedNote[],
  segments: readonly Segment[],
  { c, key }: { c: number; key: Key },
): Choice {
  const note = bassOf(notes, nth(segments, c));
  if (!note) return choice;
  const pc = mod(note.midi, 12);
  if (pc === rootPc(choice.chord) || !chordPitchClasses(choice.chord).includes(pc)) return choice;
  const tone = sure(choice.chord.tones.find((t) => mod(rootPc(choice.chord) + t.semitones, 12) === pc));
  const name: NoteName = noteOf(note.pitch);
  const chord = { ...choice.chord, bass: key.scale.find((n) => pitchClass(n) === pc) ?? name };
  const beside = (by: number) => {
    const other = segments[c + by] && bassOf(notes, nth(segments, c + by));
    return other ? other.midi - note.midi : undefined;
  };
  const [before, after] = [beside(-1), beside(1)];
  const step = (by: number | undefined) => by !== undefined && Math.abs(by) <= 2;
  const passes = step(before) && step(after);
  const cadential = rootPc(choice.chord) === key.pcs[0] && after === 0;
  let price: 2 | 1 | 0.4 | 0.5 | 0.9 | 0.8 | 0.6 | 1.6;
  if (tone.degree === 3) {
    if (passes) price = 0.4;
    else if (step(after)) price = 0.5;
    else price = 0.9;
  } else if (tone.degree === 5) {
    if (passes) price = 0.8;
    else if (cadential) price = 0.6;
    else price = 1.6;
  } else if (after === -1 || after === -2) price = 1;
  else price = 2;
  return { ...choice, symbol: chordSymbol(chord), chord, distance: choice.distance + price };
}
