import { firstOf, nth } from "../../base/list";
import { cheapestPath } from "../../search/lattice";
import { metricalLevel, type Meter, type Ticks } from "../../theory/time/meter";
import { halfOf } from "../line/figure";
import type { Syllable } from "./syllables";

/** A syllable with the place that is proposed for it. */
export interface PlacedSyllable extends Syllable {
  start: Ticks;
  duration: Ticks;
}

/** What a place costs (common practice): a stressed syllable wants a strong one, an unstressed one leaves it free. */
const STRONG = 0.6;
const LIGHT_ON_STRONG = [1.4, 0.9, 0.45];
/** How far a syllable is from the next, in steps of the grid: a stressed one is longer. */
const WANTED = [1, 1.4, 2] as const;
const APART = 0.18;
/** A line leaves room to breathe before the next one. */
const NO_BREATH = 1.2;

/** Positions of the grid within a stretch: halves of beats. */
function grid(meter: Meter, from: Ticks, to: Ticks): Ticks[] {
  const out: Ticks[] = [];
  for (let bar = Math.floor(from / meter.bar) * meter.bar; bar < to; bar += meter.bar)
    for (const b of meter.beats) {
      const parts = b.duration % 720 === 0 ? [0, b.duration / 3, halfOf(b.duration)] : [0, halfOf(b.duration)];
      for (const p of parts) if (bar + b.start + p >= from && bar + b.start + p < to) out.push(bar + b.start + p);
    }
  return out;
}

/** Bars a line of so many syllables takes: about a syllable a half beat and a rest, in one, two or four bars. */
export function barsOfLine(syllables: number, meter: Meter): number {
  const room = grid(meter, 0, meter.bar).length;
  return [1, 2, 4, 8].find((bars) => syllables <= bars * room * 0.75) ?? Math.ceil(syllables / room);
}

/**
 * A rhythm for lines of words against a meter: every line takes whole bars, its stresses fall on strong places, its
 * last syllable is long, and a breath is left before the next. What does not fit the section is left out. Exact: the
 * cheapest way through all places.
 */
export function rhythmOfWords(
  lines: readonly (readonly Syllable[])[],
  meter: Meter,
  bars: number,
): { placed: PlacedSyllable[]; left: number } {
  const placed: PlacedSyllable[] = [];
  let bar = 0;
  let left = 0;
  for (const line of lines) {
    if (!line.length) continue;
    const length = barsOfLine(line.length, meter);
    if (bar + length > bars) {
      left += line.length;
      continue;
    }
    placed.push(...placeLine(line, meter, bar * meter.bar, (bar + length) * meter.bar));
    bar += length;
  }
  return { placed, left };
}

function placeLine(line: readonly Syllable[], meter: Meter, from: Ticks, to: Ticks): PlacedSyllable[] {
  const places = grid(meter, from, to);
  const beat = firstOf(meter.beats).duration;
  const cost = (i: number, p: number): number => {
    const level = metricalLevel(meter, nth(places, p));
    const { stress } = nth(line, i);
    const own = stress ? -level * STRONG * (stress / 2) : (LIGHT_ON_STRONG[-level] ?? 0);
    const late = i === line.length - 1 && to - nth(places, p) < 1.5 * beat ? NO_BREATH : 0;
    return own + late;
  };
  const path = cheapestPath({
    sizes: line.map(() => places.length),
    node: cost,
    step: (i, a, b) =>
      b <= a ? Infinity : Math.abs(b - a - WANTED[nth(line, i).stress]) * APART * (nth(line, i).goesOn ? 1.5 : 1),
  });
  // More syllables than places: they share the bars evenly.
  const starts = path
    ? path.picks.map((p) => nth(places, p))
    : line.map((_, i) => from + Math.floor(((to - from) * i) / line.length / 60) * 60);
  return line.map((s, i) => {
    const start = nth(starts, i);
    const next = starts[i + 1] ?? Math.min(to, Math.max(start + beat / 2, Math.min(to - beat / 2, start + 2 * beat)));
    // A word ends before a longer rest than a beat and a half.
    const duration = Math.min(next - start, s.goesOn ? 2 * beat : 1.5 * beat + (i === line.length - 1 ? beat / 2 : 0));
    return { ...s, start, duration: Math.max(60, Math.round(duration)) };
  });
}
