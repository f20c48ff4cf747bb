import { mod } from "../../../../theory/pitch/pitch";
import { positionText } from "../../../../theory/time/meter";
import { leadingToneOf, seventhOf } from "../../../../hear/harmony/tendency";
import type { RawFinding, Rule } from "../../rule";
import { changesOf, chordOfLine, endOf, linesOf, moveNote, opening, pcsOf } from "../lines";

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
        const pc = mod(from.midi, 12);
        const after = pcsOf(chordOfLine(ctx, to.start));
        const leads = leadingToneOf(ctx.key, chordOfLine(ctx, from.start));
        if (pc !== leads || !after.includes(mod(pc + 1, 12)) || after.includes(pc) || to.midi === from.midi + 1)
          return [];
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
          {
            tick: to.start,
            duration: to.duration,
            parts: [line.part.id],
            notes: [from.id, to.id],
            message:
              `${opening(line.name)}: the leading tone ${from.pitch} goes to ${to.pitch} at ` +
              `${positionText(ctx.meter, to.start)} instead of rising.`,
            amount: `${to.midi - from.midi} semitones instead of +1`,
            fixes: to.pinned ? [] : moveNote(ctx, line.part, to, from.midi + 1),
            lighter: line.lighter,
          },
        ];
      }),
    );
  },
};
