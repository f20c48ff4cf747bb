import { pitchName, type Midi } from "../../../../theory/pitch/pitch";
import { positionText } from "../../../../theory/time/meter";
import { nameInKey } from "../../../../theory/pitch/key";
import { mod } from "../../../../theory/pitch/pitch";
import { ownerOf, playingOf } from "../../../../song/playing";
import type { Part } from "../../../../song/schema";
import { neckOf } from "../../../../theory/instrument/neck";
import { octaveShift } from "../../../../arrange/room/room";
import { instrumentOf } from "../../../../theory/instrument/instruments";
import type { CheckContext, Fix, RawFinding, Rule } from "../../rule";

export const capoWrong: Rule = {
  id: "capo",
  title: "The capo does not fit what is written",
  family: "handover",
  explanation:
    "With a capo the open strings are higher: notes below the lowest of them are not there, and shapes that " +
    "were found for another capo sound in another key. Move the notes, find the shapes again, or take the capo " +
    "off.",
  source: "common practice",
  severity: { chorale: "fault", band: "fault", jazz: "fault", loop: "warning" },
  find: (ctx) =>
    ctx.song.parts.flatMap((part): RawFinding[] => {
      const { capo = 0, tuning } = playingOf(part, "voicing", { section: ctx.section });
      const neck = neckOf(instrumentOf(part.instrument, ctx.song), capo, tuning);
      return neck ? [...below(ctx, part, Math.min(...neck.strings) + capo, capo), ...otherShapes(ctx, part, capo)] : [];
    }),
};

/** Notes under the lowest open string, which the capo has raised. */
function below(ctx: CheckContext, part: Part, lowest: Midi, capo: number): RawFinding[] {
  if (!capo) return [];
  const name = pitchName(lowest, nameInKey(mod(lowest, 12), ctx.key));
  return (ctx.sliced.real.parts.find((p) => p.id === part.id)?.notes ?? [])
    .filter((n) => n.midi < lowest && n.midi >= lowest - capo)
    .map((n): RawFinding => {
      const up = part.link ? null : octaveShift(ctx.song, ctx.section, part, { during: [n], way: 1 });
      return {
        tick: n.start,
        duration: n.duration,
        parts: [part.id],
        notes: [n.id],
        message:
          `${part.name}: ${n.pitch} at ${positionText(ctx.meter, n.start)} lies below ${name}, its lowest note ` +
          `with the capo in fret ${capo}.`,
        amount: `capo ${capo}`,
        fixes: [...(up ? [{ label: "An octave higher", edit: up }] : []), without(ctx, part)],
      };
    });
}

/** Shapes that were made for another capo. */
const otherShapes = (ctx: CheckContext, part: Part, capo: number): RawFinding[] =>
  ctx.section.chords.flatMap((event): RawFinding[] => {
    const shape = event.voicings?.[part.id]?.shape;
    if (!shape || shape.capo === capo) return [];
    return [
      {
        tick: event.start,
        duration: event.duration,
        parts: [part.id],
        notes: [],
        message:
          `${part.name}: the shape of ${event.symbol} at ${positionText(ctx.meter, event.start)} is for ` +
          `${shape.capo ? `a capo in fret ${shape.capo}` : "no capo"}; the part has ` +
          `${capo ? `its capo in fret ${capo}` : "none"}.`,
        amount: `capo ${shape.capo} instead of ${capo}`,
        fixes: [setCapo(ctx, part, shape.capo)],
      },
    ];
  });

const setCapo = ({ section }: CheckContext, part: Part, capo: number): Fix => {
  const own = ownerOf(part, "voicing", "capo", { section }) === "section" ? { section: section.id } : {};
  return {
    label: capo ? `${part.name.split(",")[0]}: capo in fret ${capo}` : `${part.name.split(",")[0]} without the capo`,
    edit: { do: "setPlaying", part: part.id, ...own, voicing: { capo: capo || null } },
  };
};
const without = (ctx: CheckContext, part: Part): Fix => setCapo(ctx, part, 0);
