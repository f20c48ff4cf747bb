import { raised, type CompKind } from "../kind";
import { inRhythm } from "../patterns";

export const octave: CompKind = {
  id: "octave",
  title: "Octave doubling",
  explanation:
    "The top note of each voicing again, octaves higher or lower: the line of the top made clear in another sound.",
  source: "common practice",
  voices: false,
  fresh: { name: "Doubling", instrument: "vibraphone" },
  settings: ["lift", "rhythm", "human"],
  notes(ctx) {
    const lift = (ctx.playing.lift ?? 1) || 1;
    return inRhythm(ctx, (c) => c.pitches.slice(-1).map((p) => raised(p, lift)));
  },
};
