import { mod } from "../../../../theory/pitch/pitch";
import { leadingToneOf, risesFrom, seventhOf } from "../../../../hear/harmony/tendency";
import type { RawFinding, Rule } from "../../rule";
import { changesOf, chordOfLine, endOf, linesOf, pcsOf } from "../lines";
import { moveTold } from "./moves";

export const leadingTone: Rule = {
  id: "leading-tone",
  title: "Leading tone does not rise",
  family: "voices",
  explanation:
    "The third of a dominant, or the seventh degree under it, wants to rise to the root that follows. In an " +
    "outer voice it must; an inner one may fall to the fifth. In a scale that goes down it may go on, and into " +
    "another dominant it may fall a semitone to the seventh. Counts where the next chord has the tone it leads " +
    "to.",
  source: "Kostka & Payne, Tonal Harmony",
  severity: { chorale: "fault", band: "off", jazz: "note", loop: "off" },
  find(ctx) {
    const lines = linesOf(ctx);
    return lines.flatMap((line) =>
      changesOf(ctx, line).flatMap(({ from, to }): RawFinding[] => {
        const leads = leadingToneOf(ctx.key, chordOfLine(ctx, from.start));
        if (!risesFrom(from.midi, to.midi, leads, pcsOf(chordOfLine(ctx, to.start)))) return [];
        const others = lines
          .filter((l) => l !== line)
          .flatMap((l) => l.notes.filter((n) => n.start <= from.start && from.start < endOf(n)));
        const inner = others.some((n) => n.midi > from.midi) && others.some((n) => n.midi < from.midi);
        if (inner && (to.midi - from.midi === -4 || to.midi - from.midi === -3)) return [];
        const before = line.notes[line.notes.indexOf(from) - 1];
        const down = before?.midi === from.midi + 1 && to.midi === from.midi - 2;
        if (down || (to.midi === from.midi - 1 && mod(to.midi, 12) === seventhOf(chordOfLine(ctx, to.start))))
          return [];
        return [
          moveTold(
            ctx,
            { line, from, to },
            {
              says: `: the leading tone ${from.pitch} goes to ${to.pitch}`,
              instead: "rising",
              amount: `${to.midi - from.midi} semitones instead of +1`,
              clear: (p) => p(to) === p(from) + 1 || mod(p(from), 12) !== leads,
            },
          ),
        ];
      }),
    );
  },
};
