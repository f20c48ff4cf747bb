import { counted } from "../../../../theory/words/english";
import type { Rule } from "../../rule";
import { betweenVoices } from "./pairs";

export const voiceCrossing: Rule = {
  id: "voice-crossing",
  title: "Voices cross",
  family: "voices",
  explanation:
    "The lower of two sung lines goes above the upper one. The ear follows the top note and hears another " +
    "tune; in choral writing it is a fault, in a band it is told.",
  source: "Kostka & Payne, Tonal Harmony; Huron 2001",
  severity: { chorale: "fault", band: "note", jazz: "note", loop: "off" },
  find: (ctx) =>
    betweenVoices(ctx, {
      kind: "crossing",
      says: "cross",
      at: (p) => `${p.first.pitch} and ${p.second.pitch}`,
      amount: (p) => counted(Math.abs(p.semitones), "semitone"),
    }),
};
