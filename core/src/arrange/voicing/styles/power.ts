import { rootPc } from "../../../theory/chord/chord";
import { nth } from "../../../base/list";
import { comesBack } from "../../../theory/chord/frets";
import { mod } from "../../../theory/pitch/pitch";
import { holdShape, SHAPE_LIMITS, type Neck } from "../../../theory/instrument/fretboard";
import { pcOf, places, toneAt, voiced } from "../stack";
import type { RawVoicing, VoicingStyle } from "../style";

/**
 * The lowest strings are where hands take a fifth, with the octave over it, roots up to the twelfth fret; higher up the
 * neck costs by the fret, and a grip without the octave something (common practice).
 */
const LOW_STRINGS = 2;
const HIGHEST_ROOT = 12;
const UP_THE_NECK = 0.2;
const NO_OCTAVE = 0.6;
/** The highest fret of a grip, and of one in which an open string sounds (common practice). */
const HIGHEST = 15;
const BESIDE_OPEN = 4;

/**
 * Root, fifth and octave side by side on three strings, or root and fifth on two, as a hand takes them; the other
 * strings are silent. Those of the low strings, where there are any.
 */
function onNeck(neck: Neck, root: number, fifth: number): RawVoicing[] {
  const grips = neck.strings.flatMap((_, s) => [3, 2].flatMap((count) => grip(neck, { s, count, root, fifth }) ?? []));
  // Where the strings do not rise there are no low ones.
  if (comesBack(neck.strings)) return grips;
  const usual = grips.filter(({ pitches, shape }) => {
    const lowest = shape?.frets.findIndex((f) => f !== null) ?? -1;
    return pitches.length === 3 && lowest >= 0 && lowest < LOW_STRINGS;
  });
  return usual.length ? usual : grips;
}

/** The grip whose root lies on a string; none where a hand has none there. */
function grip(
  neck: Neck,
  { s, count, root, fifth }: { s: number; count: number; root: number; fifth: number },
): RawVoicing | null {
  const open = neck.strings.map((m) => m + neck.capo);
  const strings = open.slice(s, s + count);
  const at = mod(root - nth(open, s), 12);
  if (strings.length < count || at > Math.min(HIGHEST_ROOT, neck.frets - neck.capo)) return null;
  const tonic = nth(open, s) + at;
  const pitches = [tonic, tonic + mod(fifth - root, 12), tonic + 12].slice(0, count);
  const frets = open.map((sound, k) => (k < s || k >= s + count ? null : nth(pitches, k - s) - sound));
  const held = frets.some((f) => f !== null && f < 0) ? null : holdShape(neck, frets);
  if (!held || held.span > SHAPE_LIMITS.span || held.reach > SHAPE_LIMITS.reach) return null;
  const high = Math.max(...frets.map((f) => f ?? 0));
  if (high > HIGHEST || (frets.includes(0) && high > BESIDE_OPEN)) return null;
  const missing = at * UP_THE_NECK + (count === 2 ? NO_OCTAVE : 0);
  return { pitches, missing, doubling: 0, shape: { frets, pitches, ...held } };
}

export const power: VoicingStyle = {
  id: "power",
  title: "Thirdless and power",
  explanation:
    "Root and fifth, doubled at the octave, without any third: neither major nor minor, made for distortion " +
    "and for open loops. On a neck root, fifth and octave lie side by side on the low strings.",
  source: "common practice",
  alone: true,
  fixed: true,
  candidates(chord, limits) {
    const fifth = toneAt(chord, 5);
    if (!fifth || fifth.alter) return [];
    const [root, five] = [rootPc(chord), pcOf(chord, fifth)];
    if (limits.neck) return onNeck(limits.neck, root, five);
    const stacks = [
      [root, five],
      [root, five, root],
      [five, root],
      [five, root, five],
    ];
    return stacks.flatMap((s, i) =>
      voiced(chord, places(s, limits), limits, { missing: s.length === 2 ? 0.6 : 0, doubling: i >= 2 ? 0.6 : 0 }),
    );
  },
};
