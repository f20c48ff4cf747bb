import { nth } from "../../../../base/list";
import { intervalWords, isHardLeap } from "../../../../theory/pitch/interval";
import { withArticle } from "../../../../theory/words/english";
import type { RawFinding, Rule } from "../../rule";
import { goesOn, linesOf } from "../lines";
import { moveTold } from "./moves";

export const wideLeap: Rule = {
  id: "wide-leap",
  title: "A leap that is hard to sing or to follow",
  family: "voices",
  explanation:
    "A tritone, a seventh, or more than an octave within a phrase of a tune or a voice. Where it is wanted, " +
    "leave it with a reason; elsewhere another tone of the chord lies nearer. The bass is not judged: it leaps " +
    "by nature.",
  source: "any textbook of counterpoint",
  severity: { chorale: "warning", band: "note", jazz: "off", loop: "off" },
  find: (ctx) =>
    linesOf(ctx, ["melody", "vocal"]).flatMap((line) =>
      line.notes.slice(1).flatMap((to, i): RawFinding[] => {
        const from = nth(line.notes, i);
        const size = Math.abs(to.midi - from.midi);
        if (!goesOn(ctx, from, to) || !isHardLeap(size)) return [];
        return [
          moveTold(
            ctx,
            { line, from, to },
            {
              says: ` leaps ${withArticle(intervalWords(size))} from ${from.pitch} to ${to.pitch}`,
              amount: intervalWords(size),
              clear: (p) => !isHardLeap(p(to) - p(from)),
            },
          ),
        ];
      }),
    ),
};
