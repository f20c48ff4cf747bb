import { firstOf } from "../../../../base/list";
import { beatsText } from "../../../../theory/time/meter";
import type { Rule } from "../../rule";
import { betweenVoices, isLed } from "./pairs";

export const voiceUnison: Rule = {
  id: "voice-unison",
  title: "Two voices on one note",
  family: "voices",
  explanation:
    "For a beat or more two lines have one pitch: for that time there is one voice less. Takes of one " +
    "line count as one voice and are not named.",
  source: "common practice",
  severity: { chorale: "off", band: "note", jazz: "note", loop: "off" },
  find: (ctx) =>
    betweenVoices(ctx, {
      kind: "unison",
      says: "are on one note",
      counts: (p, ctx, pair) => isLed(ctx, pair) && p.duration >= firstOf(ctx.meter.beats).duration,
      at: (p) => p.first.pitch,
      amount: (p, { meter }) => beatsText(meter, p.duration),
    }),
};
