import { add, firstOf, nth, pairwise } from "../../base/list";
import { keyName, MODES, parseKey, type Key, type Mode } from "../../theory/pitch/key";
import {
  mod,
  noteOf,
  parseNote,
  parsePitch,
  pitchClass,
  type PitchClass,
  plainName,
  spelledPc,
} from "../../theory/pitch/pitch";
import { bassPc, chordPitchClasses, rootPc, type Chord } from "../../theory/chord/chord";

/** Probe-tone profiles of major and minor keys (Krumhansl and Kessler 1982, values from memory). */
export const PROFILES_KK = {
  major: [6.35, 2.23, 3.48, 2.33, 4.38, 4.09, 2.52, 5.19, 2.39, 3.66, 2.29, 2.88],
  minor: [6.33, 2.68, 3.52, 5.38, 2.6, 3.53, 2.54, 4.75, 3.98, 2.69, 3.34, 3.17],
} as const;

export interface KeyFit {
  key: string;
  /**
   * Correlation with the key's profile (−1 to 1); for chords, with a share for cadences and for where they begin and
   * end.
   */
  score: number;
  /** How far it is ahead of the next key (of the one above it, for all but the first, negative). */
  margin: number;
  /** Other keys that fit equally well, within `EQUAL` or `EQUAL_CHORDS`. */
  equal: string[];
}

/** Two scores closer than this are equally good: for notes, and for chords, whose cadences weigh in. */
export const EQUAL = 0.02;
export const EQUAL_CHORDS = 0.06;

function correlation(a: readonly number[], b: readonly number[]): number {
  const mean = (x: readonly number[]) => x.reduce((s, v) => s + v, 0) / x.length;
  const [ma, mb] = [mean(a), mean(b)];
  let top = 0;
  let va = 0;
  let vb = 0;
  for (let i = 0; i < a.length; i++) {
    top += (nth(a, i) - ma) * (nth(b, i) - mb);
    va += (nth(a, i) - ma) ** 2;
    vb += (nth(b, i) - mb) ** 2;
  }
  return va && vb ? top / Math.sqrt(va * vb) : 0;
}

/** The degree in which a mode differs from the major or minor it resembles: its own semitones, and theirs. */
const MODAL: Partial<Record<Mode, { like: "major" | "minor"; own: number; instead: number }>> = {
  dorian: { like: "minor", own: 9, instead: 8 },
  phrygian: { like: "minor", own: 1, instead: 2 },
  lydian: { like: "major", own: 6, instead: 5 },
  mixolydian: { like: "major", own: 10, instead: 11 },
};

/**
 * Profile of a mode: that of the major or minor it resembles, with the two degrees changed over that tell them apart
 * (our derivation).
 */
function profileOf(mode: Mode): readonly number[] {
  const modal = MODAL[mode];
  if (!modal) return PROFILES_KK[mode as "major" | "minor"];
  const profile = [...PROFILES_KK[modal.like]];
  [profile[modal.own], profile[modal.instead]] = [nth(profile, modal.instead), nth(profile, modal.own)];
  return profile;
}

const PLAIN = ["major", "minor"] as const;
const ALL = [...PLAIN, "dorian", "phrygian", "lydian", "mixolydian"] as const;

/**
 * Keys of the given modes against weights of the twelve pitch classes, best first. `sharps` chooses between F# and Gb.
 */
function rankKeys(
  weights: readonly number[],
  sharps: boolean,
  equal = EQUAL,
  { modes = PLAIN, extra = () => 0 }: { modes?: readonly Mode[] | undefined; extra?: (key: Key) => number } = {},
): KeyFit[] {
  const fits: { key: string; score: number }[] = [];
  for (const mode of modes)
    for (let pc = 0; pc < 12; pc++) {
      const turned = weights.map((_, i) => nth(weights, mod(i + pc, 12)));
      const key = nameKey(pc, mode, sharps);
      fits.push({ key: keyName(key), score: correlation(turned, profileOf(mode)) + extra(key) });
    }
  fits.sort((a, b) => b.score - a.score);
  return fits.map((fit, i) => ({
    ...fit,
    margin: i === 0 ? fit.score - nth(fits, 1).score : fit.score - firstOf(fits).score,
    equal: fits.filter((o) => o !== fit && Math.abs(o.score - fit.score) < equal).map((o) => o.key),
  }));
}

/** The reading of a tonic with the fewest accidentals; between two alike the wanted kind. */
export function nameKey(pc: PitchClass, mode: keyof typeof MODES, sharps: boolean): Key {
  const readings = [plainName(pc, true), plainName(pc, false)].flatMap((name) => {
    const key = parseKey(`${name} ${mode}`);
    return key.ok ? [key.value] : [];
  });
  return firstOf(
    readings.sort(
      (a, b) =>
        Math.abs(a.signature) - Math.abs(b.signature) ||
        (sharps ? b.signature - a.signature : a.signature - b.signature),
    ),
  );
}

export type WeighedNote = string | { pitch: string; duration: number };

/**
 * Ranks all major and minor keys for notes ("C4", "Eb", or with durations in any unit), best first, by correlation with
 * the key profiles (Krumhansl and Kessler 1982; the method is Krumhansl's 1990 key finding). Texts that are no notes
 * are passed over.
 */
export function findKeys(notes: readonly WeighedNote[]): KeyFit[] {
  const weights = new Array<number>(12).fill(0);
  let lean = 0;
  for (const item of notes) {
    const text = typeof item === "string" ? item : item.pitch;
    const plain = parseNote(text);
    let pc: number | null;
    if (plain) pc = spelledPc(plain);
    else if (parsePitch(text).ok) pc = pitchClass(noteOf(text));
    else pc = null;
    if (pc === null) continue;
    add(weights, pc, typeof item === "string" ? 1 : item.duration);
    const signOf = () => {
      if (text.includes("#")) return 1;
      if (text.slice(1).includes("b")) return -1;
      return 0;
    };
    lean += signOf();
  }
  return rankKeys(weights, lean > 0);
}

/**
 * Shares of a key that chords point to beyond their notes (common practice): each cadence, each ii–V, the last chord,
 * the first, a dominant at the end that leads back; sevenths on I and IV as in the blues; two chords to and fro, of
 * which the first is home.
 */
const CADENCE = 0.12;
const TWO_FIVE = 0.06;
const LAST = 0.1;
const FIRST = 0.06;
const OPEN = 0.16;
const BLUES = 0.3;
const VAMP = 0.25;
/** A mode is heard only where its own degree is there, the other is not, and the music begins or ends at home. */
const RARE = 0.05;
const WHOLE = 0.06;
const UNHEARD = 0.5;
/** What the third of a dominant counts that goes where it leads. */
const LEADING = 0.25;

/** Each phrase of four chords that begins or rests at home. */
const PHRASE = 0.015;
const phrases = (list: readonly Chord[]): [Chord, Chord][] =>
  list.length < 8
    ? []
    : list.flatMap((c, i) => (i % 4 === 0 && list[i + 3] ? [[c, nth(list, i + 3)] as [Chord, Chord]] : []));

const has = (chord: Chord, role: string): boolean => chord.tones.some((t) => t.role === role);

/**
 * Ranks keys, church modes among them, for chords with their lengths: their notes by the profiles, and where they
 * cadence, begin and end.
 */
export function findKeysOfChords(chords: readonly { chord: Chord; duration: number }[]): KeyFit[] {
  const weights = new Array<number>(12).fill(0);
  let lean = 0;
  let after: Chord | undefined;
  let next: Chord | undefined;
  for (const { chord, duration } of [...chords].reverse()) {
    // The next chord on another root: repeats of this one are passed over.
    if (after && rootPc(after) !== rootPc(chord)) next = after;
    after = chord;
    // The third of a dominant that falls a fifth leads to the next root; of the key it says little.
    const leads =
      next !== undefined && has(chord, "b7") && has(chord, "3") && mod(rootPc(next) - rootPc(chord), 12) === 5;
    for (const pc of chordPitchClasses(chord))
      add(weights, pc, leads && mod(pc - rootPc(chord), 12) === 4 ? duration * LEADING : duration);
    add(weights, rootPc(chord), duration);
    add(weights, bassPc(chord), duration * 0.5);
    const signOfRoot = () => {
      if (chord.root.includes("#")) return 1;
      if (chord.root.includes("b")) return -1;
      return 0;
    };
    lean += signOfRoot();
  }
  const list = chords.map((c) => c.chord);
  // Repeats and other colors of a chord are one harmony.
  const harmonies = list.filter((c, i) => i === 0 || rootPc(c) !== rootPc(nth(list, i - 1)));
  // What comes around begins where its home is; what is said once ends there.
  const half = list.length / 2;
  const round =
    half > 1 && list.length % 2 === 0 && list.slice(half).every((c, i) => rootPc(c) === rootPc(nth(list, i)));
  const sounds = (pc: PitchClass) => nth(weights, mod(pc, 12)) > 0;
  const music: ChordsHeard = { list, harmonies, round, sounds };
  return rankKeys(weights, lean > 0, EQUAL_CHORDS, { modes: ALL, extra: (key) => speaksFor(key, music) });
}

/** Chords as they are listened to for their key. */
interface ChordsHeard {
  list: readonly Chord[];
  /** One chord for each stretch on a root. */
  harmonies: readonly Chord[];
  /** The second half goes over the roots of the first. */
  round: boolean;
  sounds: (pc: PitchClass) => boolean;
}

/** What speaks for a key besides its notes: home where music begins, rests and ends, cadences, a mode's own degree. */
function speaksFor(key: Key, music: ChordsHeard): number {
  const { list, round } = music;
  const bluesy = isBlues(key, list);
  const isHome = (chord: Chord | undefined) => chord !== undefined && isHomeChord(chord, key, bluesy);
  const [first, last] = [list[0], list.at(-1)];
  const ends = round ? { first: LAST, last: FIRST } : { first: FIRST, last: LAST };
  const rests = phrases(list).filter(([begin, end]) => isHome(begin) || isHome(end)).length;
  const score = (isHome(last) ? ends.last : 0) + (isHome(first) ? ends.first : 0) + rests * PHRASE;
  const modal = MODAL[key.mode];
  if (modal) return score + speaksForMode(key, modal, music, isHome);
  return score + cadencesIn(key, music, isHome) + (bluesy && isHome(first) ? BLUES : 0);
}

const degreePc = (key: Key, semitones: number): PitchClass => mod(firstOf(key.pcs) + semitones, 12);

/** Tonic and subdominant are sevenths throughout. */
function isBlues(key: Key, list: readonly Chord[]): boolean {
  if (isMinorMode(key)) return false;
  return [0, 5].every((d) => {
    const there = list.filter((c) => rootPc(c) === degreePc(key, d) && has(c, "3"));
    return there.length > 0 && there.every((c) => has(c, "b7"));
  });
}
const isMinorMode = (key: Key): boolean => MODES[key.mode][2] === 3;

/** The tonic chord. A dominant seventh is home in the blues and in mixolydian alone. */
function isHomeChord(chord: Chord, key: Key, bluesy: boolean): boolean {
  const minor = isMinorMode(key);
  return (
    rootPc(chord) === degreePc(key, 0) &&
    chord.tones.some((t) => t.degree === 3 && t.alter < 0 === minor) &&
    (minor || !has(chord, "b7") || bluesy || key.mode === "mixolydian")
  );
}

type IsHome = (chord: Chord | undefined) => boolean;

/** A mode is heard where its own degree is there, the one it changes is not, and the music begins or ends at home. */
function speaksForMode(
  key: Key,
  { own, instead }: { own: number; instead: number },
  { list, harmonies, sounds }: ChordsHeard,
  isHome: IsHome,
): number {
  const [first, last] = [list[0], list.at(-1)];
  const begins = isHome(first);
  const heard =
    sounds(degreePc(key, own)) &&
    !sounds(degreePc(key, instead)) &&
    (begins || (last !== undefined && isHome(last) && !has(last, "b7")));
  if (!heard) return -RARE - UNHEARD;
  const whole = list.every((c) => chordPitchClasses(c).every((pc) => key.pcs.includes(pc)));
  const two = new Set(harmonies.map(rootPc)).size === 2 && harmonies.length > 2;
  return (whole ? WHOLE : -RARE) + (two && begins ? VAMP : 0);
}

/** Dominants, or their substitutes on the lowered second degree, that go home; ii before them; an open end. */
function cadencesIn(key: Key, { harmonies, list }: ChordsHeard, isHome: IsHome): number {
  const isFive = (chord: Chord) =>
    rootPc(chord) === degreePc(key, 7) && (has(chord, "3") || chord.tones.some((t) => t.degree === 4));
  const leads = (chord: Chord) =>
    isFive(chord) || (rootPc(chord) === degreePc(key, 1) && has(chord, "3") && has(chord, "b7"));
  const isTwo = (chord: Chord) => rootPc(chord) === degreePc(key, 2);
  const steps = pairwise(harmonies);
  const cadences = steps.filter(([a, b]) => leads(a) && isHome(b)).length;
  const pairs = steps.filter(([a, b]) => isTwo(a) && has(a, "b3") && leads(b) && has(b, "b7")).length;
  const score = Math.min(2, cadences) * CADENCE + Math.min(2, pairs) * TWO_FIVE;
  const [before, last] = [harmonies.at(-2), list.at(-1)];
  if (!last || !isFive(last) || !has(last, "b7")) return score;
  return score + OPEN + (before && isTwo(before) ? CADENCE : 0);
}
