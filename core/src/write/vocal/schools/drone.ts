import { firstOf } from "../../../base/list";
import { mod, type Midi, type PitchClass } from "../../../theory/pitch/pitch";
import { because } from "../../../song/reasons";
import type { VocalContext } from "../context";
import type { VocalSchool, VocalSlot, VocalWay } from "../school";
import { breathBars } from "../slots";
import { chordUnder } from "../context";
import { chordPcs, pitchesIn, rangeCost, asStack } from "../tones";

/** One place a breath, over the whole section. */
function breaths(ctx: VocalContext): VocalSlot[] {
  const bar = breathBars(ctx) * ctx.meter.bar;
  const out: VocalSlot[] = [];
  for (let start = 0; start < ctx.length; start += bar)
    out.push({
      start,
      duration: Math.min(bar, ctx.length - start),
      lead: null,
      chord: chordUnder(ctx, start),
      fresh: start === 0,
      joins: false,
    });
  return out;
}

/** Ticks of the chords that have a tone. */
const heldBy = (ctx: VocalContext, pc: PitchClass): number =>
  ctx.chords.reduce((sum, c) => sum + (chordPcs(c).includes(pc) ? c.duration : 0), 0);

function on(ctx: VocalContext, pc: PitchClass, title: string): VocalWay {
  const voice = firstOf(ctx.voices);
  const center = (voice.comfortable[0] + voice.comfortable[1]) / 2;
  const midi = pitchesIn([pc], voice.extremes[0] - 12, voice.extremes[1] + 12).reduce<Midi>(
    (best, m) =>
      rangeCost(voice, m) + Math.abs(m - center) * 0.05 < rangeCost(voice, best) + Math.abs(best - center) * 0.05
        ? m
        : best,
    Math.round(center / 12) * 12 + pc,
  );
  return {
    title,
    slots: breaths(ctx),
    free: true,
    stacks: () => [asStack(midi, 0)],
    reason: () => because("drone", { key: `${ctx.key.tonic} ${ctx.key.mode}`, place: title.toLowerCase() }),
  };
}

export const drone: VocalSchool = {
  id: "drone",
  title: "Drone",
  explanation:
    "One note held through the section, taken up again with each breath: the tonic, the fifth, or the tone " +
    "that most of the chords have. Assumes that the harmony may rub against it for a while; where it does is " +
    "told.",
  source: "common practice",
  voices: [1, 1],
  needs: [],
  targets: { given: true },
  uses: ["tone", "syllable"],
  behind: true,
  ways(ctx) {
    const tonic = firstOf(ctx.key.pcs);
    const fifth = mod(tonic + 7, 12);
    const common = ctx.key.pcs.reduce((best, pc) => (heldBy(ctx, pc) > heldBy(ctx, best) ? pc : best), tonic);
    const ways = {
      tonic: [tonic, "On the tonic"],
      fifth: [fifth, "On the fifth"],
      common: [common, "On the tone that most chords have"],
    } as const;
    const { tone } = ctx.settings;
    const order = [tone, ...(["tonic", "fifth", "common"] as const).filter((t) => t !== tone)];
    const seen = new Set<number>();
    return order.flatMap((t) => {
      const [pc, title] = ways[t];
      if (seen.has(pc)) return [];
      seen.add(pc);
      return [on(ctx, pc, title)];
    });
  },
};
