import { mod, type Midi } from "../../pitch/pitch";
import { bassPc, rootPc, type Chord } from "../../chord/chord";
import { pcOf } from "../stack";
import type { RawVoicing, VoicingStyle } from "../style";

/** Sounding ranges of the four voices, bass to soprano (Kostka & Payne, Tonal Harmony, value from memory). */
export const FOUR_PART: readonly [Midi, Midi][] = [
  [40, 60],
  [48, 67],
  [53, 74],
  [60, 79],
];

/** What each doubling costs: the root is best, then the fifth, then the third; leading tones and sevenths are not doubled (Kostka & Payne). */
function doublingCost(chord: Chord, pc: number): number {
  const above = mod(pc - rootPc(chord), 12);
  const dominant = chord.tones.some((t) => t.role === "b7") && chord.tones.some((t) => t.role === "3");
  if (above === 0) return 0;
  if (above === 7) return 0.8;
  return above === 4 && dominant ? 9 : above === 3 || above === 4 ? 1.6 : 9;
}

export const fourPart: VoicingStyle = {
  id: "four-part",
  title: "Four parts",
  explanation:
    "Soprano, alto, tenor and bass in their ranges, upper voices at most an octave apart, the root doubled first: textbook part writing. The bass sings the root or the written bass.",
  source: "Kostka & Payne, Tonal Harmony; Huron 2001",
  alone: true,
  fixed: true,
  candidates(chord) {
    const pcs = [...new Set(chord.tones.map((t) => pcOf(chord, t)))];
    const bass = bassPc(chord);
    const fifth = chord.tones.find((t) => t.role === "5");
    // What a complete chord needs; a fifth may be missing, the rest of the colors where there are too many.
    const needed = chord.tones
      .filter((t) => t.degree === 3 || t.degree === 4 || t.degree === 2 || t.degree === 7 || t.degree === 6)
      .map((t) => pcOf(chord, t));
    const out: RawVoicing[] = [];
    const at = (voice: number, pc: number): Midi[] => {
      const [low, high] = FOUR_PART[voice]!;
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
            const doubling = [...counts].reduce((sum, [pc, n]) => sum + (n - 1) * doublingCost(chord, pc) + (n > 2 ? 2 : 0), 0);
            if (doubling >= 9) continue;
            const missing = pcs
              .filter((pc) => !counts.has(pc))
              .reduce((sum, pc) => sum + (fifth && pc === pcOf(chord, fifth) ? 0.8 : 1.2), 0);
            out.push({ pitches: [b, t, a, s], missing, doubling });
          }
    return out;
  },
};
