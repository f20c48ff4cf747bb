import { firstOf, sure } from "../../../../base/list";
import { mod, noteOf, pitchClass } from "../../../../theory/pitch/pitch";
import { positionText } from "../../../../theory/time/meter";
import { leadsTo } from "../../../../write/bass/pitches";
import { sectionOf } from "../../../../song/document";
import { passView } from "../../../../song/passView";
import { chordAtTick } from "../../../../song/realize";
import type { CheckContext, RawFinding, Rule } from "../../rule";
import { moveNote, pcsOf } from "../lines";
import { waysOn } from "../../../../song/onward";
import { atSeam, inPass, over, seamsOf, type Seam } from "./seams";

/** Reasons that promise where the line goes. */
const PROMISES = new Set(["approachBelow", "approachAbove", "approachFifth", "approach", "anticipation"]);

/** The section as the pass that ends plays it. */
function inView(ctx: CheckContext, { pass }: Seam): CheckContext {
  const song = passView(ctx.song, pass.id);
  return { ...ctx, song, section: sure(sectionOf(song, pass.sectionId)) };
}

export const seamApproach: Rule = {
  id: "seam-approach",
  title: "An approach that leads nowhere",
  family: "form",
  explanation:
    "The bass ends a section with a note that leads on, outside its chord or written as an approach, and the " +
    "next section begins elsewhere. A line that was written for its own repeat misses another section: a step " +
    "or a fifth before the new first note leads there.",
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
          const pcs = pcsOf(chordAtTick(seam.before.chords, last.start - (seam.pass.bars?.[0] ?? 0) * ctx.meter.bar));
          const outside = pcs.length > 0 && !pcs.includes(mod(last.midi, 12));
          const target = last.reason?.params?.target;
          const missed =
            typeof target === "string" && mod(first.midi - (seam.pass.transpose ?? 0), 12) !== pitchClass(target);
          if (
            !(promised || outside) ||
            ((leadsTo(last.midi, first.midi) || mod(last.midi - first.midi, 12) === 0) && !missed)
          )
            return [];
          const steps = [-2, -1, 1, 2]
            .map((d) => first.midi + d)
            .sort((a, b) => Math.abs(a - last.midi) - Math.abs(b - last.midi));
          const { key } = firstOf(seam.before.sections);
          const step = steps.find((m) => key.pcs.includes(mod(m, 12)));
          const only = waysOn(ctx.song, ctx.section.id).length === 1;
          const mends =
            step !== undefined && step !== last.midi && !last.pinned
              ? [moveNote(inView(ctx, seam), part, last, step)]
              : [];
          return [
            atSeam(seam, {
              tick: last.start,
              duration: last.duration,
              parts: [part.id],
              notes: [last.id],
              message:
                `${part.name} leads with ${last.pitch} at ${positionText(ctx.meter, last.start)} of ` +
                `${seam.from}${missed ? ` to ${target}` : ""}, but ${seam.into} begins on ${noteOf(first.pitch)}.`,
              amount: `to ${noteOf(first.pitch)}`,
              // Where the section goes on in other ways too, the bar is written for this pass alone.
              fixes: only
                ? mends
                : mends.map((f) => ({
                    label: `${f.label}, in this pass alone`,
                    edit: inPass(seam.pass, f.edit, true),
                  })),
            }),
          ];
        }),
    ),
};
