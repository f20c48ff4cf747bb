import { firstOf } from "../../../../base/list";
import { mod } from "../../../../theory/pitch/pitch";
import { beatsText } from "../../../../theory/time/meter";
import { isWritten } from "../../../../song/document";
import type { RawFinding, Rule } from "../../rule";
import { pcsOf } from "../lines";
import { atSeam, seamsOf } from "./seams";

export const seamHeld: Rule = {
  id: "seam-held",
  title: "Held into the next section",
  family: "form",
  explanation:
    "A note of one section sounds on over the seam for half a beat or longer, and is foreign to the chord with " +
    "which the next section begins. What belongs to that chord may ring on.",
  source: "common practice",
  severity: { chorale: "fault", band: "warning", jazz: "note", loop: "warning" },
  find(ctx) {
    const half = firstOf(ctx.meter.beats).duration / 2;
    return seamsOf(ctx).flatMap((seam) => {
      const chord = seam.after.chords.find((c) => c.start <= 0) ?? null;
      const pcs = pcsOf(chord);
      if (!chord || !pcs.length) return [];
      const offset = (seam.pass.bars?.[0] ?? 0) * ctx.meter.bar;
      return ctx.song.parts
        .filter((p) => isWritten(p))
        .flatMap((part): RawFinding[] => {
          const notes = seam.before.parts.find((p) => p.id === part.id)?.notes ?? [];
          return notes.flatMap((n): RawFinding[] => {
            const start = n.start + offset;
            const past = start + n.duration - seam.at;
            if (past < half || pcs.includes(mod(n.midi, 12))) return [];
            return [
              atSeam(seam, {
                tick: start,
                duration: n.duration,
                parts: [part.id],
                notes: [n.id],
                message:
                  `${part.name} holds ${n.pitch} for ${beatsText(ctx.meter, past)} from ${seam.from} ` +
                  `into ${seam.into}, which begins with ${chord.symbol}.`,
                amount: beatsText(ctx.meter, past),
                fixes: [
                  {
                    label: "End it at the seam",
                    edit: {
                      do: "changeNotes",
                      section: ctx.section.id,
                      part: part.id,
                      notes: [{ id: n.id, duration: seam.at - start }],
                    },
                  },
                ],
              }),
            ];
          });
        });
    });
  },
};
