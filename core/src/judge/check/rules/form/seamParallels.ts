import { parallelPerfect } from "../../../../theory/motion/motion";
import type { Part } from "../../../../song/schema";
import { separateLines } from "../lines";
import type { CheckContext, RawFinding, Rule } from "../../rule";
import { atSeam, acrossSeam, seamsOf, type Seam } from "./seams";

export const seamParallels: Rule = {
  id: "seam-parallels",
  title: "Parallels over a seam",
  family: "form",
  explanation:
    "Two lines move in parallel fifths or octaves from the end of one section into the beginning of the " +
    "next, where they are heard most plainly of all.",
  source: "Huron 2001; any harmony textbook",
  severity: { chorale: "fault", band: "note", jazz: "off", loop: "off" },
  find: (ctx) => seamsOf(ctx).flatMap((seam) => parallels(ctx, seam).map((f) => atSeam(seam, f))),
};

function parallels(ctx: CheckContext, seam: Seam): RawFinding[] {
  const lines = separateLines(ctx).map((l) => l.part);
  return lines.flatMap((a, i) =>
    lines.slice(i + 1).flatMap((b) => (counts(ctx, a, b) ? parallelOf(ctx, seam, a, b) : [])),
  );
}

/** Between all lines in four parts; in a band between bass and tune, where it is heard. */
const counts = ({ song }: CheckContext, a: Part, b: Part): boolean =>
  song.profile === "chorale" ||
  [a, b]
    .map((p) => p.role)
    .sort()
    .join() === "bass,melody";

function parallelOf(ctx: CheckContext, seam: Seam, a: Part, b: Part): RawFinding[] {
  const [x, y] = [acrossSeam(ctx, seam, a.id), acrossSeam(ctx, seam, b.id)];
  if (!x || !y) return [];
  const [bass, low, tune, high] = x.last.midi <= y.last.midi ? ([a, x, b, y] as const) : ([b, y, a, x] as const);
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
