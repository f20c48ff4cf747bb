import { isStep } from "../../theory/pitch/interval";
import { nth } from "../../base/list";
import { chordAtTick, type RealizedChord } from "../../song/realize";
import type { Reason } from "../../song/schema";
import { because } from "../../song/reasons";
import { ROLE_WORDS } from "../../hear/slice/roles";
import { chordPitchClasses, rootPc, toneRole } from "../../theory/chord/chord";
import {
  mod,
  noteOf,
  pitchMidi,
  type Midi,
  type NoteName,
  type PitchName,
  type Semitones,
} from "../../theory/pitch/pitch";
import type { Ticks } from "../../theory/time/meter";
import { capital } from "../../theory/words/english";
import type { Ground } from "./ground";
import type { LineNote } from "./kind";

/** A note of a finished line with what lies around it: all that a reason may speak of. */
export interface SeenNote {
  start: Ticks;
  end: Ticks;
  midi: Midi;
  pitch: PitchName;
  chord: RealizedChord | null;
  inChord: boolean;
  /** What it is over its chord, and the chord's symbol, for the words of a reason; null where there is no chord. */
  own: { role: string; chord: string } | null;
  /** The note before and the one after, where no rest lies between. */
  before: SeenNote | null;
  after: SeenNote | null;
  /** From the note before; 0 where none leads here. */
  move: Semitones;
}

const ownOf = (chord: RealizedChord | null, midi: Midi): SeenNote["own"] => {
  if (!chord?.chord) return null;
  const { role } = toneRole(chord.chord, mod(midi, 12));
  return { role: capital(ROLE_WORDS[role] ?? role), chord: chord.symbol };
};

/** The highest note at each beginning. */
export function topsOf(seen: readonly SeenNote[]): Map<Ticks, SeenNote> {
  const tops = new Map<Ticks, SeenNote>();
  for (const n of seen) if (n.midi > (tops.get(n.start)?.midi ?? -1)) tops.set(n.start, n);
  return tops;
}

/**
 * The notes of a finished line, one for each, in their order; of notes that begin together the highest is the line.
 * Those under it have no neighbors.
 */
export function seenIn({ chords }: Pick<Ground, "chords">, notes: readonly LineNote[]): SeenNote[] {
  const seen = notes.map((n): SeenNote => {
    const chord = chordAtTick(chords, Math.max(0, n.start));
    const midi = pitchMidi(n.pitch);
    return {
      start: n.start,
      end: n.start + n.duration,
      midi,
      pitch: n.pitch,
      chord,
      inChord: chord?.chord ? chordPitchClasses(chord.chord).includes(mod(midi, 12)) : false,
      own: ownOf(chord, midi),
      before: null,
      after: null,
      move: 0,
    };
  });
  const tops = topsOf(seen);
  const line = seen.filter((n) => tops.get(n.start) === n);
  line.forEach((n, i) => {
    const before = i > 0 ? nth(line, i - 1) : null;
    if (!before || before.end !== n.start) return;
    n.before = before;
    n.move = n.midi - before.midi;
    before.after = n;
  });
  return seen;
}

/** The name of the note before, where a note is reached by step. */
export const stepFrom = ({ before, move }: SeenNote): NoteName | null =>
  before && isStep(move) ? noteOf(before.pitch) : null;

/** Why a tone outside its chord may stand, by how it is reached and left; null for what that does not explain. */
export function outsideReason(n: SeenNote): Reason | null {
  const { before, after, move } = n;
  if (!after) return null;
  const on = after.midi - n.midi;
  if (on === 0 && after.inChord && after.chord && after.chord !== n.chord)
    return because("anticipation", { chord: after.chord.symbol });
  if (!isStep(on)) return null;
  if (before && isStep(move)) {
    if (Math.sign(move) === Math.sign(on)) return because("passing");
    return after.midi === before.midi ? because("neighbor") : null;
  }
  if (!after.inChord) return null;
  if (before && move === 0) return because(on < 0 ? "suspension" : "retardation");
  return because("appoggiatura");
}

/** Third or seventh of the chord, whatever their size: what tells its kind. */
export function isGuideTone({ chord, midi }: SeenNote): boolean {
  if (!chord?.chord) return false;
  const above = mod(midi - rootPc(chord.chord), 12);
  return chord.chord.tones.some((t) => (t.degree === 3 || t.degree === 7) && mod(t.semitones, 12) === above);
}
