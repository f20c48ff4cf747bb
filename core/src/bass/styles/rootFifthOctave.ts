import { beatAt } from "../../time/meter";
import { chordAt } from "../context";
import { addApproaches, skeleton, toSlots, varyLastBar } from "../rhythm";
import type { BassStyle } from "../style";

export const rootFifthOctave: BassStyle = {
  id: "root-fifth-octave",
  title: "Root, fifth, octave",
  explanation:
    "The root states the chord, fifth and octave move it on and come back down, an approach note leads into the next root. Suits songs that should walk without wandering.",
  source: "common practice",
  targets: { pitchClasses: 4, longestOutside: 0.5, chordTime: 0.85 },
  taste: { root: 0.8, fifth: 0.2, majorThird: 2.2, minorThird: 1.4, seventh: 2.4, other: 4, octave: 0.1, repeat: 0.8 },
  glides: false,
  rhythm(ctx, chance) {
    const positions = skeleton(ctx);
    for (let bar = 0; bar < ctx.bars; bar++)
      for (const [i, beat] of ctx.meter.beats.entries()) {
        const at = bar * ctx.meter.bar + beat.start;
        const chord = chordAt(ctx, at);
        if (!chord?.chord || positions.has(at)) continue;
        // Every second beat of a chord carries the fifth or the octave; the others are left out by chance.
        const since = beatAt(ctx.meter, (((at - chord.start) % ctx.meter.bar) + ctx.meter.bar) % ctx.meter.bar);
        if (since % 2 === 0 || chance() < 0.4) positions.set(at, i % 2 ? "hook" : "octave");
      }
    addApproaches(ctx, positions, chance, 0.75);
    varyLastBar(ctx, positions, chance);
    return toSlots(ctx, positions, () => ctx.meter.beats[0]!.duration * 1.75);
  },
};
