import { firstOf, nth } from "../../../base/list";
import { because } from "../../../song/reasons";
import { noise } from "../../../hear/line/figure";
import type { CounterContext } from "../context";
import { COSTS, type CounterSlot, type CounterStyle } from "../style";

/** Figures of an answer, in beats: short notes first, a longer one where it comes to rest. */
const FIGURES: readonly (readonly number[])[] = [
  [0.5, 0.5, 0.5, 1.5],
  [1, 0.5, 0.5, 1],
  [0.5, 0.5, 1, 1],
  [1, 1, 1],
  [0.5, 1, 0.5, 1],
  [1.5, 0.5, 1],
];

/** Notes of a figure in a gap: it begins with the gap or half a beat later, and ends before the tune goes on. */
function figureIn(ctx: CounterContext, from: number, to: number, seed: number): CounterSlot[] {
  const beat = firstOf(ctx.meter.beats).duration;
  const grid = beat % 720 === 0 ? beat / 3 : beat / 2;
  const first = Math.ceil(from / grid) * grid + (noise(seed, 5) > 0.5 && to - from >= 2 * beat ? grid : 0);
  // Room for a breath before the tune goes on, where the gap has one.
  const end = to - first > beat ? to - grid : to;
  const { density } = ctx.settings;
  const figure = nth(FIGURES, Math.floor(noise(seed, 11) * FIGURES.length));
  const stretch = density < 0.3 ? 2 : 1;
  const out: CounterSlot[] = [];
  let at = first;
  for (let i = 0; at < end; i++) {
    const wanted = Math.max(grid, Math.round((nth(figure, i % figure.length) * stretch * beat) / grid) * grid);
    // What is left would be too short for a note of its own.
    const duration = end - (at + wanted) < grid ? end - at : wanted;
    out.push({
      start: at,
      duration: Math.min(duration, end - at),
      passes: true,
      ...(i === 0 ? { fresh: true } : { way: -1 }),
    });
    at += duration;
    // A figure and a half at most: an answer is short.
    if (i + 1 >= figure.length * (density > 0.7 ? 2 : 1)) break;
  }
  return out;
}

export const answer: CounterStyle = {
  id: "answer",
  title: "Answer in the gaps",
  explanation:
    "Call and response: it begins where the tune rests for a beat or more, and ends before the next phrase. " +
    "The same figure answers every time, on other notes.",
  source: "common practice",
  targets: { overlap: 0.2, answers: true, chordTime: 0.6, pitches: 6 },
  costs: COSTS,
  uses: ["density", "side"],
  reason: ({ ctx, note, own }) => (ctx.tuneAt(note.start) ? null : because("answers", { ...own, part: ctx.against })),
  slots: (ctx, seed) =>
    ctx.gaps
      .filter((g) => g.to > 0 && g.from < ctx.length)
      .flatMap((g) => figureIn(ctx, Math.max(0, g.from), Math.min(ctx.length, g.to), seed)),
  nothing: (ctx) =>
    ctx.tune.length
      ? {
          message: `${ctx.against} rests nowhere for a beat: there is no gap to answer in`,
          hint: "Make a gap in the tune, or choose a line that sounds under it.",
        }
      : { message: "There is no tune to answer", hint: "Write the tune first, or choose another line to answer." },
};
