import { parallelPerfect } from "../../../../theory/motion/motion";
import type { CheckContext, RawFinding, Rule } from "../../rule";
import { atSeam, acrossSeam, seamsOf, type Seam } from "./seams";

export const seamParallels: Rule = {
  id: "seam-parallels",
  title: "Parallels over a seam",
  family: "form",
  explanation:
    "Bass and tune move in parallel fifths or octaves from the end of one section into the beginning of the " +
    "next, where they are heard most plainly of all.",
  source: "Huron 2001; any harmony textbook",
  severity: { chorale: "fault", band: "note", jazz: "off", loop: "off" },
  find: (ctx) => seamsOf(ctx).flatMap((seam) => parallels(ctx, seam).map((f) => atSeam(seam, f))),
};

function parallels(ctx: CheckContext, seam: Seam): RawFinding[] {
  const bass = ctx.song.parts.find((p) => p.role === "bass");
  const tune = ctx.song.parts.find((p) => p.role === "melody");
  const [low, high] = [bass && acrossSeam(ctx, seam, bass.id), tune && acrossSeam(ctx, seam, tune.id)];
  if (!bass || !tune || !low || !high) return [];
  const kind = parallelPerfect(low.last.midi, low.first.midi, high.last.midi, high.first.midi);
  if (!kind) return [];
  return [
    {
      tick: low.last.start,
      duration: low.last.duration,
      parts: [bass.id, tune.id],
      notes: [low.last.id, high.last.id],
      message:
        `Parallel ${kind}s over the seam from ${seam.from} into ${seam.into}: ${bass.name} ` +
        `${low.last.pitch}–${low.first.pitch}, ${tune.name} ${high.last.pitch}–${high.first.pitch}.`,
      amount: `${kind}s`,
      fixes: [],
    },
  ];
}
