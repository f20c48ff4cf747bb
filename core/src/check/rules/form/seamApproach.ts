import { mod, noteOf, pitchClass } from "../../../pitch/pitch";
import { positionText } from "../../../time/meter";
import type { RealizedNote } from "../../../song/realize";
import type { RawFinding, Rule } from "../../rule";
import { chordAt, moveNote, pcsOf } from "../lines";
import { over, seamsOf } from "./seams";

/** Reasons that promise where the line goes. */
const PROMISES = new Set(["approachBelow", "approachAbove", "approachFifth", "approach", "anticipation"]);

/** Whether the last note leads on: by step, by a fifth or fourth, by an octave, or by staying. */
const leads = (last: RealizedNote, first: RealizedNote): boolean => [0, 1, 2, 5, 7, 10, 11].includes(mod(last.midi - first.midi, 12));

export const seamApproach: Rule = {
  id: "seam-approach",
  title: "An approach that leads nowhere",
  family: "form",
  explanation:
    "The bass ends a section with a note that leads on, outside its chord or written as an approach, and the next section begins elsewhere. A line that was written for its own repeat misses another section: a step or a fifth before the new first note leads there.",
  source: "common practice of bass playing",
  severity: { chorale: "note", band: "warning", jazz: "warning", loop: "note" },
  find: (ctx) =>
    seamsOf(ctx).flatMap((seam) =>
      ctx.song.parts
        .filter((p) => p.role === "bass")
        .flatMap((part): RawFinding[] => {
          const pair = over(ctx, seam, part.id);
          if (!pair) return [];
          const { last, first } = pair;
          const promised = PROMISES.has(last.reason?.id ?? "");
          const pcs = pcsOf(chordAt(ctx, last.start));
          const outside = pcs.length > 0 && !pcs.includes(mod(last.midi, 12));
          const target = last.reason?.params?.target;
          const missed = typeof target === "string" && mod(first.midi, 12) !== pitchClass(target);
          if (!(promised || outside) || (leads(last, first) && !missed)) return [];
          const steps = [-2, -1, 1, 2].map((d) => first.midi + d).sort((a, b) => Math.abs(a - last.midi) - Math.abs(b - last.midi));
          const step = steps.find((m) => ctx.key.pcs.includes(mod(m, 12)));
          const only =
            new Set(ctx.song.form.flatMap((p, i) => (p.sectionId === ctx.section.id ? (ctx.song.form[i + 1]?.sectionId ?? []) : [])))
              .size === 1;
          return [
            {
              tick: last.start,
              duration: last.duration,
              parts: [part.id],
              notes: [last.id],
              message: `${part.name} leads with ${last.pitch} at ${positionText(ctx.meter, last.start)}${missed ? ` to ${target}` : ""}, but ${seam.into} begins on ${noteOf(first.pitch)}.`,
              amount: `to ${noteOf(first.pitch)}`,
              fixes: only && step !== undefined && step !== last.midi && !last.pinned ? [moveNote(ctx, part, last, step)] : [],
            },
          ];
        }),
    ),
};
