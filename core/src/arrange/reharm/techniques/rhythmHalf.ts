import type { Technique } from "../technique";

export const rhythmHalf: Technique = {
  id: "rhythm-half",
  title: "Slower harmonic rhythm",
  explanation: "One chord takes the place of two: fewer changes, more room for the tune.",
  source: "common practice",
  adventure: 0.1,
  aim: "less",
  words: { first: "{kept} holds on and {gone} goes", second: "{kept} comes early and {gone} goes" },
  propose(spot) {
    const { here, next, slots, index } = spot;
    if (!next || slots[index + 1] !== next || next.event.pinned) return [];
    const duration = here.event.duration + next.event.duration;
    const one = (symbol: string, gone: string, reason: string) => ({
      span: 2,
      chords: [{ symbol, duration }],
      reason,
      params: { kept: symbol, gone },
    });
    return here.event.symbol === next.event.symbol
      ? [one(here.event.symbol, next.event.symbol, "first")]
      : [one(here.event.symbol, next.event.symbol, "first"), one(next.event.symbol, here.event.symbol, "second")];
  },
};
