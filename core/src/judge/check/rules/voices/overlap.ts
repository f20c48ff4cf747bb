import { beatsText } from "../../../../theory/time/meter";
import type { Rule } from "../../rule";
import { betweenVoices } from "./pairs";

export const voiceOverlap: Rule = {
  id: "voice-overlap",
  title: "Voices overlap",
  family: "voices",
  explanation:
    "A voice moves past the pitch its neighbor has just left: without crossing, the two lines are easily taken " +
    "for each other. Counts where voices are independent.",
  source: "Kostka & Payne, Tonal Harmony; Huron 2001",
  severity: { chorale: "warning", band: "off", jazz: "off", loop: "off" },
  find: (ctx) =>
    betweenVoices(ctx, {
      kind: "overlap",
      says: "overlap",
      at: (_, top, low) => `${top} and ${low}`,
      amount: (p, { meter }) => beatsText(meter, p.duration),
    }),
};
