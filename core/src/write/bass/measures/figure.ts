import { mod } from "../../../theory/pitch/pitch";
import { sectionMeter } from "../../../song/document";
import type { RealizedNote } from "../../../song/realize";
import { syncopations } from "../../../hear/accents/syncopation";
import { figures, inFigures, type BassContext } from "../context";
import { figureLikeness, attackProfile } from "../../../hear/line/figure";
import { lastBarRepeats } from "../rhythm";
import { defineMeasure, idsOf, percent } from "./measure";

/** A figure that comes back so often in a row asks for a change (common practice). */
const MOST_REPEATS = 3;
/** Rhythm figures more alike than this are one figure. */
const SAME_FIGURE = 0.85;

const startsOf = (ctx: BassContext): number[] => ctx.notes.map((n) => n.start);

/** The first figure with the most different pitch classes. */
function fullest(ctx: BassContext): { count: number; notes: RealizedNote[] } {
  let best: { count: number; notes: RealizedNote[] } = { count: 0, notes: [] };
  for (const notes of inFigures(figures(ctx), ctx.notes)) {
    const count = new Set(notes.map((n) => mod(n.midi, 12))).size;
    if (count > best.count) best = { count, notes };
  }
  return best;
}

export const pitchClasses = defineMeasure({
  id: "pitchClasses",
  title: "Pitches in a figure",
  unit: "pitches",
  how: "The most different pitches, octaves not counted, in any figure of one or two bars.",
  take: (ctx): { pitchClasses: number } => ({ pitchClasses: fullest(ctx).count }),
  notes: (ctx) => idsOf(fullest(ctx).notes),
  show: (own) => String(own.pitchClasses),
  target: (own, { settings }) => [
    `${settings.pitches} or fewer in one or two bars`,
    own.pitchClasses <= settings.pitches,
  ],
});

const offBeats = (ctx: BassContext) => syncopations(startsOf(ctx), ctx.meter, ctx.length);

export const syncopation = defineMeasure({
  id: "syncopation",
  title: "Syncopation a bar",
  unit: "weight",
  how:
    "Attacks before a stronger place that is then held or silent, weighed by the difference of the two " +
    "(Longuet-Higgins & Lee), a bar.",
  take: (ctx): { syncopation: number } => ({
    syncopation: offBeats(ctx).reduce((sum, s) => sum + s.weight, 0) / ctx.bars,
  }),
  notes(ctx) {
    const at = new Set(offBeats(ctx).map((s) => s.start));
    return idsOf(ctx.notes.filter((n) => at.has(n.start)));
  },
  show: (own) => own.syncopation.toFixed(1),
});

/** Rhythm figures of the same part in the other sections. */
export function otherFigures(
  ctx: Pick<BassContext, "song" | "section" | "part">,
): { section: string; name: string; profile: number[] }[] {
  return ctx.song.sections.flatMap((s) => {
    const notes = s.notes[ctx.part.id] ?? [];
    if (s.id === ctx.section.id || !notes.length) return [];
    const { bar } = sectionMeter(ctx.song, s);
    return [
      {
        section: s.id,
        name: s.name,
        profile: attackProfile(
          notes.map((n) => n.start),
          bar,
          s.bars,
        ),
      },
    ];
  });
}

export const likeness = defineMeasure({
  id: "likeness",
  title: "Rhythm figure like",
  unit: "share",
  how: "How much the rhythm is that of the most similar other section: what they share of all they have.",
  take(ctx): { likeness: { section: string; name: string; share: number }[] } {
    if (!ctx.notes.length) return { likeness: [] };
    const own = attackProfile(startsOf(ctx), ctx.meter.bar, ctx.bars);
    return {
      likeness: otherFigures(ctx).map(({ section, name, profile }) => ({
        section,
        name,
        share: figureLikeness(own, profile),
      })),
    };
  },
  show(own) {
    const nearest = nearestOf(own.likeness);
    return nearest ? `${nearest.name}, ${percent(nearest.share)}` : null;
  },
  target(own, { settings }) {
    const nearest = nearestOf(own.likeness);
    return nearest && settings.ownFigure
      ? [`a figure of its own, under ${percent(SAME_FIGURE)}`, nearest.share < SAME_FIGURE]
      : null;
  },
  cause: () => ({
    code: "figure",
    message: "Chords and accents that must sound fall on the same places as in the other section.",
  }),
});

const nearestOf = <T extends { share: number }>(list: readonly T[]): T | undefined =>
  [...list].sort((a, b) => b.share - a.share)[0];

/** The longest run of bars that repeat what was one or two bars before, rhythm and pitch. */
function longestRun(ctx: BassContext): { times: number; notes: RealizedNote[] } {
  const { bar } = ctx.meter;
  const text = Array.from({ length: ctx.bars }, (_, b) =>
    ctx.notes
      .filter((n) => n.start >= b * bar && n.start < (b + 1) * bar)
      .map((n) => `${n.start - b * bar}:${n.midi}`)
      .join(),
  );
  let best: { times: number; notes: RealizedNote[] } = { times: 0, notes: [] };
  for (const period of [1, 2]) {
    let run = 0;
    for (let b = period; b < ctx.bars; b++) {
      run = text[b] && text[b] === text[b - period] ? run + 1 : 0;
      const times = Math.floor(run / period);
      if (times > best.times)
        best = { times, notes: ctx.notes.filter((n) => n.start >= (b - run + 1) * bar && n.start < (b + 1) * bar) };
    }
  }
  return best;
}

export const repeats = defineMeasure({
  id: "repeats",
  title: "Same again in a row",
  unit: "times",
  how: "How often in a row a figure of one or two bars comes back note for note.",
  take: (ctx): { repeats: number } => ({ repeats: longestRun(ctx).times }),
  notes: (ctx) => idsOf(longestRun(ctx).notes),
  show: (own) => (own.repeats ? `${own.repeats} ${own.repeats === 1 ? "time" : "times"}` : "never"),
  target: (own, { style }) =>
    style.pedals ? null : [`at most ${MOST_REPEATS} times note for note`, own.repeats <= MOST_REPEATS],
  cause: () => ({
    code: "repeats",
    message: "The same chords and the same kick come back, and the density leaves nothing to vary.",
  }),
});

export const lastBar = defineMeasure({
  id: "lastBar",
  title: "Last bar differs",
  unit: "words",
  how: "Whether the last bar has a rhythm that no earlier bar has.",
  take: (ctx): { lastBarVaried: boolean | null } => ({
    lastBarVaried: ctx.bars > 1 && ctx.notes.length ? !lastBarRepeats(startsOf(ctx), ctx.bars, ctx.meter.bar) : null,
  }),
  notes: (ctx) => idsOf(ctx.notes.filter((n) => n.start >= (ctx.bars - 1) * ctx.meter.bar)),
  show: (own) => {
    if (own.lastBarVaried === null) return null;
    if (own.lastBarVaried) return "yes";
    return "no";
  },
  target: (own, { settings }) =>
    own.lastBarVaried !== null && settings.ending ? ["the repetition ends differently", own.lastBarVaried] : null,
  cause: (ctx, line) => ({
    code: "figure",
    message:
      ctx.pinned.length || line.every((s) => s.slot.start < (ctx.bars - 1) * ctx.meter.bar)
        ? "The last bar has no room for a change."
        : "Every place of the last bar is taken already.",
  }),
});
