import { mod, noteOf } from "../../../pitch/pitch";
import { beatsText, positionText } from "../../../time/meter";
import { leadingToneOf } from "../../../harmony/tendency";
import type { RawFinding, Rule } from "../../rule";
import { endOf, linesOf, mends } from "../lines";
import { byVoice } from "../../../line/between";

export const doubledLeadingTone: Rule = {
  id: "doubled-leading-tone",
  title: "Leading tone twice",
  family: "voices",
  explanation:
    "Two lines sing or play the leading tone at once: both want to rise, and if both do they move in parallel octaves. Lines that double each other throughout are one voice.",
  source: "Kostka & Payne, Tonal Harmony",
  severity: { chorale: "fault", band: "off", jazz: "off", loop: "off" },
  find(ctx) {
    const voices = byVoice(linesOf(ctx), ctx).map((v) => v[0]!);
    return ctx.sliced.slices.flatMap((slice): RawFinding[] => {
      const leads = leadingToneOf(ctx.key, slice.chord);
      if (leads === null) return [];
      const have = voices.flatMap((line) => {
        const sung = slice.notes.find((n) => n.part === line.part.id && mod(n.note.midi, 12) === leads);
        return sung ? [{ line, sung }] : [];
      });
      if (have.length < 2 || !have.some((h) => h.sung.attack)) return [];
      // Who came last gives way.
      const moves = have.reduce((last, h) => (h.sung.note.start >= last.sung.note.start ? h : last));
      const duration = Math.min(...have.map((h) => endOf(h.sung.note))) - slice.start;
      return [
        {
          tick: slice.start,
          duration,
          parts: have.map((h) => h.line.part.id),
          notes: have.map((h) => h.sung.note.id),
          message: `${have.map((h) => h.line.part.name).join(" and ")} have the leading tone ${noteOf(moves.sung.note.pitch)} at once at ${positionText(ctx.meter, slice.start)}.`,
          amount: beatsText(ctx.meter, duration),
          fixes: have.length === 2 ? mends(ctx, moves.line.part, moves.sung.note, (m) => mod(m, 12) !== leads) : [],
        },
      ];
    });
  },
};
