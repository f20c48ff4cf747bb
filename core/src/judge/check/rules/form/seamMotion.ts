import { intervalWords } from "../../../../theory/pitch/interval";
import { positionText } from "../../../../theory/time/meter";
import type { CheckContext, RawFinding, Rule } from "../../rule";
import { atSeam, acrossSeam, seamsOf, type Seam } from "./seams";

/** A line that leaps farther than this over a seam tears there (common practice). */
const OCTAVE = 12;

export const seamMotion: Rule = {
  id: "seam-motion",
  title: "A leap over a seam",
  family: "form",
  explanation:
    "Where one section goes on to the next the lines go on too: a bass or a tune that leaps more than an " +
    "octave without a rest tears there.",
  source: "common practice",
  severity: { chorale: "warning", band: "note", jazz: "note", loop: "off" },
  find: (ctx) => seamsOf(ctx).flatMap((seam) => leaps(ctx, seam).map((f) => atSeam(seam, f))),
};

const LINES = ["bass", "melody", "vocal", "counter"];

const leaps = (ctx: CheckContext, seam: Seam): RawFinding[] =>
  ctx.song.parts
    .filter((p) => LINES.includes(p.role))
    .flatMap((part): RawFinding[] => {
      const pair = acrossSeam(ctx, seam, part.id);
      const size = pair ? Math.abs(pair.first.midi - pair.last.midi) : 0;
      if (!pair || size <= OCTAVE) return [];
      const { last, first } = pair;
      return [
        {
          tick: last.start,
          duration: last.duration,
          parts: [part.id],
          notes: [last.id],
          message:
            `${part.name} leaps a ${intervalWords(size)} from ${last.pitch} at ` +
            `${positionText(ctx.meter, last.start)} at the end of ${seam.from} to ${first.pitch}, where ` +
            `${seam.into} begins.`,
          amount: `${size} semitones`,
          fixes: [],
        },
      ];
    });
