import { nth } from "../../../../base/list";
import { intervalWords } from "../../../../theory/pitch/interval";
import { positionText } from "../../../../theory/time/meter";
import { withArticle } from "../../../../theory/words/english";
import type { RawFinding, Rule } from "../../rule";
import { goesOn, linesOf, mends, opening } from "../lines";

/**
 * Tritones and sevenths are hard to hit, and what goes beyond an octave falls into two lines (any textbook of
 * counterpoint).
 */
const hard = (semitones: number): boolean => [6, 10, 11].includes(semitones) || semitones > 12;

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
    linesOf(ctx, ["melody", "vocal"]).flatMap(({ part, name, notes, lighter }) =>
      notes.slice(1).flatMap((to, i): RawFinding[] => {
        const from = nth(notes, i);
        const size = Math.abs(to.midi - from.midi);
        if (!goesOn(ctx, from, to) || !hard(size)) return [];
        const next = notes[i + 2];
        return [
          {
            tick: to.start,
            duration: to.duration,
            parts: [part.id],
            notes: [from.id, to.id],
            message:
              `${opening(name)} leaps ${withArticle(intervalWords(size))} from ${from.pitch} to ${to.pitch} at ` +
              `${positionText(ctx.meter, to.start)}.`,
            amount: intervalWords(size),
            lighter,
            fixes: mends(
              ctx,
              part,
              to,
              (m) =>
                !hard(Math.abs(m - from.midi)) && (!next || !goesOn(ctx, to, next) || !hard(Math.abs(next.midi - m))),
            ),
          },
        ];
      }),
    ),
};
