import { nth, sure } from "../../base/list";
import { sameValue } from "../../base/plain";
import type { Part } from "../../song/schema";
import { mod } from "../../theory/pitch/pitch";
import { threadsOf } from "../voice/threads";
import { belongs, nameIn, type After, type Around } from "./around";
import { SIGNS, type RoleKind } from "./roleKinds";
import type { Key } from "../../theory/pitch/key";
import { metricalLevel, type Ticks } from "../../theory/time/meter";
import { chordPitchClasses, toneRole } from "../../theory/chord/chord";
import {
  chordAtTick,
  sectionAt,
  type RealizedChord,
  type RealizedNote,
  type RealizedPart,
  type RealizedSection,
  type RealizedSong,
} from "../../song/realize";

export * from "./roleKinds";

/** The stretch of a note under one chord. */
export interface RoleSpan {
  start: Ticks;
  duration: Ticks;
  chord: RealizedChord | null;
  /** Interval name over the chord: R, 3, b7, 9 … */
  role: string;
  kind: RoleKind;
  /** A tension that also is a non-chord tone of the textbooks: reached and left as one. */
  as?: RoleKind;
  /** A non-chord tone on a stronger position than the note it goes on to. */
  accented?: boolean;
  /** What is written in the note: the role of a chord tone or tension, the sign of another tone. */
  label: string;
}

/** Kinds that are no non-chord tones of a textbook. */
const OTHER: ReadonlySet<RoleKind> = new Set<RoleKind>(["chord", "tension", "outside", "free"]);

/** The textbook kind of a span: null for chord tones, colors that stand, and tones no textbook names. */
export function textbookKind(span: RoleSpan): RoleKind | null {
  const kind = span.as ?? span.kind;
  return OTHER.has(kind) ? null : kind;
}

/**
 * A note of the scale that lies a whole tone or more above every chord tone below it colors the chord without
 * contradicting it (the avoid-note rule of jazz teaching, common practice).
 */
export function isTension(chord: NonNullable<RealizedChord["chord"]>, pc: number, key: Key): boolean {
  const pcs = chordPitchClasses(chord);
  return !pcs.includes(pc) && key.pcs.includes(pc) && !pcs.includes(mod(pc - 1, 12));
}

/** What the roles of notes are read against: chords and keys of the stretch they stand in. */
export type RoleContext = Pick<RealizedSong, "chords" | "loops" | "duration"> & {
  /** What follows, where that is not the beginning again. */
  onward?: { chord: RealizedChord; first: { midi: number; after: number } | null };
  sections: readonly Pick<RealizedSection, "start" | "key" | "meter">[];
};

/** What the roles of all notes of a voice rest on besides the notes themselves. */
interface Ground extends Omit<RoleContext, "chords"> {
  role: Part["role"];
  linked: boolean;
}
/** What is known of a note: its spans, and what they rest on. */
interface Known {
  ground: Ground;
  before: RealizedNote | undefined;
  next: RealizedNote | undefined;
  then: RealizedNote | undefined;
  spans: RoleSpan[];
}
/** Grounds by the chords they stand under, and what was found of notes: after an edit most are as they were. */
const grounds = new WeakMap<readonly RealizedChord[], Ground[]>();
const known = new WeakMap<RealizedNote, Known>();

/** A ground as an object that is the same wherever it says the same. */
function groundOf({ chords, ...real }: RoleContext, { role, linked }: Pick<RealizedPart, "role" | "linked">): Ground {
  let list = grounds.get(chords);
  if (!list) grounds.set(chords, (list = []));
  const { loops, duration, onward } = real;
  const sections = real.sections.map(({ start, key, meter }) => ({ start, key, meter }));
  const ground: Ground = { sections, loops, duration, ...(onward ? { onward } : {}), role, linked };
  const same = list.find((g) => sameValue(g, ground));
  if (!same) list.push(ground);
  return same ?? ground;
}

/**
 * Role spans of every note of a part, by note object. A held note is judged again under each chord it sounds with; what
 * came before a note and what follows it is told by its own voice, never by a note struck with it.
 */
export function noteRoles(
  real: RoleContext,
  part: Pick<RealizedPart, "role" | "linked" | "notes">,
): Map<RealizedNote, RoleSpan[]> {
  // In the order of the notes, whichever voice they belong to.
  const result = new Map<RealizedNote, RoleSpan[]>(part.notes.map((n) => [n, []]));
  const threads = threadsOf(part.notes);
  // The first note after a section is one: it is that of a part with one voice.
  const onward = threads.length > 1 && real.onward ? { ...real.onward, first: null } : real.onward;
  const context: RoleContext = { ...real, ...(onward ? { onward } : {}) };
  const ground = groundOf(context, part);
  for (const notes of threads) rolesOfVoice(context, { part, notes, ground, result });
  return result;
}

/** The same for one voice of a part. */
function rolesOfVoice(
  real: RoleContext,
  voice: {
    part: Pick<RealizedPart, "role" | "linked">;
    notes: readonly RealizedNote[];
    ground: Ground;
    result: Map<RealizedNote, RoleSpan[]>;
  },
): void {
  const { part, notes, ground, result } = voice;
  let first = 0;
  notes.forEach((note, index) => {
    while (first < real.chords.length && nth(real.chords, first).start + nth(real.chords, first).duration <= note.start)
      first++;
    const [before, next, then] = [notes[index - 1], notes[index + 1] ?? notes[0], notes[index + 2]];
    const was = known.get(note);
    if (was?.ground === ground && was.before === before && was.next === next && was.then === then) {
      result.set(note, was.spans);
      return;
    }
    const anew = spansOf(real, part, { notes, index, first });
    // What was told of a note stands where its neighbors say the same of it.
    const spans = was?.ground === ground && sameValue(was.spans, anew) ? was.spans : anew;
    known.set(note, { ground, before, next, then, spans });
    result.set(note, spans);
  });
}

/** The spans of one note of a voice; `first`: the first chord that ends after it has begun. */
function spansOf(
  real: RoleContext,
  part: Pick<RealizedPart, "role" | "linked">,
  { notes, index, first }: { notes: readonly RealizedNote[]; index: number; first: number },
): RoleSpan[] {
  const note = nth(notes, index);
  const end = note.start + note.duration;
  const { key, meter, start: origin } = sectionAt(real, Math.max(0, note.start));
  const spans: RoleSpan[] = [];
  let at = note.start;
  for (let c = first; at < end; c++) {
    const chord = real.chords[c];
    const from = chord ? Math.max(at, chord.start) : end;
    if (from > at)
      spans.push({ start: at, duration: Math.min(from, end) - at, chord: null, role: "", kind: "free", label: "–" });
    if (!chord || from >= end) break;
    const to = Math.min(end, chord.start + chord.duration);
    spans.push(spanOf(note.midi, from, { duration: to - from, chord, key, isBass: part.role === "bass" }));
    at = to;
  }
  if (part.linked) return spans;
  spans.forEach((span, i) => {
    if (span.kind !== "outside" && !isBriefColor(span)) return;
    const follows = followerOf(real, notes, index, { spans, i });
    const kind = nonChordKind(real, part, { notes, index, spans, i, key });
    const level = (tick: Ticks) => metricalLevel(meter, tick - origin);
    if (kind !== "outside" && follows && level(span.start) > level(follows.start)) span.accented = true;
    if (span.kind === "outside") Object.assign(span, { kind, label: SIGNS[kind] ?? span.label });
    else if (kind !== "outside") span.as = kind;
  });
  return spans;
}

// Under a chord a tone that is foreign to it is no color: in the bass there are no tensions.
function spanOf(
  midi: number,
  start: Ticks,
  { duration, chord, key, isBass }: { duration: Ticks; chord: RealizedChord; key: Key; isBass: boolean },
): RoleSpan {
  if (!chord.chord) return { start, duration, chord, role: "", kind: "free", label: "–" };
  const pc = mod(midi, 12);
  const { role, inChord } = toneRole(chord.chord, pc);
  let kind: RoleKind;
  if (inChord) kind = "chord";
  else if (!isBass && isTension(chord.chord, pc, key)) kind = "tension";
  else kind = "outside";
  return { start, duration, chord, role, kind, label: kind === "outside" ? sure(SIGNS.outside) : role };
}

/**
 * A color that does not last: held for more than half of its chord, a ninth is heard as one, however it is left (common
 * practice).
 */
const isBriefColor = (span: RoleSpan): boolean =>
  span.kind === "tension" && span.duration * 2 <= (span.chord?.duration ?? 0);

/** The widest rest after which a note still counts as the one that follows: a quarter (common practice). */
const BREATH: Ticks = 480;
/** The note that comes next; after the last one that with which the form goes on, or the first one of a loop. */
function afterOf(real: RoleContext, notes: readonly RealizedNote[], index: number): After | undefined {
  const next = notes[index + 1];
  if (next) return { midi: next.midi, start: next.start, chord: chordAtTick(real.chords, next.start) };
  if (real.onward) {
    const { chord, first } = real.onward;
    return first ? { midi: first.midi, start: real.duration + first.after, chord } : undefined;
  }
  const again = real.loops && notes[0] !== notes[index] ? notes[0] : undefined;
  return (
    again && { midi: again.midi, start: again.start + real.duration, chord: chordAtTick(real.chords, again.start) }
  );
}

/**
 * The note to which a note goes on from one of its spans: none from a span that is held into the next chord, or before
 * a rest.
 */
function followerOf(
  real: RoleContext,
  notes: readonly RealizedNote[],
  index: number,
  { spans, i }: { spans: readonly RoleSpan[]; i: number },
): { midi: number; start: Ticks } | undefined {
  const note = nth(notes, index);
  if (i < spans.length - 1) return { midi: note.midi, start: nth(spans, i + 1).start };
  const after = afterOf(real, notes, index);
  return after && after.start - (note.start + note.duration) <= BREATH
    ? { midi: after.midi, start: after.start }
    : undefined;
}

/** Whether a note was a tone of the chord before it: within its own sound, or struck before without a rest. */
function isHeld(
  real: RoleContext,
  note: RealizedNote,
  { previous, spans, i }: { previous: RealizedNote | undefined; spans: readonly RoleSpan[]; i: number },
): boolean {
  if (i > 0) return nth(spans, i - 1).kind === "chord";
  return (
    previous?.midi === note.midi &&
    previous.start + previous.duration >= note.start &&
    belongs(note.midi, chordAtTick(real.chords, previous.start))
  );
}

/** The name that its surroundings justify for a tone outside its chord; "outside" where none does. */
function nonChordKind(
  real: RoleContext,
  part: Pick<RealizedPart, "role">,
  {
    notes,
    index,
    spans,
    i,
    key,
  }: { notes: readonly RealizedNote[]; index: number; spans: readonly RoleSpan[]; i: number; key: Key },
): RoleKind {
  const note = nth(notes, index);
  const before = notes[index - 1];
  // What a long rest parts from the note does not lead to it.
  const previous = before && note.start - (before.start + before.duration) <= BREATH ? before : undefined;
  const after = afterOf(real, notes, index);
  const isLast = i === spans.length - 1;
  const settles = spans[i + 1]?.kind === "chord";
  const around: Around = {
    note,
    chord: nth(spans, i).chord,
    bass: part.role === "bass",
    key,
    previous,
    follows: isLast && after && after.start - (note.start + note.duration) <= BREATH ? after : undefined,
    then: notes[index + 2],
    held: isHeld(real, note, { previous, spans, i }),
    settles,
    returns: settles || (isLast && after?.midi === note.midi && belongs(note.midi, after.chord)),
  };
  return nameIn(around);
}
