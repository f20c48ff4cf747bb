import { firstOf } from "../../../../base/list";
import { beatsText, metricalLevel } from "../../../../theory/time/meter";
import type { Rule } from "../../rule";
import { areSung, betweenVoices } from "./pairs";

export const voiceClash: Rule = {
  id: "voice-clash",
  title: "Voices rub",
  family: "voices",
  explanation:
    "Two sung lines stand a semitone or a minor ninth apart on a beat, or for one, and the chord does not hold " +
    "both tones. Singers find such a note hard to keep.",
  source: "any arranging handbook",
  severity: { chorale: "warning", band: "warning", jazz: "note", loop: "note" },
  find: (ctx) =>
    betweenVoices(ctx, {
      kind: "clash",
      says: "rub",
      counts: (p, ctx, pair) =>
        areSung(ctx, pair) &&
        (p.duration >= firstOf(ctx.meter.beats).duration || metricalLevel(ctx.meter, p.tick) >= -2),
      at: (_, top, low) => `${top} against ${low}`,
      amount: (p, { meter }) => beatsText(meter, p.duration),
    }),
};
