import type { Chord, ChordTone } from "../../../theory/chord/chord";
import { colorOf, lossOf, pcOf, places, toneAt, voiced } from "../stack";
import type { VoicingLimits, VoicingStyle } from "../style";

/**
 * Third, fifth (or thirteenth, or sixth), seventh, ninth; what the chord does not name comes from its key, and where
 * there is no ninth three tones are left.
 */
function fourTones(
  chord: Chord,
  scale: VoicingLimits["scale"],
): { third: ChordTone; fifth: ChordTone; seventh: ChordTone; ninth: ChordTone | undefined } | null {
  const third = toneAt(chord, 3, 4);
  const seventh = toneAt(chord, 7, 6);
  const dominant =
    chord.tones.some((t) => t.role === "b7") && chord.tones.some((t) => t.role === "3" || t.role === "4");
  const thirteenth = dominant ? (toneAt(chord, 13) ?? colorOf(chord, 13, scale)) : undefined;
  const fifth = thirteenth ?? toneAt(chord, 5);
  const ninth = toneAt(chord, 9) ?? colorOf(chord, 9, scale);
  return third && seventh && fifth ? { third, fifth, seventh, ninth } : null;
}

export function rootless(order: (t: NonNullable<ReturnType<typeof fourTones>>) => (ChordTone | undefined)[]) {
  return (chord: Chord, limits: VoicingLimits) => {
    const found = fourTones(chord, limits.scale);
    if (!found || !limits.bassCovered) return [];
    const tones = order(found).filter((t) => t !== undefined);
    const pcs = tones.map((t) => pcOf(chord, t));
    return voiced(chord, places(pcs, limits), limits, { missing: lossOf(chord, tones, true) * 0.5 });
  };
}

export const rootlessAny: VoicingStyle = {
  id: "rootless",
  title: "Rootless A and B",
  explanation:
    "Left-hand chords without root over a bass: third, fifth, seventh and ninth from the third up (A) or from " +
    "the seventh up (B), a thirteenth in place of the fifth of a dominant. The path changes between A and B, " +
    "so that hardly anything moves.",
  source: "Levine, The Jazz Piano Book",
  fixed: true,
  candidates: (chord, limits) => [
    ...rootless((t) => [t.third, t.fifth, t.seventh, t.ninth])(chord, limits),
    ...rootless((t) => [t.seventh, t.ninth, t.third, t.fifth])(chord, limits),
  ],
};
