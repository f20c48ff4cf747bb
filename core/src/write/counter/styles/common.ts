import type { Ticks } from "../../../theory/time/meter";
import type { CounterContext } from "../context";

/** A stretch under one chord, cut at the bar lines a chord lasts over. */
export interface Stretch {
  from: Ticks;
  to: Ticks;
  /** First of its chord. */
  first: boolean;
}

/** Stretches under each chord, no longer than a number of bars. N.C. has none. */
export function stretches(ctx: CounterContext, bars: number): Stretch[] {
  const most = bars * ctx.meter.bar;
  return ctx.chords.flatMap((c) => {
    if (!c.chord) return [];
    const out: Stretch[] = [];
    for (let from = c.start; from < c.start + c.duration;) {
      const to = Math.min(c.start + c.duration, (Math.floor(from / most) + 1) * most);
      out.push({ from, to, first: from === c.start });
      from = to;
    }
    return out;
  });
}

/** The beat at or after the middle of a stretch; its end where it has none inside. */
export function middleOf(ctx: CounterContext, { from, to }: Stretch): Ticks {
  const middle = (from + to) / 2;
  const bar = Math.floor(middle / ctx.meter.bar) * ctx.meter.bar;
  const beats = [...ctx.meter.beats.map((b) => bar + b.start), bar + ctx.meter.bar];
  return Math.min(to, beats.find((b) => b >= middle && b > from) ?? to);
}
