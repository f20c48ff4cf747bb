import type { Rule } from "../../rule";
import { isOuter } from "./outerParallels";
import { betweenVoices, isLed } from "./pairs";

export const voiceParallels: Rule = {
  id: "voice-parallels",
  title: "Parallel fifths and octaves between voices",
  family: "voices",
  explanation:
    "Two voices that go the same way from a fifth, octave or unison into another of the same fuse into " +
    "one. Voices inside a chord part weigh less than lines. What goes along in octaves for long is meant so and " +
    "is not named; bass and top voice are told by themselves.",
  source: "Huron 2001; any harmony textbook",
  severity: { chorale: "fault", band: "note", jazz: "off", loop: "off" },
  find: (ctx) =>
    betweenVoices(ctx, {
      kind: "parallel",
      says: "move in parallel",
      inside: true,
      counts: (p, ctx, { top, low }) =>
        // In a band what is exposed counts: the bass against the top voice alone, another line against the tune.
        (ctx.song.profile === "chorale" || (low.part.role !== "bass" && isLed(ctx, { top, low }))) &&
        !isOuter(ctx, p.tick, [low.part.id, top.part.id]),
      at: (p) => `${p.interval}s`,
      amount: (p) => `parallel ${p.interval}s`,
    }),
};
