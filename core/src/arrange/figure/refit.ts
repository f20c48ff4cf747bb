import { nth, sure } from "../../base/list";
import { nameInKey, scaleStep, spellInKey, type Key } from "../../theory/pitch/key";
import {
  mod,
  noteName,
  noteOf,
  parseNote,
  pitchMidi,
  pitchName,
  spelledPc,
  typeset,
  type Midi,
  type NoteName,
  type PitchName,
  type Semitones,
  type Spelled,
} from "../../theory/pitch/pitch";
import {
  chordPitchClasses,
  chordSymbol,
  rootPc,
  toneName,
  toneRole,
  type Chord,
  type ChordTone,
} from "../../theory/chord/chord";
import { SIXTEENTH, type Ticks } from "../../theory/time/meter";

/** What a figure stands on: its key and the chord at each tick. */
export interface Ground {
  key: Key;
  chordAt(tick: Ticks): Chord | null;
}

/** What a figure is made of; more of a note goes along as it is. */
export interface FigureNote {
  start: Ticks;
  duration: Ticks;
  pitch: PitchName;
  lyrics?: string[] | undefined;
  slide?: { kind: "glide"; to: PitchName; length?: Ticks | undefined } | undefined;
}

/** A note that did not come along as it was, and why. */
export interface Refitted {
  start: Ticks;
  from: PitchName;
  to: PitchName;
  /** In words, where it is not the same degree of the new chord. */
  why?: string;
}

export interface RefitOptions {
  /** Words go along; off by default: they belong to their place. */
  words?: boolean;
}

/** A note before a tone that it leads into, a whole tone or less away and no more than a sixteenth before it. */
const LEADS = 2;
const GAP: Ticks = SIXTEENTH;

const seventh = (degree: number): number => mod(degree - 1, 7);
const lettersAbove = (root: NoteName, name: NoteName): number =>
  mod(sure(parseNote(name)).step - sure(parseNote(root)).step, 7);

const toneOf = (chord: Chord, midi: Midi): ChordTone | undefined =>
  chord.tones.find((t) => mod(rootPc(chord) + t.semitones - midi, 12) === 0);

/** The pitch of a name nearest to a place; of two as near, the upper one. */
function nearest(name: NoteName, to: Midi): PitchName {
  const pc = spelledPc(sure(parseNote(name)));
  const by = mod(pc - to + 5, 12) - 5;
  return pitchName(to + by, name);
}

/** How far a root lies from another: five semitones down to six up. */
const rootShift = (from: Chord, to: Chord): Semitones => mod(rootPc(to) - rootPc(from) + 5, 12) - 5;

/** The tone of a chord nearest to a pitch, as it is named. */
function nearestTone(chord: Chord, to: Midi): PitchName {
  const all = chord.tones.map((t) => nearest(toneName(chord, t), to));
  return all.reduce((a, b) => (Math.abs(pitchMidi(b) - to) < Math.abs(pitchMidi(a) - to) ? b : a));
}

/** The note of a key that lies as many letters above a root, altered as the one it comes from was. */
function scaleDegree(pitch: PitchName, from: { chord: Chord; key: Key }, to: { chord: Chord; key: Key }): NoteName {
  const letters = lettersAbove(from.chord.root, noteOf(pitch));
  const letterOf = (root: NoteName) => mod(sure(parseNote(root)).step + letters, 7);
  const own = sure(parseNote(noteOf(pitch)));
  const alter = own.alter - keyNote(from.key, own.step).alter;
  const target = keyNote(to.key, letterOf(to.chord.root));
  const pc = spelledPc({ step: target.step, alter: target.alter + alter });
  return Math.abs(target.alter + alter) < 2 ? spelled(target, target.alter + alter) : nameInKey(pc, to.key);
}

/** A letter with so many accidentals. */
const spelled = ({ step }: Spelled, alter: number): NoteName => noteName({ step, alter });

/** The note of a key on a letter. */
const keyNote = (key: Key, step: number): Spelled =>
  sure(key.pcs.map((pc) => sure(parseNote(nameInKey(pc, key)))).find((n) => n.step === step));

/** One note by its degree over the new chord. */
function byDegree(
  pitch: PitchName,
  from: { chord: Chord; key: Key },
  to: { chord: Chord; key: Key },
): Omit<Refitted, "start" | "from"> {
  const midi = pitchMidi(pitch);
  const near = midi + rootShift(from.chord, to.chord);
  const tone = toneOf(from.chord, midi);
  const degree = tone ? seventh(tone.degree) : lettersAbove(from.chord.root, noteOf(pitch));
  const same = to.chord.tones.find((t) => seventh(t.degree) === degree);
  if (same) return { to: nearest(toneName(to.chord, same), near) };
  if (!tone) return { to: nearest(scaleDegree(pitch, from, to), near) };
  const tonic = degree === 0 ? "root" : `${toneRole(from.chord, mod(midi, 12)).role}`;
  return {
    to: nearestTone(to.chord, near),
    why: `${typeset(chordSymbol(to.chord))} has no ${typeset(tonic)}: its nearest tone instead`,
  };
}

/** Whether a note leads into the next one, which is a tone of its chord. */
function leads(note: FigureNote, next: FigureNote | undefined, from: Ground): next is FigureNote {
  if (!next) return false;
  const [a, b] = [pitchMidi(note.pitch), pitchMidi(next.pitch)];
  const [chord, goal] = [from.chordAt(note.start), from.chordAt(next.start)];
  const close = a !== b && Math.abs(a - b) <= LEADS && next.start - note.start - note.duration <= GAP;
  if (!close || !goal || !chordPitchClasses(goal).includes(mod(b, 12))) return false;
  const foreign = !chord || !chordPitchClasses(chord).includes(mod(a, 12));
  return foreign && (chord !== goal || !from.key.pcs.includes(mod(a, 12)));
}

/** A note that leads into its goal from where the old one did. */
function leadingInto(note: FigureNote, next: FigureNote, goal: PitchName, key: Key): PitchName {
  const by = pitchMidi(note.pitch) - pitchMidi(next.pitch);
  const midi = pitchMidi(goal);
  if (Math.abs(by) === 1) return spellInKey(midi + by, key);
  return spellInKey(scaleStep(midi, by < 0 ? -1 : 1, key), key);
}

/**
 * A figure refitted to other chords: each note is the same degree of the chord at its place, in the nearest octave; a
 * note that leads into another still does; a degree the chord lacks goes to its nearest tone. Notes outside all chords
 * keep their degree in the key above the root. C E G A over C is F A C D over F, in C major. What is not a plain
 * degree is told.
 */
export function refit<N extends FigureNote>(
  notes: readonly N[],
  from: Ground,
  to: Ground,
  { words = false }: RefitOptions = {},
): { notes: N[]; told: Refitted[] } {
  const order = notes.map((_, i) => i).sort((a, b) => nth(notes, b).start - nth(notes, a).start);
  const pitches = new Map<number, PitchName>();
  const told: Refitted[] = [];
  const nextOf = (i: number): number => {
    const note = nth(notes, i);
    const later = order.filter((k) => nth(notes, k).start > note.start);
    return later.at(-1) ?? -1;
  };
  for (const i of order) {
    const note = nth(notes, i);
    const [chord, target] = [from.chordAt(note.start), to.chordAt(note.start)];
    const k = nextOf(i);
    const next = notes[k];
    const goal = pitches.get(k);
    if (goal !== undefined && leads(note, next, from)) pitches.set(i, leadingInto(note, next, goal, to.key));
    else if (!chord || !target) {
      pitches.set(i, note.pitch);
      told.push({ start: note.start, from: note.pitch, to: note.pitch, why: "no chord stands there: it stays" });
    } else {
      const found = byDegree(note.pitch, { chord, key: from.key }, { chord: target, key: to.key });
      pitches.set(i, found.to);
      if (found.why) told.push({ start: note.start, from: note.pitch, ...found });
    }
  }
  const made = notes.map((note, i): N => {
    const { lyrics, slide, ...rest } = note;
    const glides = slide && nth(notes, Math.max(0, nextOf(i))).pitch === slide.to && pitches.get(nextOf(i));
    return {
      ...(rest as N),
      pitch: sure(pitches.get(i)),
      ...(words && lyrics ? { lyrics } : {}),
      ...(slide && glides ? { slide: { ...slide, to: glides } } : {}),
    };
  });
  return { notes: made, told: told.sort((a, b) => a.start - b.start) };
}

/** A figure moved along the scale of its key, each note by as many steps; what lies between two stays between. */
export function alongScale<N extends FigureNote>(notes: readonly N[], steps: number, key: Key): N[] {
  const way = steps < 0 ? -1 : 1;
  const moved = (midi: Midi): Midi => {
    let at = midi;
    for (let i = 0; i < Math.abs(steps); i++) at = scaleStep(at, way, key);
    return at;
  };
  return notes.map((n) => {
    const midi = pitchMidi(n.pitch);
    const inKey = key.pcs.includes(mod(midi, 12));
    if (inKey) return { ...n, pitch: spellInKey(moved(midi), key) };
    // A note between two of the scale is altered as it was.
    const { step, alter } = sure(parseNote(noteOf(n.pitch)));
    const [from, to] = [keyNote(key, step), keyNote(key, mod(step + steps, 7))];
    const by = alter - from.alter;
    const name = spelled(to, to.alter + by);
    const near = moved(midi - by) + by;
    return { ...n, pitch: Math.abs(to.alter + by) < 2 ? pitchName(near, name) : spellInKey(near, key) };
  });
}
