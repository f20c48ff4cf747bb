import { mod } from "../../../../theory/pitch/pitch";
import { rootPc } from "../../../../theory/chord/chord";
import type { RawFinding, Rule } from "../../rule";
import { changesOf, chordOfLine, harmonyLines, noteAt } from "../lines";
import { moveTold } from "./moves";

export const sixFourFourth: Rule = {
  id: "six-four-fourth",
  title: "The fourth of a six-four chord does not fall",
  family: "voices",
  explanation:
    "Before the dominant the fourth over the bass, the root of the six-four chord, is a dissonance: it stays or " +
    "falls by step to the third of the dominant. One that rises leaves it hanging.",
  source: "Kostka & Payne, Tonal Harmony (cadential six-four)",
  severity: { chorale: "warning", band: "off", jazz: "off", loop: "off" },
  find(ctx) {
    const lines = harmonyLines(ctx);
    const lowest = (tick: number) => Math.min(...lines.flatMap((l) => noteAt(l, tick)?.midi ?? []));
    return lines.flatMap((line) =>
      changesOf(ctx, line).flatMap(({ from, to }): RawFinding[] => {
        const [here, next] = [chordOfLine(ctx, from.start)?.chord, chordOfLine(ctx, to.start)?.chord];
        if (!here || !next || here.tones.some((t) => t.degree === 7)) return [];
        const fifth = mod(rootPc(here) + 7, 12);
        // The bass has the fifth and goes on as the root of what follows.
        if (mod(lowest(from.start), 12) !== fifth || rootPc(next) !== fifth || rootPc(here) === fifth) return [];
        if (mod(from.midi, 12) !== rootPc(here) || to.midi <= from.midi || from.midi === lowest(from.start)) return [];
        return [
          moveTold(
            ctx,
            { line, from, to },
            {
              says: `: the fourth ${from.pitch} of the six-four chord rises to ${to.pitch}`,
              instead: "falling",
              amount: "a fourth that rises",
              clear: (p) => p(to) <= p(from),
            },
          ),
        ];
      }),
    );
  },
};
