import { nth } from "../../../base/list";
import type { Midi } from "../../../theory/pitch/pitch";
import { belowLimit } from "../../../theory/motion/motion";
import type { VocalContext } from "../context";
import type { Stack, VocalSchool, VocalSlot, VocalWay } from "../school";
import { tuneSlots } from "../slots";
import { besideReason } from "./inScale";
import { closeStacks, stackCost } from "./close";

/** Settings of close harmony with one voice let down an octave, the highest or the one under it. */
function openStacks(ctx: VocalContext, slot: VocalSlot, down: number): Midi[][] {
  return closeStacks(ctx, slot, "top").map((pitches) => {
    const at = Math.min(down, pitches.length - 1);
    return pitches.map((p, v) => (v === at ? p - 12 : p)).sort((a, b) => b - a);
  });
}

const low = (pitches: readonly Midi[]): number =>
  pitches.slice(1).reduce((sum, p, i) => sum + belowLimit(p, nth(pitches, i)), 0);

function way(ctx: VocalContext, down: number): VocalWay {
  return {
    title: down ? "The third voice let down an octave" : "The second voice let down an octave",
    slots: tuneSlots(ctx),
    several: true,
    stacks: (slot) =>
      openStacks(ctx, slot, down).map((pitches): Stack => ({
        pitches,
        cost: stackCost(ctx, slot, pitches, 10) + low(pitches) * 2,
      })),
    reason: ({ slot, midi }) => besideReason(ctx, slot, midi),
  };
}

export const open: VocalSchool = {
  id: "open",
  title: "Open harmony",
  explanation:
    "Two to four parts spread over more than an octave, in the rhythm of the tune: close harmony with one of " +
    "its voices let down an octave. Assumes voices of different registers; it sounds wider and calmer than " +
    "close harmony.",
  source: "common practice",
  voices: [1, 3],
  needs: ["tune", "chords"],
  targets: { chordTime: 0.7, parallel: true },
  usual: { voices: 3 },
  uses: ["voices"],
  ways: (ctx) => (ctx.voices.length > 1 ? [way(ctx, 0), way(ctx, 1)] : [way(ctx, 0)]),
};
