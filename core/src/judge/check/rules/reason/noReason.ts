import { mod, noteOf, pitchClass } from "../../../../theory/pitch/pitch";
import { positionText } from "../../../../theory/time/meter";
import { isWritten } from "../../../../song/document";
import { describeReason } from "../../../../song/reasons";
import type { RealizedNote } from "../../../../song/realize";
import type { CheckContext, Fix, RawFinding, Rule } from "../../rule";

/** Reasons that say where a note comes from rather than why it is there. */
const OWN = new Set(["user", "played", "imported", "pinned"]);
/** A line of which less than this is generated is the user's own. */
const SHARE = 0.5;

export const noReason: Rule = {
  id: "no-reason",
  title: "A note in a written line says something else",
  family: "reason",
  explanation:
    "A line that the application wrote says of each note why it is there. One whose reason names another pitch was " +
    "changed since. Nothing sounds wrong for it: say that it is meant, so that it is left alone when the line is " +
    "written anew. A note that somebody wrote needs no reason.",
  source: "common practice: every note answers to something",
  severity: { chorale: "note", band: "note", jazz: "note", loop: "note" },
  heard: 0.1,
  find: (ctx) =>
    ctx.song.parts
      .filter((p) => isWritten(p))
      .flatMap((part): RawFinding[] => {
        const notes = ctx.sliced.real.parts.find((p) => p.id === part.id)?.notes ?? [];
        const generated = notes.filter((n) => n.reason && !OWN.has(n.reason.id));
        if (!notes.length || generated.length < notes.length * SHARE) return [];
        return notes.flatMap((n): RawFinding[] => {
          if (!saysOther(n)) return [];
          return [
            {
              tick: n.start,
              duration: n.duration,
              parts: [part.id],
              notes: [n.id],
              message:
                `${part.name}: ${n.pitch} at ${positionText(ctx.meter, n.start)} gives a reason that ` +
                `is no longer true: ${describeReason(n.reason)}.`,
              amount: "another pitch",
              fixes: [meant(ctx, part.id, n)],
            },
          ];
        });
      }),
};

/** Whether the reason of a note names a pitch that it does not have. */
function saysOther({ reason, pitch }: RealizedNote): boolean {
  const said = reason?.params?.pitch;
  if (typeof said !== "string" || !reason || OWN.has(reason.id) || !/^(root|bass|pedal|weave)/.test(reason.id))
    return false;
  return mod(pitchClass(said.replace(/-?\d+$/, "")) - pitchClass(noteOf(pitch)), 12) !== 0;
}

const meant = ({ section }: CheckContext, part: string, note: RealizedNote): Fix => ({
  label: "It is meant",
  edit: { do: "changeNotes", section: section.id, part, notes: [{ id: note.id, reason: { id: "user" } }] },
});
