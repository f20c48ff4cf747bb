import { lastOf } from "../../../base/list";
import type { PitchClass } from "../../../theory/pitch/pitch";
import { mod } from "../../../theory/pitch/pitch";
import { colorOf, lossOf, pcOf, places, voiced } from "../stack";
import type { VoicingStyle } from "../style";

/** A fourth, perfect or augmented; one major third may finish the stack. */
const isFourth = (interval: number): boolean => interval === 5 || interval === 6;

export const quartal: VoicingStyle = {
  id: "quartal",
  title: "Fourths",
  explanation:
    "Tones stacked in fourths, a third allowed on top: open and floating. Chords with a suspension, an " +
    "eleventh, a ninth or a sixth have enough of them.",
  source: "any twentieth-century harmony textbook",
  candidates(chord, limits) {
    const dominant = chord.tones.some((t) => t.role === "b7") && chord.tones.some((t) => t.role === "3");
    // A dominant keeps third and seventh and takes ninth and thirteenth for the stack: F B E A over G.
    const colors = dominant
      ? [colorOf(chord, 9, limits.scale), colorOf(chord, 13, limits.scale)].flatMap((t) => t ?? [])
      : [];
    const pcs = [...new Set([...chord.tones, ...colors].map((t) => pcOf(chord, t)))];
    const guides = dominant
      ? chord.tones.filter((t) => t.degree === 3 || t.degree === 7).map((t) => pcOf(chord, t))
      : [];
    const stacks: PitchClass[][] = [];
    const grow = (stack: PitchClass[]) => {
      if (stack.length >= 3) stacks.push(stack);
      if (stack.length === Math.min(5, limits.voices)) return;
      for (const pc of pcs) {
        const interval = mod(pc - lastOf(stack), 12);
        const last = stack.length >= 3 && interval === 4;
        if (!stack.includes(pc) && (isFourth(interval) || last)) grow([...stack, pc]);
      }
    };
    for (const pc of pcs) grow([pc]);
    return stacks
      .filter((s) => guides.every((g) => s.includes(g)))
      .flatMap((s) => {
        const used = chord.tones.filter((t) => s.includes(pcOf(chord, t)));
        // Open sound is wanted here: what is left out counts less.
        return voiced(chord, places(s, limits), limits, {
          missing: lossOf(chord, used, limits.bassCovered) * 0.4 + (limits.voices - s.length) * 0.5,
        });
      });
  },
};
