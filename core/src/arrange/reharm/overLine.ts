import { isStep } from "../../theory/pitch/interval";
import { firstOf, nth } from "../../base/list";
import type { Key, Mode } from "../../theory/pitch/key";
import { mod } from "../../theory/pitch/pitch";
import { chordPitchClasses, rootPc, toneRole, type Chord } from "../../theory/chord/chord";
import { isMinorish } from "../../theory/chord/numerals";
import { isDominant } from "../../hear/harmony/context";
import type { RealizedNote } from "../../song/realize";
import type { Meter, Ticks } from "../../theory/time/meter";
import { placeWeight } from "./fit";
import type { Segment } from "./choices";

/** A note of a tune with what comes before and after it. */
export interface TuneNote {
  note: RealizedNote;
  /** Semitones from the note before, and to the one after; undefined at a rest or the ends. */
  from?: number;
  to?: number;
}

/** Notes of a line, in order, each with how it is approached and left; a rest of a beat or more separates. */
export function lineOf(notes: readonly RealizedNote[], meter: Meter): TuneNote[] {
  const beat = firstOf(meter.beats).duration;
  const joined = (a: RealizedNote | undefined, b: RealizedNote | undefined) =>
    a && b && b.start - (a.start + a.duration) < beat ? b.midi - a.midi : undefined;
  return notes.map((note, i) => {
    const from = joined(notes[i - 1], note);
    const to = joined(note, notes[i + 1]);
    return { note, ...(from === undefined ? {} : { from }), ...(to === undefined ? {} : { to }) };
  });
}

/** How much of a foreign note that steps on is heard as one: shorter than a beat, than two, longer. */
const EXCUSED = { passing: [0.15, 0.4, 0.7], weak: [0.3, 0.5, 0.8], leaning: [0.5, 0.6, 0.85] } as const;

/** What a member of the chord costs under the tune: root and third carry best. */
const MEMBER: Record<string, number> = { R: 0, "3": 0, b3: 0, "5": 0.02 };

/**
 * Beats of a tune that a chord does not carry, weighted by place. Notes outside it are told apart as any harmony
 * textbook does: passing and neighbor notes on weak places and leaning notes that step on cost little, what is left by
 * leap costs fully. A leading tone of minor asks for its dominant.
 */
export function carries(
  chord: Chord,
  key: Key,
  s: Segment,
  { line, meter }: { line: readonly TuneNote[]; meter: Meter },
): number {
  const beat = firstOf(meter.beats).duration;
  let cost = 0;
  for (const lineNote of line) {
    const { note } = lineNote;
    const start: Ticks = Math.max(s.start, note.start);
    const end: Ticks = Math.min(s.start + s.duration, note.start + note.duration);
    if (end <= start) continue;
    const heard = { beats: (end - start) / beat, weight: placeWeight(meter, start), attacked: start === note.start };
    const { role, inChord } = toneRole(chord, mod(note.midi, 12));
    cost += inChord ? memberCost(chord, role, lineNote, heard) : foreignCost(chord, key, lineNote, heard);
  }
  return cost;
}

/** How a note is heard over a chord: how many beats of it, on how strong a place, and whether it begins there. */
interface Heard {
  beats: number;
  weight: number;
  attacked: boolean;
}

function memberCost(chord: Chord, role: string, { to }: TuneNote, { beats, weight }: Heard): number {
  const carried = beats * weight * (MEMBER[role] ?? 0.1);
  // A seventh in the tune wants to step down; under a root it rubs.
  if (role === "b7" && isDominant(chord) && to !== undefined && ![0, -1, -2].includes(to))
    return carried + 0.25 * weight;
  if (role === "R" && chord.tones.some((t) => t.role === "7")) return carried + 0.6 * beats * weight;
  return carried;
}

function foreignCost(chord: Chord, key: Key, { note, from, to }: TuneNote, { beats, weight, attacked }: Heard): number {
  const pc = mod(note.midi, 12);
  const leading = mod(firstOf(key.pcs) + 11, 12);
  // Raised on its way up to the tonic, on a beat or held: the key's dominant, or a chord that has it.
  if (isMinorish(key) && pc === leading && !key.pcs.includes(leading) && (beats >= 1 || weight > 0.7)) return 3;
  const unaccented = isStep(from ?? 0) ? "passing" : "weak";
  const length = [1, 2].filter((limit) => beats >= limit).length;
  const excused = isStep(to ?? 0) ? nth(EXCUSED[weight < 0.8 && attacked ? unaccented : "leaning"], length) : 1;
  const rubs = chordPitchClasses(chord).some((p) => mod(pc - p, 12) === 1) ? 1.3 : 1;
  return Math.min(beats, 2.5) * weight * excused * rubs;
}

/**
 * What each degree of a mode costs: the tonic, its neighbors on the way to it and the chord with the mark of the mode
 * are common (common practice).
 */
const DEGREES: Record<Mode, readonly number[]> = {
  major: [0, 0.3, 0.6, 0.1, 0.05, 0.3, 0.6],
  minor: [0, 0.6, 0.3, 0.12, 0.05, 0.25, 0.2],
  dorian: [0, 0.3, 0.2, 0.1, 0.35, 0.6, 0.15],
  phrygian: [0, 0.1, 0.25, 0.2, 0.6, 0.3, 0.15],
  lydian: [0, 0.1, 0.3, 0.6, 0.2, 0.3, 0.3],
  mixolydian: [0, 0.3, 0.6, 0.1, 0.25, 0.3, 0.1],
  locrian: [0, 0.2, 0.2, 0.2, 0.2, 0.2, 0.2],
};

export function degreeCost(chord: Chord, key: Key): number {
  const step = key.pcs.indexOf(rootPc(chord));
  return step < 0 ? 0.1 : nth(DEGREES[key.mode], step);
}
