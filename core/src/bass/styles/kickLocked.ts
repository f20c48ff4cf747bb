import { beatLength, chordAt } from "../context";
import { addApproaches, skeleton, toSlots, untilBackbeat, varyLastBar } from "../rhythm";
import type { BassStyle } from "../style";

export const kickLocked: BassStyle = {
  id: "kick-locked",
  title: "Kick-locked",
  explanation:
    "Sounds with the kick, cut before the backbeat so that the line breathes; a few notes away from the kick give the hook. Suits grooves with a kick worth hearing.",
  source: "common practice",
  targets: { pitchClasses: 4, longestOutside: 0.5, chordTime: 0.95 },
  taste: { root: 0.3, fifth: 0.7, majorThird: 1.8, minorThird: 1, seventh: 1.4, other: 4, octave: 0.6, repeat: 0.25 },
  glides: false,
  rhythm(ctx, chance) {
    const positions = skeleton(ctx);
    for (const kick of ctx.kicks)
      if (!positions.has(kick.start) && chordAt(ctx, kick.start)?.chord && chance() < 0.85) positions.set(kick.start, "kick");
    // One hook every other bar, in a gap of kick and melody.
    const taken = new Set([...ctx.kicks.map((k) => k.start), ...ctx.melody]);
    for (let bar = 0; bar < ctx.bars; bar++) {
      const halves = ctx.meter.beats
        .slice(1)
        .map((b) => bar * ctx.meter.bar + b.start + b.duration / 2)
        .filter((at) => Number.isInteger(at) && !taken.has(at) && !positions.has(at) && chordAt(ctx, at)?.chord);
      const roll = chance();
      if (halves.length && roll < 0.5) positions.set(halves[Math.floor(roll * 2 * halves.length)]!, "hook");
    }
    addApproaches(ctx, positions, chance, 0.35);
    varyLastBar(ctx, positions, chance);
    return toSlots(ctx, positions, (start) => untilBackbeat(ctx, start, beatLength(ctx, start) * 1.5));
  },
};
