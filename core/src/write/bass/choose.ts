import { isStep } from "../../theory/pitch/interval";
import { lastOf, nth } from "../../base/list";
import { mod, type Midi } from "../../theory/pitch/pitch";
import type { Ticks } from "../../theory/time/meter";
import { bassPc } from "../../theory/chord/chord";
import { prepare, type Lattice, type Path, type Prepared } from "../../search/lattice";
import { cheapestLimited } from "../../search/limited";
import { figureAt, figures, inFigures, type BassContext } from "./context";
import { leadsTo, type Candidate, type PitchSlot } from "./pitches";
import type { BassStyle } from "./style";

/** What it costs where the last note leads nowhere (common practice). */
const ASTRAY = 2.5;

/** Whether a note leads on to another, or stays where the harmony stays. */
const leadsOrStays = (from: Midi, to: Midi, { chord }: PitchSlot): boolean =>
  leadsTo(from, to) || (mod(from - to, 12) === 0 && chord?.chord != null && bassPc(chord.chord) === mod(to, 12));

/** Where a step of the line goes, and whether it is to lift there. */
interface Arrival {
  to: Candidate;
  lifts: boolean;
}
type Octaves = BassContext["settings"]["octaves"];

/**
 * Cost of the interval from one bass note to the next. A tone outside the chord must leave by step into a chord tone
 * (or be repeated, where it took the next chord early).
 */
export function bassStep(style: BassStyle, octaves: Octaves, from: Candidate, arrival: Arrival): number {
  const { to } = arrival;
  const turns = from.way !== undefined && from.way !== to.way;
  if (to.way && (to.midi === from.midi ? turns : Math.sign(to.midi - from.midi) !== to.way)) return Infinity;
  return moveCost(style, octaves, from, arrival) + (to.way && turns ? (style.costs.reverse ?? 0) : 0);
}

/** What a leap of an octave costs, by how many the player likes, and whether it lifts. */
const OCTAVE = { none: [3, 3], some: [0.5, 0.1], many: [0, -0.4] } as const;

function moveCost(style: BassStyle, octaves: Octaves, from: Candidate, { to, lifts }: Arrival): number {
  const distance = Math.abs(to.midi - from.midi);
  if (from.ahead) return distance === 0 ? 0 : Infinity;
  const byStep = isStep(distance);
  if (!from.inChord && !(byStep && to.inChord)) return Infinity;
  if (byStep) return 0;
  // A scale step comes by step as well.
  const strays = to.scale ? 2 : 0;
  if (distance === 0) return style.costs.repeat + strays;
  if (distance === 12) return OCTAVE[octaves][lifts ? 1 : 0];
  return distance * (style.costs.leap ?? 0.09) + strays + hardness(distance);
}

/** A tritone, a seventh, more than an octave. */
function hardness(distance: number): number {
  if (distance > 12) return 2;
  return distance === 6 || distance >= 10 ? 0.8 : 0;
}

/** The lattice of a line, which leads on into what follows, or back into its own beginning. */
function lineLattice(ctx: BassContext, slots: PitchSlot[], style: BassStyle): Lattice {
  return {
    sizes: slots.map((s) => s.candidates.length),
    node: (c, i) => nth(nth(slots, c).candidates, i).cost,
    step: (c, i, j) => {
      const to = nth(slots, (c + 1) % slots.length);
      // A pinned note is left as the user wants it; its conflicts are reported instead.
      if (nth(slots, c).pin) return 0;
      const [a, b] = [nth(nth(slots, c).candidates, i), nth(to.candidates, j)];
      return (
        bassStep(style, ctx.settings.octaves, a, { to: b, lifts: to.use === "octave" }) +
        (to.beyond && !leadsOrStays(a.midi, b.midi, nth(slots, c)) ? ASTRAY : 0)
      );
    },
    closed: !slots.at(-1)?.beyond,
    // What is free in the same way steps on at the same cost; a pinned note and the end stand by themselves.
    alike: (c) => {
      const slot = nth(slots, c);
      return slot.pin || slot.beyond ? slot : slot.candidates;
    },
  };
}

export interface PitchResult {
  path: Path;
  /** Figures that need more pitch classes than the settings allow. */
  over: { from: Ticks; to: Ticks; count: number }[];
}

/** Figures of a line that have more pitch classes than the settings allow. */
export function overFigures(
  ctx: BassContext,
  slots: readonly PitchSlot[],
  picks: readonly number[],
): { from: Ticks; to: Ticks; count: number; index: number }[] {
  const spans = figures(ctx);
  const used = slots.map(({ start, candidates }, c) => ({ start, pc: mod(nth(candidates, nth(picks, c)).midi, 12) }));
  return inFigures(spans, used).flatMap((inside, index) => {
    const count = new Set(inside.map(({ pc }) => pc)).size;
    return count > ctx.settings.pitches ? [{ ...nth(spans, index), count, index }] : [];
  });
}

/**
 * The cheapest pitches whose figures keep to a number of pitch classes: exact, figure by figure. What a figure cannot
 * keep is said.
 */
export const choosePitches = (ctx: BassContext, style: BassStyle, slots: PitchSlot[]): PitchResult | null =>
  chosenIn(ctx, slots, prepare(lineLattice(ctx, slots, style)));

function chosenIn(ctx: BassContext, slots: readonly PitchSlot[], prepared: Prepared): PitchResult | null {
  const groups: [number, number][] = [];
  let before: unknown = null;
  const spans = figures(ctx);
  slots.forEach((s, c) => {
    const figure = figureAt(spans, s.start);
    if (c && figure === before) lastOf(groups)[1] = c;
    else groups.push([c, c]);
    before = figure;
  });
  const path = cheapestLimited({
    prepared,
    groups,
    kindOf: (c, i) => mod(nth(nth(slots, c).candidates, i).midi, 12),
    most: ctx.settings.pitches,
  });
  return (
    path && { path, over: overFigures(ctx, slots, path.picks).map(({ from, to, count }) => ({ from, to, count })) }
  );
}

/**
 * Another line on the same rhythm: what the first one took costs more and more, until two fifths of the notes differ.
 */
export function otherPitches(
  ctx: BassContext,
  style: BassStyle,
  slots: PitchSlot[],
  taken: readonly number[],
): PitchResult | null {
  const prepared = prepare(lineLattice(ctx, slots, style));
  for (const surcharge of [0.4, 0.8, 1.6, 3.2]) {
    const nodes = prepared.nodes.map((costs, c) => {
      const { pin, beyond, use } = nth(slots, c);
      const costlier = !pin && !beyond && (use !== "anchor" || surcharge > 1);
      return costlier ? costs.map((cost, i) => (i === taken[c] ? cost + surcharge : cost)) : costs;
    });
    const found = chosenIn(ctx, slots, { ...prepared, nodes });
    if (found && found.path.picks.filter((p, c) => p !== taken[c]).length >= slots.length * 0.4) return found;
  }
  return null;
}
