import { firstOf, nth } from "../../../base/list";
import { pitchName, plainName, type Midi } from "../../../theory/pitch/pitch";
import { positionText } from "../../../theory/time/meter";
import { inGap, lowestTuneAt, type BassContext } from "../context";
import type { RealizedNote } from "../../../song/realize";
import { defineMeasure, idsOf, percent } from "./measure";

const leaps = (ctx: BassContext): RealizedNote[] =>
  ctx.notes.filter((n, i) => i + 1 < ctx.notes.length && Math.abs(nth(ctx.notes, i + 1).midi - n.midi) > 2);

export const stepwise = defineMeasure({
  id: "stepwise",
  title: "Moves by step",
  unit: "share",
  how: "The share of moves from note to note that are a tone or less; repeats count with them. It points at the leaps.",
  take(ctx): { stepwise: number | null } {
    const moves = ctx.notes.length - 1;
    return { stepwise: moves > 0 ? 1 - leaps(ctx).length / moves : null };
  },
  notes: (ctx) => idsOf(leaps(ctx)),
  show: (own) => (own.stepwise === null ? "–" : percent(own.stepwise)),
  target: (own, { style: { targets } }) =>
    targets.stepwise === undefined
      ? null
      : [`${percent(targets.stepwise)} or more`, (own.stepwise ?? 1) >= targets.stepwise - 1e-9],
  cause(ctx, line) {
    let [at, widest] = [0, 0];
    for (let i = 0; i + 1 < line.length; i++) {
      const d = Math.abs(nth(line, i + 1).midi - nth(line, i).midi);
      if (d > widest) [widest, at] = [d, i + 1];
    }
    const [from, to] = [nth(line, Math.max(0, at - 1)).slot.chord?.symbol, line[at]?.slot.chord?.symbol];
    const tick = line[at]?.slot.start ?? 0;
    const where = positionText(ctx.meter, tick);
    return {
      code: "leaps",
      tick,
      message:
        from === to
          ? `Chord tones of ${to ?? "the chord"} lie a third or more apart, and there is no room for a step at ` +
            `${where}.`
          : `From ${from ?? "–"} to ${to ?? "–"} at ${where} no step is possible there.`,
    };
  },
});

const outOfRange = (ctx: BassContext): RealizedNote[] =>
  ctx.notes.filter((n) => n.midi < ctx.range[0] || n.midi > ctx.range[1]);
const plain = (midi: Midi): string => pitchName(midi, plainName(midi, true));

export const register = defineMeasure({
  id: "register",
  title: "Register",
  unit: "pitches",
  how: "The lowest and the highest note, against the range that is set. It points at notes outside it.",
  take(ctx): { lowest: Midi | null; highest: Midi | null; outOfRange: number } {
    const midis = ctx.notes.map((n) => n.midi);
    return {
      lowest: midis.length ? Math.min(...midis) : null,
      highest: midis.length ? Math.max(...midis) : null,
      outOfRange: outOfRange(ctx).length,
    };
  },
  notes: (ctx) => idsOf(outOfRange(ctx)),
  show: (own) => (own.lowest === null || own.highest === null ? "–" : `${plain(own.lowest)} to ${plain(own.highest)}`),
  target: (own) => ["inside the range that is set", own.outOfRange === 0],
});

/** With a main accent and a new chord the bass must sound, whatever the tune does. */
const mustSound = (ctx: BassContext): Set<number> =>
  new Set([...ctx.kicks.filter((k) => k.main).map((k) => k.start), ...ctx.chords.map((c) => c.start)]);
const inGaps = (ctx: BassContext): RealizedNote[] => ctx.notes.filter((n) => inGap(ctx, n.start));
const underTune = (ctx: BassContext): RealizedNote[] => {
  const must = mustSound(ctx);
  return ctx.notes.filter((n) => !inGap(ctx, n.start) && !must.has(n.start));
};

export const tune = defineMeasure({
  id: "tune",
  title: "Moves around the tune",
  unit: "notes",
  how:
    "Notes that begin in a gap of the tune, and those that begin under its motion. Main accents and new chords " +
    "are not counted.",
  take: (ctx): { tune: { inGaps: number; under: number; close: number } | null } => ({
    tune: ctx.tune.notes.length
      ? { inGaps: inGaps(ctx).length, under: underTune(ctx).length, close: withinOctave(ctx).length }
      : null,
  }),
  notes: (ctx) => (ctx.tune.notes.length ? idsOf(underTune(ctx)) : []),
  show: (own) => own.tune && `${own.tune.inGaps} in its gaps, ${own.tune.under} under it`,
  target: (own, { settings }) =>
    settings.melody && own.tune
      ? [
          "no more under the tune than in its gaps; accents and new chords are not counted",
          own.tune.under <= Math.max(own.tune.inGaps, 2),
        ]
      : null,
  cause: (_ctx, _line, own) => ({
    code: "tune",
    message: `The tune leaves few gaps: ${own.tune?.under ?? 0} notes of the style fall under its motion.`,
  }),
});

const withinOctave = (ctx: BassContext): RealizedNote[] =>
  ctx.notes.filter((n) => {
    const lowest = lowestTuneAt(ctx, n.start);
    return lowest !== null && n.midi > lowest - 12;
  });

export const close = defineMeasure({
  id: "close",
  title: "Within the tune’s octave",
  unit: "notes",
  how: "Notes less than an octave below the tune that sounds above them.",
  take: (ctx): { close: number | null } => ({ close: ctx.tune.notes.length ? withinOctave(ctx).length : null }),
  notes: (ctx) => (ctx.tune.notes.length ? idsOf(withinOctave(ctx)) : []),
  show: (own) => (own.close === null ? null : String(own.close)),
  target: (own, { settings }) =>
    settings.melody && own.close !== null ? ["none: an octave or more below the tune", own.close === 0] : null,
  cause(_ctx, line) {
    const first = line.find((s) => s.slot.chord) ?? firstOf(line);
    return {
      code: "tune",
      tick: first.slot.start,
      message: "The tune lies so low that the range of the bass reaches into its octave.",
    };
  },
});
