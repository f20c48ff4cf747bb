import { beatsText, positionText } from "../../../theory/time/meter";
import { beatLength, type BassContext } from "../context";
import type { RealizedNote } from "../../../song/realize";
import { defineMeasure, idsOf, percent } from "./measure";

export const silence = defineMeasure({
  id: "silence",
  title: "Silence",
  unit: "share",
  how: "The share of the section in which the bass does not sound.",
  take(ctx): { silence: number } {
    let [time, soundedTo] = [0, 0];
    for (const note of ctx.notes) {
      const end = Math.min(note.start + note.duration, ctx.length);
      time += Math.max(0, end - Math.max(note.start, soundedTo, 0));
      soundedTo = Math.max(soundedTo, end);
    }
    return { silence: Math.max(0, 1 - time / ctx.length) };
  },
  show: (own) => percent(own.silence),
  target: (own, { style: { targets } }) =>
    targets.silence
      ? [
          `${percent(targets.silence[0])} to ${percent(targets.silence[1])}`,
          own.silence >= targets.silence[0] - 1e-9 && own.silence <= targets.silence[1] + 1e-9,
        ]
      : null,
  cause(ctx, line, own) {
    const free = ctx.length - ctx.chords.reduce((sum, c) => sum + (c.chord ? c.duration : 0), 0);
    if (free > 0)
      return {
        code: "noChord",
        message: `${beatsText(ctx.meter, free)} of the section have no chord: the bass is silent there.`,
      };
    if (ctx.settings.length !== "usual")
      return {
        code: "silence",
        message: `Notes were set to be ${ctx.settings.length}, not as long as the style has them.`,
      };
    const must = line.filter(
      (s) =>
        s.slot.use === "anchor" || (s.slot.use === "kick" && ctx.kicks.some((k) => k.main && k.start === s.slot.start)),
    );
    return {
      code: "silence",
      message: `${must.length} chords and accents must sound, which leaves ${percent(own.silence)} silence.`,
    };
  },
});

type Length = "short" | "middle" | "long";

/** Notes shorter than half a beat, up to a beat and a half, and longer. */
function lengthOf(ctx: BassContext, note: RealizedNote): Length {
  const halves = (note.duration * 2) / beatLength(ctx, Math.max(0, note.start));
  if (halves < 1) return "short";
  if (halves <= 3) return "middle";
  return "long";
}

export const lengths = defineMeasure({
  id: "lengths",
  title: "Lengths",
  unit: "notes",
  how:
    "Notes shorter than half a beat, up to a beat and a half, and longer. It points at whichever of the short " +
    "and the long are fewer.",
  take(ctx): { lengths: Record<Length, number> } {
    const count = { short: 0, middle: 0, long: 0 };
    for (const note of ctx.notes) count[lengthOf(ctx, note)]++;
    return { lengths: count };
  },
  notes(ctx) {
    const of = (length: Length) => idsOf(ctx.notes.filter((n) => lengthOf(ctx, n) === length));
    const [short, long] = [of("short"), of("long")];
    return short.length && short.length <= long.length ? short : long;
  },
  show: (own) =>
    [
      [own.lengths.short, "short"],
      [own.lengths.middle, "medium"],
      [own.lengths.long, "long"],
    ]
      .filter(([n]) => n)
      .map(([n, word]) => `${n} ${word}`)
      .join(", ") || "–",
});

const ringingInto = (ctx: BassContext, at: number) => ctx.notes.find((n) => n.start < at && n.start + n.duration > at);

export const backbeats = defineMeasure({
  id: "backbeats",
  title: "Backbeats left free",
  unit: "notes",
  how: "Snares and claps before which the bass has ended.",
  take: (ctx): { backbeats: number; backbeatsFree: number } => ({
    backbeats: ctx.backbeats.length,
    backbeatsFree: ctx.backbeats.filter((at) => !ringingInto(ctx, at)).length,
  }),
  notes: (ctx) => idsOf(ctx.backbeats.flatMap((at) => ringingInto(ctx, at) ?? [])),
  show: (own) => `${own.backbeatsFree} of ${own.backbeats}`,
  target: (own, { settings }) =>
    settings.gate === "cut" && own.backbeats
      ? ["all: notes end before a snare or clap", own.backbeatsFree === own.backbeats]
      : null,
  cause(ctx, line) {
    const before = ctx.backbeats.find((b) => line.some((s) => s.slot.start < b && b - s.slot.start < 120));
    return before === undefined
      ? null
      : {
          code: "short",
          tick: before,
          message:
            `An attack less than a sixteenth before the backbeat at ${positionText(ctx.meter, before)} cannot ` +
            "end before it.",
        };
  },
});
