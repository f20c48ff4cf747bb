import { mod } from "../../../pitch/pitch";
import { positionText } from "../../../time/meter";
import { leadingToneOf, seventhOf } from "../../../harmony/tendency";
import type { RealizedNote } from "../../../song/realize";
import type { CheckContext, RawFinding, Rule } from "../../rule";
import { chordAt, endOf, linesOf, moveNote, pcsOf, type Line } from "../lines";

/** The last note of a line under each chord that goes straight on into the next one. */
function changes(ctx: CheckContext, { notes }: Line): { from: RealizedNote; to: RealizedNote }[] {
  return notes.slice(1).flatMap((to, i) => {
    const from = notes[i]!;
    const [a, b] = [chordAt(ctx, from.start), chordAt(ctx, to.start)];
    return a && b && a !== b && endOf(from) >= to.start && chordAt(ctx, endOf(from) - 1) === a ? [{ from, to }] : [];
  });
}

export const leadingTone: Rule = {
  id: "leading-tone",
  title: "Leading tone does not rise",
  family: "voices",
  explanation:
    "The third of a dominant, or the seventh degree under it, wants to rise to the root that follows. In an outer voice it must; an inner one may fall to the fifth. Counts where the next chord has the tone it leads to.",
  source: "Kostka & Payne, Tonal Harmony",
  severity: { chorale: "fault", band: "off", jazz: "note", loop: "off" },
  find(ctx) {
    const lines = linesOf(ctx);
    return lines.flatMap((line) =>
      changes(ctx, line).flatMap(({ from, to }): RawFinding[] => {
        const pc = mod(from.midi, 12);
        const after = pcsOf(chordAt(ctx, to.start));
        const leads = leadingToneOf(ctx.key, chordAt(ctx, from.start));
        if (pc !== leads || !after.includes(mod(pc + 1, 12)) || after.includes(pc) || to.midi === from.midi + 1) return [];
        const others = lines
          .filter((l) => l !== line)
          .flatMap((l) => l.notes.filter((n) => n.start <= from.start && from.start < endOf(n)));
        const inner = others.some((n) => n.midi > from.midi) && others.some((n) => n.midi < from.midi);
        if (inner && (to.midi - from.midi === -4 || to.midi - from.midi === -3)) return [];
        return [
          {
            tick: to.start,
            duration: to.duration,
            parts: [line.part.id],
            notes: [from.id, to.id],
            message: `${line.part.name}: the leading tone ${from.pitch} goes to ${to.pitch} at ${positionText(ctx.meter, to.start)} instead of rising.`,
            amount: `${to.midi - from.midi} semitones instead of +1`,
            fixes: to.pinned ? [] : [moveNote(ctx, line.part, to, from.midi + 1)],
          },
        ];
      }),
    );
  },
};

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
      changes(ctx, line).flatMap(({ from, to }): RawFinding[] => {
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
