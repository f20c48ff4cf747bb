import type { Ticks } from "../time/meter";
import { beatLength, chordAt, type BassContext } from "./context";
import type { Slot, SlotUse } from "./style";

/** Positions with their uses; a position named twice keeps its first use. */
export type Positions = Map<Ticks, SlotUse>;

/** Chord beginnings and main accents: what every style states. */
export function skeleton(ctx: BassContext): Positions {
  const positions: Positions = new Map();
  for (const chord of ctx.chords) if (chord.chord) positions.set(chord.start, "anchor");
  for (const kick of ctx.kicks)
    if (kick.main && chordAt(ctx, kick.start)?.chord && !positions.has(kick.start)) positions.set(kick.start, "kick");
  return positions;
}

/** Adds an approach a half-beat before each change of chord, by chance, never where the melody attacks with it. */
export function addApproaches(ctx: BassContext, positions: Positions, chance: () => number, likelihood: number): void {
  ctx.chords.forEach((chord, i) => {
    const next = ctx.chords[(i + 1) % ctx.chords.length]!;
    const roll = chance();
    if (!chord.chord || !next.chord || next.symbol === chord.symbol || roll > likelihood) return;
    const end = chord.start + chord.duration;
    const at = end - beatLength(ctx, end - 1) / 2;
    if (at > chord.start && Number.isInteger(at) && !positions.has(at) && !ctx.melody.includes(at)) positions.set(at, "approach");
  });
}

/** Sorted slots; each lasts until the next one, its chord's end or its own limit, whichever comes first. */
export function toSlots(ctx: BassContext, positions: Positions, limit: (start: Ticks, use: SlotUse) => Ticks): Slot[] {
  const starts = [...positions.keys()].sort((a, b) => a - b);
  return starts.map((start, i) => {
    const chord = chordAt(ctx, start)!;
    const end = Math.min(starts[i + 1] ?? ctx.length, chord.start + chord.duration);
    const use = positions.get(start)!;
    const short = use === "approach" ? beatLength(ctx, start) / 2 : Infinity;
    return { start, duration: Math.max(60, Math.min(end - start, limit(start, use), short)), use };
  });
}

const figureOf = (starts: readonly Ticks[], bar: number, length: Ticks): string =>
  starts
    .filter((s) => s >= bar * length && s < (bar + 1) * length)
    .map((s) => s - bar * length)
    .join();

/** Whether the last bar's rhythm is one that an earlier bar already had. */
export function lastBarRepeats(starts: readonly Ticks[], bars: number, length: Ticks): boolean {
  const last = figureOf(starts, bars - 1, length);
  return bars > 1 && Array.from({ length: bars - 1 }, (_, b) => figureOf(starts, b, length)).includes(last);
}

/** The repetition ends differently: where the last bar would repeat an earlier one, a turn is added in a free half-beat near its end. */
export function varyLastBar(ctx: BassContext, positions: Positions, chance: () => number): void {
  const { bar, beats } = ctx.meter;
  const from = (ctx.bars - 1) * bar;
  const free = beats
    .flatMap((b) => [b.start, b.start + b.duration / 2])
    .map((at) => from + at)
    .filter((at) => at > from && Number.isInteger(at) && !positions.has(at) && chordAt(ctx, at)?.chord)
    .reverse();
  const first = Math.floor(chance() * Math.min(2, free.length));
  for (const at of [...free.slice(first), ...free.slice(0, first)]) {
    if (
      !lastBarRepeats(
        [...positions.keys()].sort((a, b) => a - b),
        ctx.bars,
        bar,
      )
    )
      return;
    positions.set(at, "turn");
  }
}

/** Ends a note before the next snare or clap, so that the line breathes; at least a sixteenth remains. */
export function untilBackbeat(ctx: BassContext, start: Ticks, most: Ticks): Ticks {
  const next = ctx.backbeats.find((b) => b > start);
  return next !== undefined && next - start < most ? Math.max(120, next - start) : most;
}
