import type { CompKind } from "../kind";
import { inRhythm } from "../patterns";

export const chords: CompKind = {
  id: "voicing",
  title: "Chords in a rhythm",
  explanation:
    "The voicings of this part, held or in a rhythm of their own: chops, stabs cut short, gaps left on " +
    "purpose, attacks that anticipate the next chord, or the hits of a drum.",
  source: "common practice",
  voices: true,
  fresh: { name: "Guitar", instrument: "guitar" },
  settings: ["rhythm", "strum", "human"],
  notes: (ctx) => inRhythm(ctx, (c) => c.pitches),
};
