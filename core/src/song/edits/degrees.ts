import { firstOf, nth, sure } from "../../base/list";
import { keyName, MODES, type Key } from "../../theory/pitch/key";
import {
  mod,
  noteName,
  noteOf,
  parseNote,
  pitchClass,
  pitchMidi,
  pitchName,
  plainName,
  transposeNote,
  type NoteName,
  type PitchName,
} from "../../theory/pitch/pitch";
import { chordPitchClasses, chordSymbol, rootPc, toneName, type Chord, type ChordTone } from "../../theory/chord/chord";
import { chordOfTones } from "../../theory/chord/ofTones";
import { chordOf } from "../../theory/chord/progression";
import type { Moving } from "./moving";

/** Semitones of the degrees of a chord without an alteration (a plain seventh is minor). */
const NATURAL: Record<number, number> = { 1: 0, 2: 2, 3: 4, 4: 5, 5: 7, 6: 9, 7: 10, 9: 2, 11: 5, 13: 9 };

/** The degree of a key that a name stands on, by its letter, and how far it is raised or lowered there. */
function degreeOf(name: NoteName, key: Key): { degree: number; alter: number } {
  const degree = mod(sure(parseNote(name)).step - sure(parseNote(key.tonic)).step, 7);
  return { degree, alter: mod(pitchClass(name) - nth(key.pcs, degree) + 6, 12) - 6 };
}

/**
 * A degree of a key by name; without its accidental where it would sound as its neighbor in the key, plain where it
 * would need three of them.
 */
function named(degree: number, altered: number, key: Key): NoteName {
  const alter = key.pcs.includes(mod(nth(key.pcs, mod(degree, 7)) + altered, 12)) ? 0 : altered;
  const { step, alter: own } = sure(parseNote(nth(key.scale, mod(degree, 7))));
  const all = own + alter;
  return Math.abs(all) > 2
    ? plainName(mod(nth(key.pcs, mod(degree, 7)) + alter, 12), all < 0)
    : noteName({ step, alter: all });
}

const above = (key: Key, degree: number): number => nth(MODES[key.mode], degree);

/**
 * How a degree is altered in another mode. A note that is a degree of the other mode already is plain there: the raised
 * sixth and seventh of minor and its major third are those of major, the borrowed third, sixth and seventh of major
 * those of minor. With `leading`, the seventh of a major key stays a leading tone in a mode whose own lies a whole tone
 * below the tonic.
 */
function alterIn(degree: number, alter: number, from: Key, { to, leading }: { to: Key; leading: boolean }): number {
  if (above(from, degree) + alter === above(to, degree)) return 0;
  return leading && degree === 6 && alter === 0 && above(from, 6) === 11 && above(to, 6) === 10 ? 1 : alter;
}

/** Whether a chord leads home by its leading tone: the dominant, or the diminished chord on the seventh degree. */
function isLeading(chord: Chord, key: Key): boolean {
  const degree = key.pcs.indexOf(rootPc(chord));
  return (degree === 4 && has(chord, "3")) || (degree === 6 && has(chord, "b3") && has(chord, "b5"));
}

const has = (chord: Chord, role: string): boolean => chord.tones.some((t) => t.role === role);

const isOutside = (chord: Chord, key: Key): boolean => chordPitchClasses(chord).some((pc) => !key.pcs.includes(pc));

/**
 * Whether all that a chord has from outside a key is the raised sixth and seventh over the tonic of minor, where they
 * are at home.
 */
const isMelodicTonic = (chord: Chord, key: Key): boolean =>
  rootPc(chord) === key.pcs[0] &&
  above(key, 2) === 3 &&
  chordPitchClasses(chord).every((pc) => key.pcs.includes(pc) || [9, 11].includes(mod(pc - firstOf(key.pcs), 12)));

/**
 * Whether a chord belongs to the one after it and goes with it: as its dominant, as the diminished chord on its leading
 * tone, or as the second degree before a dominant from outside the key (common practice).
 */
function belongsTo(next: Chord, chord: Chord, key: Key): boolean {
  const up = mod(rootPc(next) - rootPc(chord), 12);
  const hasAll = (c: Chord, ...roles: string[]) => roles.every((role) => has(c, role));
  const outside = isOutside(chord, key);
  if (outside && up === 1 && hasAll(chord, "b3", "b5")) return true;
  if (up !== 5) return false;
  if (outside && has(chord, "3") && !has(chord, "7")) return true;
  const second = has(chord, "b3") && !["6", "7"].some((role) => has(chord, role)) && rootPc(chord) !== key.pcs[0];
  return second && hasAll(next, "3", "b7") && (outside || (isOutside(next, key) && !isLeading(next, key)));
}

type Tone = Pick<ChordTone, "degree" | "alter">;

const isMajor = (tones: readonly Tone[]): boolean => tones.some((t) => t.degree === 3 && t.alter === 0);
const isDominant = (tones: readonly Tone[]): boolean =>
  isMajor(tones) && tones.some((t) => t.degree === 7 && t.alter === 0);

/**
 * The tones of a chord on their new degrees, without the extensions that a symbol would not say there (common
 * practice): a lowered ninth or thirteenth belongs to dominants, and a plain eleventh does not stand over a major
 * third. What stood so before may stay so.
 */
function said(tones: readonly Tone[], before: readonly Tone[]): Tone[] {
  return tones.filter(({ degree, alter }, i) => {
    if (degree === 11 && alter === 0) return !isMajor(tones) || isMajor(before);
    return degree < 9 || alter >= 0 || alter === nth(before, i).alter || isDominant(tones);
  });
}

/**
 * Semitones of the step that a line in minor avoids: between its sixth and the raised seventh (any harmony textbook).
 */
const AUGMENTED_SECOND = 3;

/** A chord, and what it becomes. */
export interface MovedChord {
  before: Chord;
  after: Chord;
}

/** What moving degrees does to names, and to chords in a row. */
export interface MovingDegrees extends Moving {
  /** Each chord of a row, moved; null where there is none. */
  row(symbols: readonly string[]): (MovedChord | null)[];
  /** How notes go over a chord: a tone of it stays that tone, a note of the key its degree. */
  over(chord: MovedChord | null): Moving;
  /**
   * A moved note between two others of its line: beside a raised seventh the sixth of minor is raised, too, unless the
   * chord has it as it is.
   */
  between(pitch: PitchName, neighbors: readonly (PitchName | undefined)[], chord: MovedChord | null): PitchName;
}

/**
 * What moving degrees does to each kind of name: each goes to the same degree of another key, or so many steps along
 * the scale. Chords of the key become what stands on that degree; chords with notes from outside keep their kind, and
 * their distance from the chord they lead to.
 */
export function movingDegrees(from: Key, to: Key, steps: number): MovingDegrees {
  const noteBy =
    (leading: boolean) =>
    (name: NoteName): NoteName => {
      const { degree, alter } = degreeOf(name, from);
      return named(degree + steps, steps ? alter : alterIn(degree, alter, from, { to, leading }), to);
    };
  // How far all goes on the whole: the nearer way from tonic to tonic, and the steps.
  const tonic = mod(firstOf(to.pcs) - firstOf(from.pcs) + 6, 12) - 6;
  const whole = tonic + 12 * Math.floor(steps / 7) + mod(nth(to.pcs, mod(steps, 7)) - firstOf(to.pcs), 12);
  const chordTo = (chord: Chord, next: MovedChord | null): Chord => {
    const move = noteBy(isLeading(chord, from));
    const belongs = next !== null && belongsTo(next.before, chord, from);
    const root = belongs ? carried(next.after.root, next.before.root, chord.root) : move(chord.root);
    const onDegree = (t: ChordTone): Tone => {
      const semitones = mod(pitchClass(move(toneName(chord, t))) - pitchClass(root), 12);
      // A sixth is a major one, whatever the degree (common practice).
      return {
        degree: t.degree,
        alter: t.degree === 6 ? t.alter : mod(semitones - sure(NATURAL[t.degree]) + 6, 12) - 6,
      };
    };
    const keeps = belongs || (isOutside(chord, from) && !(steps === 0 && isMelodicTonic(chord, from)));
    const tones = keeps ? chord.tones : said(chord.tones.map(onDegree), chord.tones);
    const after = chordOfTones(root, tones);
    return chord.bass ? { ...after, bass: toneAfter({ before: chord, after }, chord.bass) ?? move(chord.bass) } : after;
  };
  const by = (note: (name: NoteName) => NoteName): Moving => ({
    semitones: 0,
    note,
    pitch: (name: PitchName) => pitchTo(name, note(noteOf(name)), whole),
    symbol(text) {
      const chord = chordOf(text);
      return chord ? chordSymbol(chordTo(chord, null)) : text;
    },
    typed: (text) => text,
    key: () => keyName(to),
  });
  const plain = by(noteBy(false));
  return {
    ...plain,
    row(symbols) {
      const moved: (MovedChord | null)[] = [];
      // From the last one back: what a chord leads to is known when it is moved.
      for (const symbol of symbols.toReversed()) {
        const before = chordOf(symbol);
        moved.unshift(before && { before, after: chordTo(before, moved[0] ?? null) });
      }
      return moved;
    },
    between(pitch, neighbors, chord) {
      const becameMinor = steps === 0 && above(from, 5) === 9 && above(to, 5) === 8;
      if (!becameMinor || pitchClass(noteOf(pitch)) !== to.pcs[5]) return pitch;
      if (chord && chordPitchClasses(chord.after).includes(nth(to.pcs, 5))) return pitch;
      const raised = pitchMidi(pitch) + AUGMENTED_SECOND;
      const leads = neighbors.some((n) => n && pitchMidi(n) === raised && mod(raised - firstOf(to.pcs), 12) === 11);
      return leads ? pitchName(pitchMidi(pitch) + 1, transposeNote(noteOf(pitch), 0, 1)) : pitch;
    },
    over(chord) {
      if (!chord) return plain;
      const outside = isOutside(chord.before, from);
      return by((name) => {
        const tone = toneAfter(chord, name);
        if (tone) return tone;
        return outside && degreeOf(name, from).alter !== 0
          ? carried(chord.after.root, chord.before.root, name)
          : noteBy(false)(name);
      });
    },
  };
}

/** A name at the distance from one root that another has from its own. */
function carried(root: NoteName, fromRoot: NoteName, name: NoteName): NoteName {
  const letters = mod(sure(parseNote(name)).step - sure(parseNote(fromRoot)).step, 7);
  return transposeNote(root, letters, mod(pitchClass(name) - pitchClass(fromRoot), 12));
}

/** What a tone of a chord, or its bass, is in the moved one; null for any other note. */
function toneAfter({ before, after }: MovedChord, name: NoteName): NoteName | null {
  const above = mod(pitchClass(name) - rootPc(before), 12);
  const tone = before.tones.find((t) => mod(t.semitones, 12) === above);
  if (!tone) return before.bass && after.bass && pitchClass(before.bass) === pitchClass(name) ? after.bass : null;
  const same = (chord: Chord) => chord.tones.filter((t) => t.degree === tone.degree);
  const found = same(after)[same(before).indexOf(tone)] ?? same(after)[0];
  return found ? toneName(after, found) : null;
}

/** A pitch under its new name, in the octave nearest to where it should come. */
export function pitchTo(name: PitchName, note: NoteName, by: number): PitchName {
  const wanted = pitchMidi(name) + by;
  const pc = pitchClass(note);
  return pitchName(wanted + mod(pc - wanted + 6, 12) - 6, note);
}
