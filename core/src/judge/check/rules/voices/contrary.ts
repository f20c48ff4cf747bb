import type { Rule } from "../../rule";
import { betweenVoices } from "./pairs";

export const contraryPerfects: Rule = {
  id: "contrary-perfects",
  title: "Fifths and octaves by contrary motion",
  family: "voices",
  explanation:
    "Two voices go from a fifth or an octave into another of the same by moving apart or together: by another " +
    "octave it " +
    "is the same bare interval twice. Strict writing treats it as parallels; many let it pass between the last two " +
    "chords.",
  source: "Kostka & Payne, Tonal Harmony (fifths and octaves by contrary motion)",
  severity: { chorale: "note", band: "off", jazz: "off", loop: "off" },
  find: (ctx) =>
    betweenVoices(ctx, {
      kind: "contrary",
      says: "go by contrary motion from one perfect interval into the same",
      at: (p) => `${p.interval}s`,
      amount: (p) => `contrary ${p.interval}s`,
    }),
};
