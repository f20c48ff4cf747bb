import { firstOf, sure } from "../../../../base/list";
import { mod, noteOf, pitchClass, type Midi } from "../../../../theory/pitch/pitch";
import { positionText } from "../../../../theory/time/meter";
import { leadsTo } from "../../../../write/bass/pitches";
import { sectionOf } from "../../../../song/document";
import { passView } from "../../../../song/passView";
import { chordAtTick, type RealizedNote } from "../../../../song/realize";
import type { CheckContext, RawFinding, Rule } from "../../rule";
import { moveNote } from "../../ways/move";
import { pcsOf } from "../lines";
import { atSeam, acrossSeam, seamsOf, type Seam } from "./seams";

/** Reasons that promise where the line goes. */
const PROMISES = new Set(["approachBelow", "approachAbove", "approachFifth", "approach", "anticipation"]);

/** The section as the pass that ends plays it. */
function inView(ctx: CheckContext, { pass }: Seam): CheckContext {
  const song = passView(ctx.song, pass.id);
  return { ...ctx, song, section: sure(sectionOf(song, pass.sectionId)) };
}

/** The target a written approach names, where the next section does not begin on it. */
function missedTarget(seam: Seam, last: RealizedNote, first: RealizedNote): string | null {
  const target = last.reason?.params?.target;
  if (typeof target !== "string") return null;
  return mod(first.midi - (seam.pass.transpose ?? 0), 12) === pitchClass(target) ? null : target;
}

/** Written as an approach, or outside its chord. */
function leadsOn({ meter }: CheckContext, seam: Seam, last: RealizedNote): boolean {
  if (PROMISES.has(last.reason?.id ?? "")) return true;
  const pcs = pcsOf(chordAtTick(seam.before.chords, last.start - (seam.pass.bars?.[0] ?? 0) * meter.bar));
  return pcs.length > 0 && !pcs.includes(mod(last.midi, 12));
}

/** A step of the key before the note that comes, the nearest to the one that is there. */
function stepBefore(seam: Seam, last: RealizedNote, first: RealizedNote): Midi | undefined {
  const { key } = firstOf(seam.before.sections);
  return [-2, -1, 1, 2]
    .map((d) => first.midi + d)
    .sort((a, b) => Math.abs(a - last.midi) - Math.abs(b - last.midi))
    .find((m) => key.pcs.includes(mod(m, 12)));
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
          const pair = acrossSeam(ctx, seam, part.id);
          if (!pair) return [];
          const { last, first } = pair;
          const missed = missedTarget(seam, last, first);
          const arrives = leadsTo(last.midi, first.midi) || mod(last.midi - first.midi, 12) === 0;
          if (!leadsOn(ctx, seam, last) || (arrives && !missed)) return [];
          const step = stepBefore(seam, last, first);
          const mends = step !== undefined && step !== last.midi ? moveNote(inView(ctx, seam), last, step) : [];
          return [
            atSeam(seam, {
              tick: last.start,
              duration: last.duration,
              parts: [part.id],
              notes: [last.id],
              message:
                `${part.name} leads with ${last.pitch} at ${positionText(ctx.meter, last.start)} of ` +
                `${seam.from}${missed ? ` to ${missed}` : ""}, but ${seam.into} begins on ${noteOf(first.pitch)}.`,
              amount: `to ${noteOf(first.pitch)}`,
              fixes: mends,
            }),
          ];
        }),
    ),
};
