import { mod } from "../pitch/pitch";
import type { Key } from "../pitch/key";
import type { Ticks } from "../time/meter";
import { chordPitchClasses, toneRole } from "../chord/chord";
import {
  chordAtTick,
  sectionAt,
  type RealizedChord,
  type RealizedNote,
  type RealizedPart,
  type RealizedSection,
  type RealizedSong,
} from "../song/realize";

/** How a note stands to the chord of the moment; non-chord tones are defined by how they are approached and left (any harmony textbook). */
export type RoleKind =
  | "chord"
  | "tension"
  | "passing"
  | "neighbor"
  | "suspension"
  | "retardation"
  | "appoggiatura"
  | "escape"
  | "anticipation"
  | "approach"
  | "pedal"
  | "outside"
  | "free";

/** The stretch of a note under one chord. */
export interface RoleSpan {
  start: Ticks;
  duration: Ticks;
  chord: RealizedChord | null;
  /** Interval name over the chord: R, 3, b7, 9 … */
  role: string;
  kind: RoleKind;
  /** What is written in the note: the role of a chord tone or tension, the sign of another tone. */
  label: string;
}

const SIGN: Partial<Record<RoleKind, string>> = {
  passing: "p",
  neighbor: "n",
  suspension: "s",
  retardation: "r",
  appoggiatura: "app",
  escape: "e",
  anticipation: "an",
  approach: "ap",
  pedal: "ped",
  outside: "×",
};

export const KIND_WORDS: Record<RoleKind, string> = {
  chord: "chord tone",
  tension: "tension",
  passing: "passing tone",
  neighbor: "neighbor tone",
  suspension: "suspension",
  retardation: "retardation",
  appoggiatura: "appoggiatura",
  escape: "escape tone",
  anticipation: "anticipation",
  approach: "approach note",
  pedal: "pedal",
  outside: "outside the chord",
  free: "no chord here",
};

/** Interval names in the order of semitones above the root, spoken in messages. */
export const ROLE_WORDS: Record<string, string> = {
  R: "root",
  b9: "flat ninth",
  "9": "ninth",
  "#9": "sharp ninth",
  b3: "minor third",
  "3": "major third",
  "2": "second",
  "4": "fourth",
  "11": "eleventh",
  "#11": "sharp eleventh",
  b5: "flat fifth",
  "5": "fifth",
  "#5": "sharp fifth",
  b13: "flat thirteenth",
  "6": "sixth",
  "13": "thirteenth",
  bb7: "diminished seventh",
  b7: "minor seventh",
  "7": "major seventh",
};

const isStep = (a: number, b: number): boolean => Math.abs(a - b) >= 1 && Math.abs(a - b) <= 2;

/**
 * A note of the scale that lies a whole tone or more above every chord tone below it colors the chord without contradicting it
 * (the avoid-note rule of jazz teaching, common practice).
 */
export function isTension(chord: NonNullable<RealizedChord["chord"]>, pc: number, key: Key): boolean {
  const pcs = chordPitchClasses(chord);
  return !pcs.includes(pc) && key.pcs.includes(pc) && !pcs.includes(mod(pc - 1, 12));
}

/** What the roles of notes are read against: chords and keys of the stretch they stand in. */
export type RoleContext = Pick<RealizedSong, "chords" | "loops" | "duration"> & {
  sections: readonly Pick<RealizedSection, "start" | "key">[];
};

/** Role spans of every note of a part, by note object. A held note is judged again under each chord it sounds with. */
export function noteRoles(real: RoleContext, part: Pick<RealizedPart, "role" | "linked" | "notes">): Map<RealizedNote, RoleSpan[]> {
  const result = new Map<RealizedNote, RoleSpan[]>();
  const { notes } = part;
  let first = 0;
  notes.forEach((note, index) => {
    const end = note.start + note.duration;
    const { key } = sectionAt(real, Math.max(0, note.start));
    while (first < real.chords.length && real.chords[first]!.start + real.chords[first]!.duration <= note.start) first++;
    const spans: RoleSpan[] = [];
    let at = note.start;
    for (let c = first; at < end; c++) {
      const chord = real.chords[c];
      const from = chord ? Math.max(at, chord.start) : end;
      if (from > at) spans.push({ start: at, duration: Math.min(from, end) - at, chord: null, role: "", kind: "free", label: "–" });
      if (!chord || from >= end) break;
      const to = Math.min(end, chord.start + chord.duration);
      spans.push(spanOf(note.midi, from, to - from, chord, key, part.role === "bass"));
      at = to;
    }
    if (!part.linked) spans.forEach((span, i) => span.kind === "outside" && name(real, part, notes, index, spans, i, key));
    result.set(note, spans);
  });
  return result;
}

// Under a chord a tone that is foreign to it is no color: in the bass there are no tensions.
function spanOf(midi: number, start: Ticks, duration: Ticks, chord: RealizedChord, key: Key, isBass: boolean): RoleSpan {
  if (!chord.chord) return { start, duration, chord, role: "", kind: "free", label: "–" };
  const pc = mod(midi, 12);
  const { role, inChord } = toneRole(chord.chord, pc);
  const kind: RoleKind = inChord ? "chord" : !isBass && isTension(chord.chord, pc, key) ? "tension" : "outside";
  return { start, duration, chord, role, kind, label: kind === "outside" ? SIGN.outside! : role };
}

/** Gives a tone outside its chord the name its surroundings justify. */
function name(
  real: RoleContext,
  part: Pick<RealizedPart, "role">,
  notes: RealizedNote[],
  index: number,
  spans: RoleSpan[],
  i: number,
  key: Key,
): void {
  const note = notes[index]!;
  const span = spans[i]!;
  const previous = notes[index - 1];
  const again = real.loops && index === notes.length - 1 ? notes[0] : undefined;
  const next = notes[index + 1] ?? (again && again !== note ? again : undefined);
  const isLast = i === spans.length - 1;
  const nextSpan = spans[i + 1];
  const follows =
    isLast && next && next.start + (next === again ? real.duration : 0) - (note.start + note.duration) <= 480 ? next : undefined;
  const chordAt = (tick: Ticks) => chordAtTick(real.chords, tick);
  const belongs = (midi: number, chord: RealizedChord | null) =>
    chord?.chord != null && chordPitchClasses(chord.chord).includes(mod(midi, 12));
  const held =
    (i > 0 && spans[i - 1]!.kind === "chord") ||
    (i === 0 &&
      previous !== undefined &&
      previous.midi === note.midi &&
      previous.start + previous.duration >= note.start &&
      belongs(note.midi, chordAt(previous.start)));
  const returns = nextSpan?.kind === "chord" || (isLast && next?.midi === note.midi && belongs(note.midi, chordAt(next.start)));
  let kind: RoleKind = "outside";
  if (held && follows && isStep(note.midi, follows.midi)) kind = follows.midi < note.midi ? "suspension" : "retardation";
  else if ((held && returns) || note.reason?.id === "pedal") kind = "pedal";
  else if (
    nextSpan?.kind === "chord" ||
    (follows?.midi === note.midi && chordAt(follows.start) !== span.chord && belongs(note.midi, chordAt(follows.start)))
  )
    kind = "anticipation";
  else if (
    follows &&
    part.role === "bass" &&
    isStep(note.midi, follows.midi) &&
    chordAt(follows.start) !== span.chord &&
    belongs(follows.midi, chordAt(follows.start))
  )
    kind = "approach";
  else if (previous && follows && isStep(previous.midi, note.midi) && isStep(note.midi, follows.midi))
    kind =
      previous.midi === follows.midi ? "neighbor" : (note.midi - previous.midi) * (follows.midi - note.midi) > 0 ? "passing" : "neighbor";
  else if (follows && isStep(note.midi, follows.midi) && belongs(follows.midi, chordAt(follows.start)))
    kind = part.role === "bass" ? "approach" : "appoggiatura";
  else if (previous && follows && isStep(previous.midi, note.midi) && key.pcs.includes(mod(note.midi, 12))) kind = "escape";
  span.kind = kind;
  span.label = SIGN[kind] ?? span.label;
}
