import { nth } from "../../../../base/list";
import { counted } from "../../../../theory/words/english";
import { positionText } from "../../../../theory/time/meter";
import { WIDEST_UPPER } from "../../../../hear/harmony/tendency";
import type { Line, RawFinding, Rule } from "../../rule";
import { waysOut } from "../../ways/ways";
import { endOf, noteAt, separateLines } from "../lines";

export const voiceSpacing: Rule = {
  id: "voice-spacing",
  title: "Upper voices too far apart",
  family: "voices",
  explanation:
    "Neighbors among the voices above the lowest, sung or played, lie more than an octave apart: the chord " +
    "falls into two groups. The distance to the lowest voice is free.",
  source: "Kostka & Payne, Tonal Harmony",
  severity: { chorale: "warning", band: "off", jazz: "off", loop: "off" },
  find(ctx) {
    const mean = (l: Line) => l.notes.reduce((sum, n) => sum + n.midi, 0) / l.notes.length;
    // High to low by where they lie here; the lowest voice is free.
    const voices = [...separateLines(ctx)].sort((a, b) => mean(b) - mean(a));
    return voices.slice(1, -1).flatMap((low, i) => {
      const high = nth(voices, i);
      const starts = [...new Set([...low.notes, ...high.notes].map((n) => n.start))].sort((a, b) => a - b);
      return starts.flatMap((tick): RawFinding[] => {
        const [top, under] = [noteAt(high, tick), noteAt(low, tick)];
        if (!top || !under || top.midi - under.midi <= WIDEST_UPPER) return [];
        return [
          {
            tick,
            duration: Math.min(endOf(top), endOf(under)) - tick,
            parts: [low.part.id, high.part.id],
            notes: [under.id, top.id],
            message:
              `${high.part.name}’s ${top.pitch} lies more than an octave above ${under.pitch} of ` +
              `${low.part.name} at ${positionText(ctx.meter, tick)}.`,
            amount: counted(top.midi - under.midi, "semitone"),
            fixes: waysOut(ctx, {
              notes: [under, top],
              clear: (p) => p(top) - p(under) <= WIDEST_UPPER && p(under) < p(top),
              phrases: true,
            }),
          },
        ];
      });
    });
  },
};
