import { firstOf, nth } from "../../../base/list";
import { mod, type Midi, type PitchClass } from "../../../theory/pitch/pitch";
import { bassPc, rootPc, type Chord, type ChordTone } from "../../../theory/chord/chord";
import { pcOf } from "../stack";
import type { RawVoicing, VoicingStyle } from "../style";

/** Sounding ranges of the four voices, bass to soprano (Kostka & Payne, Tonal Harmony, value from memory). */
export const FOUR_PART: readonly [Midi, Midi][] = [
  [40, 60],
  [48, 67],
  [53, 74],
  [60, 79],
];

/**
 * Pitch classes that want to go somewhere: the seventh down; up the third of a dominant, and the seventh degree of the
 * key under its dominant.
 */
function tendencies(
  chord: Chord,
  scale: readonly PitchClass[] | undefined,
): { seventh: PitchClass | null; leading: PitchClass | null } {
  const seventh = chord.tones.find((t) => t.degree === 7);
  const third = chord.tones.find((t) => t.role === "3");
  const dominant = third !== undefined && chord.tones.some((t) => t.role === "b7");
  const tonic = scale?.[0];
  const above = tonic === undefined ? -1 : mod(rootPc(chord) - tonic, 12);
  const own = tonic !== undefined && (above === 7 || above === 11) ? mod(tonic - 1, 12) : null;
  let leading: number | null;
  if (dominant) leading = pcOf(chord, third);
  else if (own !== null && chord.tones.some((t) => pcOf(chord, t) === own)) leading = own;
  else leading = null;
  return { seventh: seventh ? pcOf(chord, seventh) : null, leading };
}

/**
 * What each doubling costs: the root is best, then the fifth, then the third; leading tones, sevenths and colors are
 * not doubled (Kostka & Payne).
 */
function doublingCost(chord: Chord, pc: number, leading: PitchClass | null): number {
  const above = mod(pc - rootPc(chord), 12);
  if (pc === leading) return NEVER;
  if (above === 0) return 0;
  if (above === 7) return 0.8;
  return above === 3 || above === 4 ? 1.6 : NEVER;
}
const NEVER = 9;

/**
 * Tones a chord of four voices cannot do without: what names it, then what colors it, the richest first; a perfect
 * fifth is dropped first.
 */
function neededOf(chord: Chord): PitchClass[] {
  const rank = (t: ChordTone) => {
    if (t.degree === 3 || t.degree === 4 || t.degree === 2) return 0;
    if (t.degree === 7 || t.degree === 6) return 1;
    if (t.degree > 7) return 3 - t.degree / 20;
    return 2;
  };
  const wanted = chord.tones
    .filter((t) => t.degree !== 1 && (t.degree !== 5 || t.alter !== 0))
    .sort((x, y) => rank(x) - rank(y));
  const bass = bassPc(chord);
  const pcs = [...new Set(wanted.map((t) => pcOf(chord, t)))];
  // The bass is one of the four.
  const upper = pcs.filter((pc) => pc !== bass).slice(0, 3);
  return pcs.includes(bass) ? [bass, ...upper] : upper;
}

type Tendency = NonNullable<RawVoicing["tends"]>[number];

/** Where a voice, 0 for the bass, sings a pitch class. */
function sungAt(voice: number, pc: PitchClass): Midi[] {
  const [low, high] = nth(FOUR_PART, voice);
  const found: Midi[] = [];
  for (let m = low + mod(pc - low, 12); m <= high; m += 12) found.push(m);
  return found;
}

/** No voice crosses or doubles another at the unison; upper neighbors an octave apart at most, the bass a twelfth. */
const isSpaced = (b: Midi, t: Midi, a: Midi, s: Midi): boolean =>
  t > b && a > t && s > a && a - t <= 12 && s - a <= 12 && t - b <= 19;

/** What four voices are asked to sing: the tones, those they cannot do without, and where tones want to go. */
interface Asked {
  chord: Chord;
  pcs: readonly PitchClass[];
  needed: readonly PitchClass[];
  fifth: PitchClass | null;
  seventh: PitchClass | null;
  leading: PitchClass | null;
}

/** Four pitches as a layout; null where a needed tone is missing or one is doubled that never is. */
function layoutOf({ chord, pcs, needed, fifth, seventh, leading }: Asked, pitches: Midi[]): RawVoicing | null {
  const sung = pitches.map((m) => m % 12);
  if (!needed.every((pc) => sung.includes(pc))) return null;
  const counts = new Map<number, number>();
  for (const pc of sung) counts.set(pc, (counts.get(pc) ?? 0) + 1);
  const doubling = [...counts].reduce(
    (sum, [pc, n]) => sum + (n - 1) * doublingCost(chord, pc, leading) + (n > 2 ? 2 : 0),
    0,
  );
  if (doubling >= NEVER) return null;
  const missing = pcs.filter((pc) => !counts.has(pc)).reduce((sum, pc) => sum + (pc === fifth ? 0.8 : 1.2), 0);
  const tends = sung.flatMap((pc, voice): Tendency[] => {
    if (pc === seventh) return [{ voice, way: "down" }];
    return pc === leading ? [{ voice, way: "up" }] : [];
  });
  return { pitches, missing, doubling, ...(tends.length ? { tends } : {}) };
}

export const fourPart: VoicingStyle = {
  id: "four-part",
  title: "Four parts",
  explanation:
    "Soprano, alto, tenor and bass in their ranges, upper voices at most an octave apart, the root doubled " +
    "first: textbook part writing. Sevenths fall, leading tones rise (an inner one may fall to the fifth), " +
    "colors and altered fifths are kept and a perfect fifth is left out first. The bass sings the root or the " +
    "written bass.",
  source: "Kostka & Payne, Tonal Harmony; Huron 2001",
  alone: true,
  fixed: true,
  candidates(chord, { scale }) {
    const pcs = [...new Set(chord.tones.map((t) => pcOf(chord, t)))];
    const fifth = chord.tones.find((t) => t.role === "5");
    const asked: Asked = {
      ...{ chord, pcs, needed: neededOf(chord), ...tendencies(chord, scale) },
      fifth: fifth ? pcOf(chord, fifth) : null,
    };
    const minorOn: Pick<RawVoicing, "minorOn"> =
      scale && mod(nth(scale, 2) - firstOf(scale), 12) === 3 ? { minorOn: firstOf(scale) } : {};
    const out: RawVoicing[] = [];
    for (const b of sungAt(0, bassPc(chord)))
      for (const t of pcs.flatMap((pc) => sungAt(1, pc)))
        for (const a of pcs.flatMap((pc) => sungAt(2, pc)))
          for (const s of pcs.flatMap((pc) => sungAt(3, pc))) {
            const layout = isSpaced(b, t, a, s) && layoutOf(asked, [b, t, a, s]);
            if (layout) out.push({ ...layout, ...minorOn });
          }
    return out;
  },
};
