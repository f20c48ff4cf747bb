import { nth, sure } from "../../base/list";
import { FAR, nameInKey, type Key } from "../../theory/pitch/key";
import {
  mod,
  noteName,
  noteOf,
  parseNote,
  pitchName,
  spelledPc,
  type Midi,
  type NoteName,
  type PitchName,
} from "../../theory/pitch/pitch";
import type { Ticks } from "../../theory/time/meter";
import { toneName, type Chord } from "../../theory/chord/chord";

/** A note of a line as its player reads it: `midi` is the written height. */
export interface NoteInLine {
  start: Ticks;
  midi: Midi;
  pitch: PitchName;
}

/** Tones whose letter the chord's name promises; of the others the key may be the better reader. */
const PLAIN_ROLES = new Set(["R", "1", "3", "b3", "5", "b5", "7", "b7", "6", "2", "4"]);

/** What a name earns: by being the key's own or its usual chromatic note, the chord's, or the writer's. */
const EARNS = { scale: 1.2, chromatic: 0.5, promised: 1.5, tension: 0.6, written: 1 };
/**
 * What names and steps cost: Cb, Fb, E# and B# far from their keys, double accidentals, a foreign note that goes on by
 * semitone on its own letter, another name for the note before.
 */
const COSTS = { far: 2, near: 0.5, double: 1, sameLetter: 2, renamed: 1.5, odd: 1 };

const LETTERS = [0, 1, 2, 3, 4, 5, 6];

/**
 * Names of a pitch class with at most one accidental; a double sharp only as the third of a chord in a key of many
 * sharps, where it leads.
 */
function namesOf(pc: number, key: Key, chord: Chord | null): NoteName[] {
  return LETTERS.flatMap((step) => {
    const alter = mod(pc - spelledPc({ step, alter: 0 }) + 6, 12) - 6;
    const name = noteName({ step, alter });
    if (Math.abs(alter) <= 1) return [name];
    const third = chord?.tones.find((t) => t.degree === 3 && t.alter === 0);
    return alter === 2 && key.signature >= 5 && chord && third && toneName(chord, third) === name ? [name] : [];
  });
}

/** What a name costs that is seldom read, by the signatures in which it is. */
function farCost(name: NoteName, { signature }: Key): number {
  const far = FAR[name];
  if (far === undefined) return 0;
  return (far < 0 ? signature <= far : signature >= far) ? COSTS.near : COSTS.far;
}

/** What is against one name of a note, whatever stands around it. */
function nameCost(name: NoteName, note: NoteInLine, key: Key, chord: Chord | null): number {
  const pc = mod(note.midi, 12);
  const inScale = key.scale.includes(name);
  let cost = 0;
  if (inScale) cost -= EARNS.scale;
  else if (nameInKey(pc, key) === name) cost -= EARNS.chromatic;
  const said = chord && saidBy(chord, pc);
  const promised = said?.name === name && said.plain;
  if (said?.name === name) cost -= promised ? EARNS.promised : EARNS.tension;
  if (noteOf(note.pitch) === name) cost -= EARNS.written;
  if (!promised && !inScale) cost += farCost(name, key);
  if (Math.abs(sure(parseNote(name)).alter) > 1) cost += COSTS.double;
  return cost;
}

/** What the symbol of a chord calls one of its notes, and whether it is no tension. */
function saidBy(chord: Chord, pc: number): { name: string; plain: boolean } | null {
  const pcOf = (name: NoteName) => spelledPc(sure(parseNote(name)));
  const tone = chord.tones.find((t) => mod(pcOf(chord.root) + t.semitones, 12) === pc);
  const plain = !tone || PLAIN_ROLES.has(tone.role);
  if (chord.bass && pcOf(chord.bass) === pc) return { name: chord.bass, plain };
  return tone ? { name: toneName(chord, tone), plain } : null;
}

/** Semitones of the plain intervals so many letters apart. */
const PLAIN: readonly (readonly number[])[] = [[0], [1, 2], [3, 4], [5, 6], [6, 7], [8, 9], [10, 11]];

/**
 * What is against one name following another: a chromatic note that leaves by semitone on its letter, a note that
 * changes its name, an augmented or diminished step.
 */
function spellingStep(from: NoteName, to: NoteName, semitones: number, foreign: boolean): number {
  const letters = mod(sure(parseNote(to)).step - sure(parseNote(from)).step, 7);
  if (semitones === 0) return letters === 0 ? 0 : COSTS.renamed;
  const up = mod(semitones, 12);
  if (Math.abs(semitones) === 1 && letters === 0) return foreign ? COSTS.sameLetter : 0;
  const span = semitones > 0 ? letters : mod(-letters, 7);
  return nth(PLAIN, span).includes(semitones > 0 ? up : mod(-semitones, 12)) ? 0 : COSTS.odd;
}

/**
 * Names for the notes of a line as players read them: what the chord's name promises, else the key's; no double
 * accidental where a plain note reads better (the raised ninth of B7 is D); one name while a note is repeated; a
 * chromatic note is named so that it moves on to the next letter, up from sharps and down from flats (common practice).
 * `moves` says whether a note is alone and goes on to the next one. Time grows with the number of notes.
 */
export function spellLine(
  notes: readonly NoteInLine[],
  { key, chordAt, moves }: { key: Key; chordAt(tick: Ticks): Chord | null; moves(i: number): boolean },
): PitchName[] {
  interface State {
    name: NoteName;
    cost: number;
    before: number;
  }
  const layers: State[][] = [];
  notes.forEach((note, i) => {
    const chord = chordAt(note.start);
    const last = layers.at(-1);
    const semitones = i > 0 ? note.midi - nth(notes, i - 1).midi : 0;
    layers.push(
      namesOf(mod(note.midi, 12), key, chord).map((name): State => {
        const own = nameCost(name, note, key, chord);
        if (!last || !moves(i - 1))
          return { name, cost: own + (last ? nth(last, best(last)).cost : 0), before: best(last) };
        let chosen = { cost: Infinity, before: 0 };
        last.forEach((s, k) => {
          const cost = s.cost + spellingStep(s.name, name, semitones, !key.scale.includes(s.name));
          if (cost < chosen.cost) chosen = { cost, before: k };
        });
        return { name, cost: own + chosen.cost, before: chosen.before };
      }),
    );
  });
  const out: PitchName[] = [];
  let at = best(layers.at(-1));
  for (let i = layers.length - 1; i >= 0; i--) {
    const state = nth(nth(layers, i), at);
    out[i] = pitchName(nth(notes, i).midi, state.name);
    at = state.before;
  }
  return out;
}

const best = (states: readonly { cost: number }[] | undefined): number =>
  (states ?? []).reduce((k, s, i, all) => (s.cost < nth(all, k).cost ? i : k), 0);
