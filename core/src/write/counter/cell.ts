import { firstOf, nth, sure } from "../../base/list";
import { mod, type Midi } from "../../theory/pitch/pitch";
import { scaleStep } from "../../theory/pitch/key";
import type { Ticks } from "../../theory/time/meter";
import { rootPc, toneRole, type Chord } from "../../theory/chord/chord";
import { chordAt, type CounterContext } from "./context";

/** A note of a cell: where it stands in it, and what it is over the chord it was drawn over. */
export interface CellNote {
  at: Ticks;
  duration: Ticks;
  midi: Midi;
}

export interface Cell {
  /** Whole bars. */
  length: Ticks;
  notes: CellNote[];
  /** Drawn by hand; otherwise it was made from the first chord. */
  drawn: boolean;
}

/**
 * The cell of a part: what it plays in the first bar in which it plays at all, or in two where it plays in both and
 * nowhere else.
 */
export function cellOf(ctx: CounterContext, variant = 0, lift = 0): Cell | null {
  const { bar } = ctx.meter;
  const own = ctx.notes.filter((n) => n.start >= 0 && n.start < ctx.length);
  if (own.length) {
    const first = Math.floor(firstOf(own).start / bar);
    const bars = new Set(own.map((n) => Math.floor(n.start / bar)));
    const length = bars.size === 2 && bars.has(first + 1) ? 2 * bar : bar;
    const inside = own.filter((n) => n.start < first * bar + length);
    return {
      length,
      drawn: true,
      notes: inside.map((n) => ({
        at: n.start - first * bar,
        duration: Math.min(n.duration, first * bar + length - n.start),
        midi: n.midi,
      })),
    };
  }
  return made(ctx, variant, lift);
}

/** Orders of the tones of a chord, from its lowest: up and back, rolling, down, leaping, up. */
const ORDERS: readonly (readonly number[])[] = [
  [0, 1, 2, 3, 2, 1],
  [0, 2, 1, 2],
  [3, 2, 1, 0],
  [0, 2, 1, 3],
  [0, 1, 2, 3],
];

/** Tones of the first chord in half beats. */
function made(ctx: CounterContext, variant: number, lift: number): Cell | null {
  const chord = ctx.chords.find((c) => c.chord)?.chord;
  if (!chord) return null;
  const { bar, beats } = ctx.meter;
  const step = firstOf(beats).duration % 720 === 0 ? firstOf(beats).duration / 3 : firstOf(beats).duration / 2;
  const tones: Midi[] = [];
  for (let midi = Math.max(ctx.range[0], ctx.home - 7 + 4 * lift); tones.length < 4 && midi <= ctx.range[1]; midi++)
    if (
      ["R", "3", "b3", "5", "b5", "#5", "4", "2"].includes(
        toneRole(chord, mod(midi, 12)).inChord ? toneRole(chord, mod(midi, 12)).role : "",
      )
    )
      tones.push(midi);
  const order = nth(ORDERS, variant % ORDERS.length);
  const fewer = ctx.settings.density < 0.35 ? 2 : 1;
  const notes: CellNote[] = [];
  for (let at = 0, i = 0; at < bar; at += step * fewer, i++) {
    const midi = tones[nth(order, i % order.length)];
    if (midi !== undefined) notes.push({ at, duration: Math.min(step * fewer, bar - at), midi });
  }
  return { length: bar, notes, drawn: false };
}

/** A distance within half an octave, up or down, of one that is meant modulo octaves. */
const near = (semitones: number): number => mod(semitones + 5, 12) - 5;
const rootMove = (from: Chord, to: Chord): number => near(rootPc(to) - rootPc(from));

/** The tone of another chord that does there what a note did over its own: the same degree in the nearest octave. */
export function refit(midi: Midi, from: Chord, to: Chord, ctx: Pick<CounterContext, "key">): Midi {
  const pc = mod(midi, 12);
  const tone = from.tones.find((t) => mod(rootPc(from) + t.semitones, 12) === pc);
  // The whole figure goes where its root goes, the nearest way, and keeps its shape as well as the chord lets it.
  const moved = midi + rootMove(from, to);
  const nearest = (wanted: number) => moved + near(wanted - moved);
  if (tone) {
    // A degree the other chord has not is taken by its neighbor: a seventh by the root, a color by the fifth.
    const degrees = [tone.degree, ...(FALLS_TO[tone.degree] ?? [])];
    const found =
      degrees.map((d) => to.tones.find((t) => t.degree === d)).find((t) => t !== undefined) ?? firstOf(to.tones);
    return nearest(rootPc(to) + found.semitones);
  }
  // A tone outside the chord keeps its place in the scale beside the tone it leans on.
  const below = [1, 2].map((d) => midi - d).find((m) => toneRole(from, mod(m, 12)).inChord);
  if (below === undefined) return midi;
  return scaleStep(refit(below, from, to, ctx), 1, ctx.key);
}

const FALLS_TO: Record<number, readonly number[]> = {
  3: [4, 2],
  4: [3],
  2: [3, 9],
  5: [1],
  6: [5, 7],
  7: [6, 1],
  9: [1],
  11: [5],
  13: [6, 5],
};

/** Ways in which a cell goes on over other chords, the one that is set first. */
export type CellWay = CounterContext["settings"]["cell"];
export const CELL_WAYS: Record<CellWay, string> = {
  refit: "Refitted to every chord",
  scale: "Moved along the scale",
  hold: "Held as it is",
};
export const waysFrom = (first: CellWay): CellWay[] => [
  first,
  ...(Object.keys(CELL_WAYS) as CellWay[]).filter((w) => w !== first),
];

/**
 * A pitch moved along the scale as far as the root of its chord moves to another, the nearest way; a tone outside the
 * scale keeps its distance.
 */
function alongScale(midi: Midi, from: Chord, to: Chord, { key }: Pick<CounterContext, "key">): Midi {
  const degree = (pc: number) => key.pcs.indexOf(mod(pc, 12));
  const [a, b] = [degree(rootPc(from)), degree(rootPc(to))];
  // A root outside the scale moves all by semitones.
  if (a < 0 || b < 0) return midi + rootMove(from, to);
  const steps = ((mod(b - a, key.pcs.length) + 3) % key.pcs.length) - 3;
  let moved = key.pcs.includes(mod(midi, 12)) ? midi : scaleStep(midi, -1, key);
  const off = midi - moved;
  for (let i = 0; i < Math.abs(steps); i++) moved = scaleStep(moved, steps > 0 ? 1 : -1, key);
  return moved + off;
}

/** The same pitch in the nearest octave inside a range. */
function folded(midi: Midi, [low, high]: readonly [Midi, Midi]): Midi {
  let inside = midi;
  while (inside < low && inside + 12 <= high) inside += 12;
  while (inside > high && inside - 12 >= low) inside -= 12;
  return inside;
}

const MOVED: Record<Exclude<CellWay, "hold">, (midi: Midi, from: Chord, to: Chord, ctx: CounterContext) => Midi> = {
  refit,
  scale: alongScale,
};

/** A note of the cell where it landed, and the pitch it has in the cell. */
interface LaidNote {
  start: Ticks;
  duration: Ticks;
  midi: Midi;
  model: Midi;
}

/** Where each note of the cell lands in a section, and the pitch it has there. */
export function laidCell(ctx: CounterContext, cell: Cell, way: CellWay): LaidNote[] {
  const origin = cell.drawn
    ? Math.floor(sure(ctx.notes.find((n) => n.start >= 0)).start / ctx.meter.bar) * ctx.meter.bar
    : 0;
  const home = (at: Ticks) => chordAt(ctx, origin + at)?.chord ?? ctx.chords.find((c) => c.chord)?.chord;
  const out: LaidNote[] = [];
  for (let from = mod(origin, cell.length); from < ctx.length; from += cell.length)
    for (const n of cell.notes) {
      const start = from + n.at;
      const chord = chordAt(ctx, start);
      if (start >= ctx.length || !chord?.chord) continue;
      const own = home(n.at);
      const midi = way !== "hold" && own ? folded(MOVED[way](n.midi, own, chord.chord, ctx), ctx.range) : n.midi;
      out.push({ start, duration: Math.min(n.duration, ctx.length - start), midi, model: n.midi });
    }
  return out;
}
