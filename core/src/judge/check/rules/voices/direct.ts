import { mod } from "../../../../theory/pitch/pitch";
import { positionText } from "../../../../theory/time/meter";
import { parallelPerfect } from "../../../../theory/motion/motion";
import type { RawFinding, Rule } from "../../rule";
import { waysOut } from "../../ways/ways";
import { endOf, harmonyLines, movesBetween, opening } from "../lines";

export const directPerfects: Rule = {
  id: "direct-perfects",
  title: "Direct fifths and octaves of the outer voices",
  family: "voices",
  explanation:
    "The outer voices go the same way into a fifth or an octave while the upper one leaps: the bare interval " +
    "stands out as if it had been approached in parallel.",
  source: "Kostka & Payne, Tonal Harmony",
  severity: { chorale: "warning", band: "off", jazz: "off", loop: "off" },
  find(ctx) {
    const lines = harmonyLines(ctx);
    return lines.flatMap((a, i) =>
      lines.slice(i + 1).flatMap((b) =>
        movesBetween(a, b).flatMap(({ tick, low, high }): RawFinding[] => {
          const [down, up] = [low.to.midi - low.from.midi, high.to.midi - high.from.midi];
          const interval = mod(high.to.midi - low.to.midi, 12);
          if (Math.abs(up) <= 2 || Math.sign(down) !== Math.sign(up) || (interval !== 0 && interval !== 7)) return [];
          if (parallelPerfect(low.from.midi, low.to.midi, high.from.midi, high.to.midi)) return [];
          // The outer voices, before and after.
          const inside = (t: number, bottom: number, top: number) =>
            lines.every(
              (l) =>
                l === a ||
                l === b ||
                !l.notes.some((n) => n.start <= t && t < endOf(n) && (n.midi < bottom || n.midi > top)),
            );
          if (!inside(tick - 1, low.from.midi, high.from.midi) || !inside(tick, low.to.midi, high.to.midi)) return [];
          return [
            {
              tick,
              duration: Math.min(low.to.duration, high.to.duration),
              parts: [low.line.part.id, high.line.part.id],
              notes: [low.from.id, low.to.id, high.from.id, high.to.id],
              message:
                `${opening(high.line.name)} leaps the way ${low.line.name} goes into ` +
                `${interval ? "a fifth" : "an octave"} at ${positionText(ctx.meter, tick)}.`,
              amount: interval ? "fifth" : "octave",
              lighter: Math.max(high.line.lighter, low.line.lighter),
              fixes: waysOut(ctx, {
                notes: [high.to, low.to],
                clear: (p) =>
                  p(high.to) > p(low.to) &&
                  (![0, 7].includes(mod(p(high.to) - p(low.to), 12)) || Math.abs(p(high.to) - high.from.midi) <= 2),
              }),
            },
          ];
        }),
      ),
    );
  },
};
