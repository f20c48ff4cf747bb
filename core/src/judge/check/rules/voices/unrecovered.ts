import { nth } from "../../../../base/list";
import { intervalWords } from "../../../../theory/pitch/interval";
import { positionText } from "../../../../theory/time/meter";
import { withArticle } from "../../../../theory/words/english";
import type { RawFinding, Rule } from "../../rule";
import { scaleStep } from "../../../../theory/pitch/key";
import type { Midi } from "../../../../theory/pitch/pitch";
import { waysOut } from "../../ways/ways";
import { goesOn, linesOf, opening } from "../lines";

/** A sixth and more asks to be answered (any textbook of counterpoint). */
const LEAP = 8;

function goesOnTheSameWay(from: Midi, to: Midi, after: Midi): boolean {
  const [leap, next] = [to - from, after - to];
  return Math.abs(leap) >= LEAP && Math.abs(next) > 2 && Math.sign(next) === Math.sign(leap);
}

export const unrecovered: Rule = {
  id: "leap-not-recovered",
  title: "A leap that is not answered",
  family: "voices",
  explanation:
    "After a sixth or more a line turns back, by step or by a smaller move; going on the same way by another " +
    "leap loses the ear.",
  source: "any textbook of counterpoint",
  severity: { chorale: "warning", band: "off", jazz: "off", loop: "off" },
  find: (ctx) =>
    linesOf(ctx, ["melody", "vocal", "counter"]).flatMap(({ part, name, notes, lighter }) =>
      notes.slice(2).flatMap((after, i): RawFinding[] => {
        const [from, to] = [nth(notes, i), nth(notes, i + 1)];
        const [leap, next] = [to.midi - from.midi, after.midi - to.midi];
        if (!goesOnTheSameWay(from.midi, to.midi, after.midi)) return [];
        if (!goesOn(ctx, from, to) || !goesOn(ctx, to, after)) return [];
        return [
          {
            tick: after.start,
            duration: after.duration,
            parts: [part.id],
            notes: [from.id, to.id, after.id],
            message:
              `${opening(name)} leaps ${withArticle(intervalWords(Math.abs(leap)))} to ${to.pitch} and goes on the ` +
              `same way to ${after.pitch} at ${positionText(ctx.meter, after.start)}.`,
            amount: `${intervalWords(Math.abs(leap))}, then ${intervalWords(Math.abs(next))}`,
            fixes: waysOut(ctx, {
              notes: [after],
              later: [to],
              also: scaleStep(to.midi, leap > 0 ? -1 : 1, ctx.key),
              clear: (p) => !goesOnTheSameWay(p(from), p(to), p(after)),
            }),
            lighter,
          },
        ];
      }),
    ),
};
