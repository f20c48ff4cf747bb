import { sure } from "../../../base/list";
import type { Midi } from "../../../theory/pitch/pitch";
import type { VocalContext } from "../context";
import type { VocalSchool, VocalSlot, VocalWay } from "../school";
import { tuneSlots } from "../slots";
import { chordPcs, pitchesIn, scaleOf, asStack } from "../tones";
import { besideReason, octaveFor } from "./inScale";

/** A semitone from the tune is no harmony. */
const NEAREST = 2;

/**
 * Chord tones on one side of a pitch, the nearest first; tones of the scale a third away and more where no chord
 * sounds.
 */
function tonesBeside(ctx: VocalContext, { lead, chord }: VocalSlot, way: 1 | -1): Midi[] {
  const from = sure(lead).midi + way * (chord?.chord ? NEAREST : 3);
  const pcs = chord?.chord ? chordPcs(chord) : scaleOf(ctx, chord);
  const found = way > 0 ? pitchesIn(pcs, from, from + 13) : pitchesIn(pcs, from - 13, from);
  return way > 0 ? found : found.reverse();
}

function nearest(ctx: VocalContext, side: "below" | "above", rank: 0 | 1): VocalWay {
  const slots = tuneSlots(ctx);
  const way = side === "above" ? 1 : -1;
  const plain = (slot: VocalSlot) => tonesBeside(ctx, slot, way)[rank] ?? null;
  const octave = octaveFor(ctx, side, plain, slots);
  return {
    title: `The ${rank ? "next but one" : "nearest"} chord tone ${side}${octave ? ", an octave away" : ""}`,
    slots,
    free: true,
    stacks: (slot) => {
      const midi = plain(slot);
      return midi === null ? [] : [asStack(midi + octave, 0)];
    },
    reason: ({ slot, midi }) => besideReason(ctx, slot, midi),
  };
}

export const chordTone: VocalSchool = {
  id: "chordTone",
  title: "Nearest chord tone",
  explanation:
    "Under or over each note of the tune the nearest tone of the chord, a semitone apart never. It stands " +
    "still while the tune passes through, and always agrees with the chord. Assumes that the chord matters " +
    "more than the line: leaps and seconds can come of it.",
  source: "common practice",
  voices: [1, 1],
  needs: ["tune", "chords"],
  targets: { chordTime: 0.95, parallel: true },
  uses: ["side"],
  ways: (ctx) => {
    const { side } = ctx.settings;
    const turned = side === "above" ? ("below" as const) : ("above" as const);
    return [nearest(ctx, side, 0), nearest(ctx, side, 1), nearest(ctx, turned, 0)];
  },
};
