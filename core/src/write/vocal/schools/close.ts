import { firstOf, lastOf, nth, sure } from "../../../base/list";
import { mod, type Midi } from "../../../theory/pitch/pitch";
import type { VocalContext } from "../context";
import type { Stack, VocalSchool, VocalSlot, VocalWay } from "../school";
import type { VocalSettings } from "../settings";
import { tuneSlots } from "../slots";
import { choose, chordPcs, pitchesIn, scaleOf, stepped, toneCost } from "../tones";
import { besideReason } from "./inScale";
import { guideCost } from "./guide";

/** Voices within an octave of the tune: below it, or with one above. */
export function closeStacks(ctx: VocalContext, slot: VocalSlot, place: VocalSettings["lead"]): Midi[][] {
  const lead = sure(slot.lead).midi;
  const count = ctx.voices.length;
  const scale = scaleOf(ctx, slot.chord);
  const pcs = slot.chord?.chord ? chordPcs(slot.chord) : scale;
  const above = place === "second" ? 1 : 0;
  const uppers = above ? pitchesIn(pcs, lead + 3, lead + 9).map((m) => [m]) : [[]];
  // Where the tune is no tone of the chord it stands for the one just below it.
  const passing = !pcs.includes(mod(lead, 12));
  const lowers = choose(pitchesIn(pcs, lead - 12, lead - (passing ? 3 : 1)).reverse(), count - above);
  const all = uppers.flatMap((u) => lowers.map((l) => [...u, ...l]));
  // A passing tone may be gone along with by all: the scale, step by step.
  const along = passing ? [Array.from({ length: count }, (_, v) => stepped(scale, lead, -2 * (v + 1)))] : [];
  const found = [...all, ...(above ? [] : along)].filter((s) => s.length === count && firstOf(s) - lastOf(s) <= 14);
  return found;
}

/** What a setting costs beside its tones: seconds and holes between neighbors, guide tones left out. */
export function stackCost(ctx: VocalContext, slot: VocalSlot, pitches: readonly Midi[], widest: number): number {
  let cost = guideCost(slot, [...pitches, sure(slot.lead).midi]);
  pitches.forEach((midi, v) => (cost += toneCost(ctx, slot, midi, nth(ctx.voices, v))));
  const all = [...pitches, sure(slot.lead).midi].sort((a, b) => b - a);
  for (let i = 1; i < all.length; i++) {
    const gap = nth(all, i - 1) - nth(all, i);
    const gapCost = () => {
      if (gap === 1) return 1.5;
      if (gap === 2) return 0.5;
      return Math.max(0, gap - widest) * 0.3;
    };
    cost += gapCost();
  }
  return cost;
}

/** All voices move with the tune: a step that keeps the shape is what the style is. */
function way(ctx: VocalContext, place: VocalSettings["lead"]): VocalWay {
  return {
    title: place === "top" ? "The tune on top" : "A voice above the tune",
    slots: tuneSlots(ctx),
    several: true,
    stacks: (slot) =>
      closeStacks(ctx, slot, place).map((pitches): Stack => ({ pitches, cost: stackCost(ctx, slot, pitches, 5) })),
    reason: ({ slot, midi }) => besideReason(ctx, slot, midi),
  };
}

export const close: VocalSchool = {
  id: "close",
  title: "Close harmony",
  explanation:
    "Two to four parts within an octave, all on the words and in the rhythm of the tune: under each of its " +
    "notes the next tones of the chord. A passing note of the tune is gone along with by all. Assumes voices " +
    "that blend into one; parallels are the style.",
  source: "common practice",
  voices: [1, 3],
  needs: ["tune", "chords"],
  targets: { chordTime: 0.7, parallel: true },
  usual: { voices: 3 },
  uses: ["voices", "lead"],
  ways: (ctx) => {
    const { lead } = ctx.settings;
    return [way(ctx, lead), way(ctx, lead === "top" ? "second" : "top")];
  },
};
