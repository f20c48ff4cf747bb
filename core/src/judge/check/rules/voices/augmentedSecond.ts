import { nth } from "../../../../base/list";
import { isAugmentedSecond } from "../../../../theory/pitch/interval";
import { noteOf } from "../../../../theory/pitch/pitch";
import { positionText } from "../../../../theory/time/meter";
import type { RawFinding, Rule } from "../../rule";
import { goesOn, linesOf, mends, opening } from "../lines";

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
    linesOf(ctx).flatMap(({ part, name, notes, lighter }) =>
      notes.slice(1).flatMap((to, i): RawFinding[] => {
        const from = nth(notes, i);
        if (!goesOn(ctx, from, to) || !isAugmentedSecond(noteOf(from.pitch), noteOf(to.pitch), to.midi - from.midi))
          return [];
        return [
          {
            tick: to.start,
            duration: to.duration,
            parts: [part.id],
            notes: [from.id, to.id],
            message:
              `${opening(name)} goes an augmented second from ${from.pitch} to ${to.pitch} at ` +
              `${positionText(ctx.meter, to.start)}.`,
            amount: "augmented second",
            lighter,
            fixes: mends(ctx, part, to, (m) => Math.abs(m - from.midi) !== 3),
          },
        ];
      }),
    ),
};
