import { beatsText, positionText } from "../../../../theory/time/meter";
import { isWritten } from "../../../../song/document";
import type { RawFinding, Rule } from "../../rule";
import { atSeam, seamsOf } from "./seams";

export const seamPickup: Rule = {
  id: "seam-pickup",
  title: "A pickup begins while the section before still sounds",
  family: "form",
  explanation:
    "The next section begins with a pickup, and the same part still plays or sings the end of this one: one " +
    "player cannot do both. End the note earlier, or let the last bar of this section be free.",
  source: "common practice",
  severity: { chorale: "warning", band: "warning", jazz: "warning", loop: "note" },
  find: (ctx) =>
    seamsOf(ctx).flatMap((seam) => {
      const offset = (seam.pass.bars?.[0] ?? 0) * ctx.meter.bar;
      return ctx.song.parts
        .filter((p) => isWritten(p))
        .flatMap((part): RawFinding[] => {
          const first = seam.after.parts.find((p) => p.id === part.id)?.notes[0];
          if (!first || first.start >= 0) return [];
          const from = seam.at + first.start;
          const late = (seam.before.parts.find((p) => p.id === part.id)?.notes ?? [])
            .map((n) => ({ ...n, start: n.start + offset }))
            .filter((n) => n.start + n.duration > from);
          if (!late.length) return [];
          const { id: section } = ctx.section;
          const shorter = late.filter((n) => n.start < from).map((n) => ({ id: n.id, duration: from - n.start }));
          const gone = late.filter((n) => n.start >= from).map((n) => n.id);
          return [
            atSeam(seam, {
              tick: from,
              duration: -first.start,
              parts: [part.id],
              notes: late.map((n) => n.id),
              message:
                `${part.name} still has ${late.map((n) => n.pitch).join(", ")} at ` +
                `${positionText(ctx.meter, from)}, at the end of ${seam.from}, where its pickup into ` +
                `${seam.into} begins.`,
              amount: beatsText(ctx.meter, -first.start),
              fixes: [
                {
                  label: "Make room for the pickup",
                  edit: {
                    do: "all",
                    label: "make room for the pickup",
                    edits: [
                      ...(shorter.length
                        ? [{ do: "changeNotes" as const, section, part: part.id, notes: shorter }]
                        : []),
                      ...(gone.length ? [{ do: "removeNotes" as const, section, part: part.id, notes: gone }] : []),
                    ],
                  },
                },
              ],
            }),
          ];
        });
    }),
};
