import { mod } from "../../../pitch/pitch";
import { positionText } from "../../../time/meter";
import { seventhOf } from "../../../harmony/tendency";
import type { RawFinding, Rule } from "../../rule";
import { changesOf, chordAt, linesOf, moveNote, pcsOf } from "../lines";

export const seventh: Rule = {
  id: "seventh",
  title: "Seventh does not fall",
  family: "voices",
  explanation:
    "The seventh of a chord wants to fall by step, or to stay where the next chord holds it. Counts where the next chord has the tone below it.",
  source: "Kostka & Payne, Tonal Harmony",
  severity: { chorale: "fault", band: "off", jazz: "note", loop: "off" },
  find: (ctx) =>
    linesOf(ctx).flatMap((line) =>
      changesOf(ctx, line).flatMap(({ from, to }): RawFinding[] => {
        const pc = mod(from.midi, 12);
        const after = pcsOf(chordAt(ctx, to.start));
        if (pc !== seventhOf(chordAt(ctx, from.start)) || after.includes(pc)) return [];
        const below = [1, 2].find((d) => after.includes(mod(pc - d, 12)));
        const move = to.midi - from.midi;
        if (below === undefined || move === -1 || move === -2) return [];
        return [
          {
            tick: to.start,
            duration: to.duration,
            parts: [line.part.id],
            notes: [from.id, to.id],
            message: `${line.part.name}: the seventh ${from.pitch} goes to ${to.pitch} at ${positionText(ctx.meter, to.start)} instead of falling by step.`,
            amount: `${move} semitones instead of −${below}`,
            fixes: to.pinned ? [] : [moveNote(ctx, line.part, to, from.midi - below)],
          },
        ];
      }),
    ),
};
