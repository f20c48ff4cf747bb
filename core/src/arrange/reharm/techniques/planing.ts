import { firstOf, nth } from "../../../base/list";
import type { Technique } from "../technique";
import { has, upper } from "../tools";

export const planing: Technique = {
  id: "planing",
  title: "Constant structure",
  explanation:
    "All chosen chords take the kind of the first one and slide in parallel on their own roots: color instead " +
    "of function.",
  source: "any twentieth-century harmony textbook",
  adventure: 0.7,
  aim: "more",
  words: { slide: "{count} chords of one kind, {kind}, slide on their own roots" },
  propose(spot) {
    const [from, to] = spot.selection;
    if (spot.index !== from || to - from < 1) return [];
    const run = spot.slots.slice(from, to + 1);
    const first = firstOf(run).chord;
    const kinds = [first.quality, has(first, "b3") ? "m9" : "maj7", "9sus4"];
    return [...new Set(kinds)].flatMap((quality) => {
      const chords = run.map((s) => ({ symbol: upper(s.chord).root + quality, duration: s.event.duration }));
      if (chords.every((c, i) => c.symbol === nth(run, i).event.symbol)) return [];
      return [
        { span: run.length, chords, reason: "slide", params: { count: String(run.length), kind: quality || "major" } },
      ];
    });
  },
};
