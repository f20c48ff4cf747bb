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
    const bass = bassPc(chord);
    const fifth = chord.tones.find((t) => t.role === "5");
    const needed = neededOf(chord);
    const { seventh, leading } = tendencies(chord, scale);
    const minorOn: Pick<RawVoicing, "minorOn"> =
      scale && mod(nth(scale, 2) - firstOf(scale), 12) === 3 ? { minorOn: firstOf(scale) } : {};
    const out: RawVoicing[] = [];
    const at = (voice: number, pc: number): Midi[] => {
      const [low, high] = nth(FOUR_PART, voice);
      const found: Midi[] = [];
      for (let m = low + mod(pc - low, 12); m <= high; m += 12) found.push(m);
      return found;
    };
    for (const b of at(0, bass))
      for (const t of pcs.flatMap((pc) => at(1, pc)))
        for (const a of pcs.flatMap((pc) => at(2, pc)))
          for (const s of pcs.flatMap((pc) => at(3, pc))) {
            if (t < b || a < t || s < a || a - t > 12 || s - a > 12 || t - b > 19) continue;
            const sung = [b, t, a, s].map((m) => m % 12);
            if (!needed.every((pc) => sung.includes(pc))) continue;
            if (new Set([b, t, a, s]).size < 4) continue;
            const counts = new Map<number, number>();
            for (const pc of sung) counts.set(pc, (counts.get(pc) ?? 0) + 1);
            const doubling = [...counts].reduce(
              (sum, [pc, n]) => sum + (n - 1) * doublingCost(chord, pc, leading) + (n > 2 ? 2 : 0),
              0,
            );
            if (doubling >= NEVER) continue;
            const missing = pcs
              .filter((pc) => !counts.has(pc))
              .reduce((sum, pc) => sum + (fifth && pc === pcOf(chord, fifth) ? 0.8 : 1.2), 0);
            const tends = sung.flatMap((pc, voice): Tendency[] => {
              if (pc === seventh) return [{ voice, way: "down" }];
              if (pc === leading) return [{ voice, way: "up" }];
              return [];
            });
            out.push({ pitches: [b, t, a, s], missing, doubling, ...minorOn, ...(tends.length ? { tends } : {}) });
          }
    return out;
  },
};
