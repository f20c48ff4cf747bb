import type { Rule } from "../../rule";
import { betweenVoices } from "./pairs";

export const voiceParallels: Rule = {
  id: "voice-parallels",
  title: "Parallel fifths and octaves between voices",
  family: "voices",
  explanation:
    "Two sung lines that go the same way from a fifth, octave or unison into another of the same fuse into " +
    "one. Lines that double each other in octaves throughout are meant so and are not named.",
  source: "Huron 2001; any harmony textbook",
  severity: { chorale: "fault", band: "note", jazz: "off", loop: "off" },
  find: (ctx) =>
    betweenVoices(ctx, {
      kind: "parallel",
      says: "move in parallel",
      at: (p) => `${p.interval}s`,
      amount: (p) => `parallel ${p.interval}s`,
    }),
};
