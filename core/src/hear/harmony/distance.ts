import { firstOf, nth } from "../../base/list";
import { parseKey, type Key } from "../../theory/pitch/key";
import { mod, type PitchClass } from "../../theory/pitch/pitch";
import { chordPitchClasses, rootPc, type Chord } from "../../theory/chord/chord";
import { isDiatonic } from "../../theory/chord/numerals";
import { parseChord } from "../../theory/chord/parse";
import { motionBetween } from "../../theory/motion/motion";

/** Steps on the circle of fifths from 0 to a pitch class, the shorter way (0–6). */
const fifths = (pc: number): number => {
  const steps = mod(pc * 7, 12);
  return Math.min(steps, 12 - steps);
};

/**
 * Levels of the basic space (Lerdahl 1988): root, fifth, triad, diatonic collection. Sevenths and tensions are left
 * out, as in the source.
 */
function basicSpace(chord: Chord, region: Key): Set<string> {
  const root = rootPc(chord);
  const fifth = mod(root + (chord.tones.find((t) => t.degree === 5)?.semitones ?? 7), 12);
  const triad = chord.tones.filter((t) => t.degree <= 5).map((t) => mod(root + t.semitones, 12));
  const levels: [string, PitchClass[]][] = [
    ["a", [root]],
    ["b", [root, fifth]],
    ["c", triad],
    ["d", region.pcs],
  ];
  return new Set(levels.flatMap(([level, pcs]) => pcs.map((pc) => `${level}${pc}`)));
}

/**
 * Steps between two roots on the circle of fifths of one key's seven notes (I IV vii iii vi ii V), the shorter way;
 * null when a root is foreign.
 */
function diatonicFifths(from: PitchClass, to: PitchClass, region: Key): number | null {
  const a = region.pcs.indexOf(from);
  const b = region.pcs.indexOf(to);
  if (a < 0 || b < 0) return null;
  const steps = mod((b - a) * 2, 7);
  return Math.min(steps, 7 - steps);
}

export interface LerdahlDistance {
  total: number;
  /** Steps between the regions (diatonic collections) on the circle of fifths. */
  region: number;
  /** Steps between the roots on the circle of fifths. */
  chord: number;
  /** Notes of the second chord's basic space that the first one's lacks. */
  distinct: number;
}

/**
 * Distance between two chords after Lerdahl (1988, *Tonal Pitch Space*): δ = i + j + k. Within one key this gives I–V
 * 5, I–vi 7, I–ii 8. Across keys the region term i counts steps between the two diatonic collections, and j counts
 * roots on the target key's own circle of fifths, on the chromatic one where the first root is foreign to it.
 */
export function chordDistance(from: Chord, to: Chord, fromKey: Key, toKey: Key = fromKey): LerdahlDistance {
  const collection = (key: Key) => key.signature * 7;
  const region = Math.min(6, Math.abs(fifths(collection(toKey) - collection(fromKey))));
  const chord = diatonicFifths(rootPc(from), rootPc(to), toKey) ?? fifths(rootPc(to) - rootPc(from));
  const a = basicSpace(from, fromKey);
  const distinct = [...basicSpace(to, toKey)].filter((x) => !a.has(x)).length;
  return { total: region + chord + distinct, region, chord, distinct };
}

/**
 * The key a foreign chord is heard in for the distance: the nearest one that contains it, the given key when that does.
 */
export function regionOf(chord: Chord, key: Key): Key {
  const pcs = chordPitchClasses(chord);
  const holds = (k: Key) => pcs.every((pc) => k.pcs.includes(pc));
  // The dominant of minor with its raised seventh is the key's own.
  if (holds(key) || isDiatonic(chord, key, true)) return key;
  for (let steps = 1; steps <= 6; steps++)
    for (const sign of [-1, 1]) {
      const signature = key.signature + sign * steps;
      const found = Math.abs(signature) <= 7 ? ofSignature(signature) : null;
      if (found && holds(found)) return found;
    }
  return key;
}

const MAJORS = ["Cb", "Gb", "Db", "Ab", "Eb", "Bb", "F", "C", "G", "D", "A", "E", "B", "F#", "C#"];
function ofSignature(signature: number): Key {
  const key = parseKey(`${MAJORS[signature + 7]} major`);
  if (!key.ok) throw new Error(key.error.message);
  return key.value;
}

/** The tonic triad of a key. */
export function tonicOf(key: Key): Chord {
  const triad = () => {
    if (key.pcs[2] === mod(firstOf(key.pcs) + 3, 12)) {
      if (key.mode === "locrian") return "dim";
      return "m";
    }
    return "";
  };
  const chord = parseChord(key.tonic + triad());
  if (!chord.ok) throw new Error(chord.error.message);
  return chord.value;
}

/**
 * Smallest voice leading between two chords: sum of semitones, octaves free, every tone of each matched to at least one
 * of the other. Equals the published distances for chords of the same size (Cohn 1996; Tymoczko 2006); where sizes
 * differ tones are doubled.
 */
export function smallestMotion(a: Chord, b: Chord): number {
  return setDistance(chordPitchClasses(a), chordPitchClasses(b));
}

/** What was worked out, by the two sets: few are met, and those again and again. */
const distances = new Map<number, number>();
const bitsOf = (pcs: readonly PitchClass[]): number => pcs.reduce((bits, pc) => bits | (1 << pc), 0);

/** The same between two sets of pitch classes. */
export function setDistance(a: readonly PitchClass[], b: readonly PitchClass[]): number {
  const id = bitsOf(a) * 4096 + bitsOf(b);
  const known = distances.get(id);
  if (known !== undefined) return known;
  const from = [...new Set(a)].sort((x, y) => x - y);
  const to = [...new Set(b)].sort((x, y) => x - y);
  // A best matching never crosses, so it is one of the turns of the second chord, with the first chord beginning at any
  // of its notes.
  let best = Infinity;
  for (let s = 0; s < from.length; s++) {
    const first = from.map((_, i) => nth(from, (i + s) % from.length) + (i + s >= from.length ? 12 : 0));
    for (let rotation = -to.length; rotation <= to.length; rotation++) {
      const second = to.map(
        (_, i) => nth(to, mod(i + rotation, to.length)) + 12 * Math.floor((i + rotation) / to.length),
      );
      for (const shift of [0, 12])
        best = Math.min(
          best,
          motionBetween(
            first,
            second.map((x) => x + shift),
          ),
        );
    }
  }
  if (distances.size < 20000) distances.set(id, best);
  return best;
}
