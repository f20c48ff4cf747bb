import { keyName, MODES, parseKey, type Key } from "../pitch/key";
import { mod, noteOf, parseNote, parsePitch, pitchClass, type PitchClass, plainName, spelledPc } from "../pitch/pitch";
import { bassPc, chordPitchClasses, rootPc, type Chord } from "../chord/chord";

/** Probe-tone profiles of major and minor keys (Krumhansl and Kessler 1982, values from memory). */
export const PROFILES_KK = {
  major: [6.35, 2.23, 3.48, 2.33, 4.38, 4.09, 2.52, 5.19, 2.39, 3.66, 2.29, 2.88],
  minor: [6.33, 2.68, 3.52, 5.38, 2.6, 3.53, 2.54, 4.75, 3.98, 2.69, 3.34, 3.17],
} as const;

export interface KeyFit {
  key: string;
  /** Correlation with the key's profile (−1 to 1); for chords, with a share for cadences and for where they begin and end. */
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
    top += (a[i]! - ma) * (b[i]! - mb);
    va += (a[i]! - ma) ** 2;
    vb += (b[i]! - mb) ** 2;
  }
  return va && vb ? top / Math.sqrt(va * vb) : 0;
}

/** All 24 keys against weights of the twelve pitch classes, best first. `sharps` chooses between F# and Gb. */
function rankKeys(weights: readonly number[], sharps: boolean, equal = EQUAL, extra: (key: Key) => number = () => 0): KeyFit[] {
  const fits: { key: string; score: number }[] = [];
  for (const mode of ["major", "minor"] as const)
    for (let pc = 0; pc < 12; pc++) {
      const turned = weights.map((_, i) => weights[mod(i + pc, 12)]!);
      const key = nameKey(pc, mode, sharps);
      fits.push({ key: keyName(key), score: correlation(turned, PROFILES_KK[mode]) + extra(key) });
    }
  fits.sort((a, b) => b.score - a.score);
  return fits.map((fit, i) => ({
    ...fit,
    margin: i === 0 ? fit.score - fits[1]!.score : fit.score - fits[0]!.score,
    equal: fits.filter((o) => o !== fit && Math.abs(o.score - fit.score) < equal).map((o) => o.key),
  }));
}

/** The reading of a tonic with the fewest accidentals; between two alike the wanted kind. */
export function nameKey(pc: PitchClass, mode: keyof typeof MODES, sharps: boolean): Key {
  const readings = [plainName(pc, true), plainName(pc, false)].flatMap((name) => {
    const key = parseKey(`${name} ${mode}`);
    return key.ok ? [key.value] : [];
  });
  return readings.sort(
    (a, b) => Math.abs(a.signature) - Math.abs(b.signature) || (sharps ? b.signature - a.signature : a.signature - b.signature),
  )[0]!;
}

export type WeighedNote = string | { pitch: string; duration: number };

/**
 * Ranks all major and minor keys for notes ("C4", "Eb", or with durations in any unit), best first, by correlation with the key profiles
 * (Krumhansl and Kessler 1982; the method is Krumhansl's 1990 key finding). Texts that are no notes are passed over.
 */
export function findKeys(notes: readonly WeighedNote[]): KeyFit[] {
  const weights = new Array<number>(12).fill(0);
  let lean = 0;
  for (const item of notes) {
    const text = typeof item === "string" ? item : item.pitch;
    const plain = parseNote(text);
    const pc = plain ? spelledPc(plain) : parsePitch(text).ok ? pitchClass(noteOf(text)) : null;
    if (pc === null) continue;
    weights[pc]! += typeof item === "string" ? 1 : item.duration;
    lean += text.includes("#") ? 1 : text.slice(1).includes("b") ? -1 : 0;
  }
  return rankKeys(weights, lean > 0);
}

/** Shares of a key that chords point to beyond their notes (common practice): each cadence, the last chord, the first. */
const CADENCE = 0.12;
const LAST = 0.1;
const FIRST = 0.06;

/** Ranks keys for chords with their lengths: their notes by the profiles, and where they cadence, begin and end. */
export function findKeysOfChords(chords: readonly { chord: Chord; duration: number }[]): KeyFit[] {
  const weights = new Array<number>(12).fill(0);
  let lean = 0;
  for (const { chord, duration } of chords) {
    for (const pc of chordPitchClasses(chord)) weights[pc]! += duration;
    weights[rootPc(chord)]! += duration;
    weights[bassPc(chord)]! += duration * 0.5;
    lean += chord.root.includes("#") ? 1 : chord.root.includes("b") ? -1 : 0;
  }
  return rankKeys(weights, lean > 0, EQUAL_CHORDS, (key) => {
    const isTonic = (chord: Chord | undefined) =>
      chord !== undefined &&
      rootPc(chord) === key.pcs[0] &&
      chord.tones.some((t) => t.degree === 3 && t.alter < 0 === (key.mode === "minor"));
    const cadences = chords.filter(
      ({ chord }, i) =>
        isTonic(chords[i + 1]?.chord) &&
        rootPc(chord) === mod(key.pcs[0]! + 7, 12) &&
        chord.tones.some((t) => t.role === "3" || t.degree === 4),
    ).length;
    return Math.min(2, cadences) * CADENCE + (isTonic(chords.at(-1)?.chord) ? LAST : 0) + (isTonic(chords[0]?.chord) ? FIRST : 0);
  });
}
