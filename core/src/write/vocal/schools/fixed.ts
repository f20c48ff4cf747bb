import { sure } from "../../../base/list";
import { because } from "../../../song/reasons";
import type { VocalContext } from "../context";
import type { VocalSchool, VocalWay } from "../school";
import { tuneSlots } from "../slots";
import { asStack } from "../tones";
import { distanceWords } from "./inScale";

/** The tune once more, so many semitones away. */
export function copyAt(ctx: VocalContext, semitones: number, title: string): VocalWay {
  return {
    title,
    slots: tuneSlots(ctx)
      .filter((s) => !s.joins)
      .map((s) => ({ ...s, duration: sure(s.lead).duration })),
    free: true,
    stacks: (slot) => [asStack(sure(slot.lead).midi + semitones, 0)],
    reason: ({ slot, midi }) =>
      because("copied", {
        interval: distanceWords(sure(slot.lead).midi, midi),
        pitch: sure(slot.lead).pitch,
        part: sure(ctx.lead).name,
      }),
  };
}

const titleOf = (semitones: number): string => `${Math.abs(semitones)} semitones ${semitones > 0 ? "up" : "down"}`;

export const fixed: VocalSchool = {
  id: "fixed",
  title: "A fixed interval",
  explanation:
    "A copy of the tune, every note the same number of semitones away: the quick way. What leaves the key or " +
    "the chord is marked, with the tones that would fit. Assumes a sound that moves in parallel, or someone " +
    "who mends it.",
  source: "common practice",
  voices: [1, 1],
  needs: ["tune"],
  targets: { given: true, parallel: true },
  uses: ["semitones"],
  ways(ctx) {
    const wanted = ctx.settings.semitones || 4;
    const turned = Math.abs(wanted) < 12 ? wanted - Math.sign(wanted) * 12 : wanted % 12;
    return [wanted, turned].filter((n) => n !== 0).map((n) => copyAt(ctx, n, titleOf(n)));
  },
};
