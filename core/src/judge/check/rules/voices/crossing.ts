import { counted } from "../../../../theory/words/english";
import { beatsText } from "../../../../theory/time/meter";
import type { Rule } from "../../rule";
import { betweenVoices, isLed } from "./pairs";

export const voiceCrossing: Rule = {
  id: "voice-crossing",
  title: "Voices cross",
  family: "voices",
  explanation:
    "The lower of two lines, sung or played, goes above the upper one. The ear follows the top note and hears " +
    "another tune; in choral writing it is a fault, in a band it is told.",
  source: "Kostka & Payne, Tonal Harmony; Huron 2001",
  severity: { chorale: "fault", band: "note", jazz: "note", loop: "off" },
  find: (ctx) =>
    betweenVoices(ctx, {
      kind: "crossing",
      says: "cross",
      // In a band lines that accompany may cross; what crosses the tune or a voice takes its place.
      counts: (_, ctx, pair) => ctx.song.profile === "chorale" || isLed(ctx, pair),
      at: (_, top, low) => `${top} and ${low}`,
      amount: (p, { meter }) => `${counted(Math.abs(p.semitones), "semitone")}, ${beatsText(meter, p.duration)}`,
    }),
};
