import { nth } from "../../../../base/list";
import { isAugmentedSecond } from "../../../../theory/pitch/interval";
import { noteOf } from "../../../../theory/pitch/pitch";
import type { RawFinding, Rule } from "../../rule";
import { goesOn, linesOf } from "../lines";
import { moveTold } from "./moves";

export const augmentedSecond: Rule = {
  id: "augmented-second",
  title: "Augmented second in a line",
  family: "voices",
  explanation:
    "From the sixth degree of minor to the raised seventh, or back, a line has a step of three semitones: hard " +
    "to sing in tune. The melodic minor goes round it, or the line turns before it.",
  source: "Kostka & Payne, Tonal Harmony; any textbook of counterpoint",
  severity: { chorale: "warning", band: "off", jazz: "off", loop: "off" },
  find: (ctx) =>
    linesOf(ctx).flatMap((line) =>
      line.notes.slice(1).flatMap((to, i): RawFinding[] => {
        const from = nth(line.notes, i);
        if (!goesOn(ctx, from, to) || !isAugmentedSecond(noteOf(from.pitch), noteOf(to.pitch), to.midi - from.midi))
          return [];
        return [
          moveTold(
            ctx,
            { line, from, to },
            {
              says: ` goes an augmented second from ${from.pitch} to ${to.pitch}`,
              amount: "augmented second",
              clear: (p) => Math.abs(p(to) - p(from)) !== 3,
            },
          ),
        ];
      }),
    ),
};
