import { firstOf, nth, sure } from "../../base/list";
import { mod, type Midi } from "../../theory/pitch/pitch";
import type { CounterContext } from "./context";
import type { PlacedSlot } from "./style";

/**
 * First species in two voices: one note against each note of the tune (Fux 1725, Gradus ad Parnassum). Consonances
 * only, the fourth among the dissonances; perfect at the beginning and the end; no parallel or direct perfect
 * intervals; contrary motion preferred.
 */
type Against = Pick<PlacedSlot, "start" | "duration" | "tune">;

const PERFECT = [0, 7];
const CONSONANT = [0, 3, 4, 7, 8, 9];
/**
 * What breaking a rule costs: more than any sum of wishes, but not forbidden, so that a tune that cannot be answered
 * strictly still is answered.
 */
export const BROKEN = 1000;

/** Position of a slot in the strict line. */
// A pickup leads in; the line begins with the first bar.
const isFirst = (ctx: CounterContext, slot: Against): boolean =>
  slot.start === ctx.tune.find((n) => n.start >= 0)?.start;
const isLast = (ctx: CounterContext, slot: Against): boolean => slot.start === ctx.tune.at(-1)?.start;

/**
 * What the interval over (or under) the tune costs. Tones come from the key; the last but one may be its leading tone.
 */
export function speciesNode(ctx: CounterContext, slot: Against, midi: Midi): number {
  if (slot.tune === null) return Infinity;
  const above = midi - slot.tune;
  if (ctx.side === "below" ? above > 0 : above < 0) return Infinity;
  const interval = mod(Math.abs(above), 12);
  if (!CONSONANT.includes(interval)) return Infinity;
  const pc = mod(midi, 12);
  const leading = mod(firstOf(ctx.key.pcs) - 1, 12);
  if (!ctx.key.pcs.includes(pc)) return slot.start === ctx.tune.at(-2)?.start && pc === leading ? 0.1 : Infinity;
  const wide = Math.abs(above) > 16 ? 1.5 : 0;
  const ends = [isFirst(ctx, slot), isLast(ctx, slot)];
  return wide + (ends.includes(true) ? endCost(ctx, interval, ends) : insideCost(above, interval));
}

/** Above, a line may begin on the fifth; below, that would set the tune over another final. It ends on the final. */
const endCost = (ctx: CounterContext, interval: number, [first, last]: readonly boolean[]): number => {
  const begins = interval === 0 || (interval === 7 && ctx.side === "above");
  return (first && !begins ? BROKEN : 0) + (last && interval !== 0 ? BROKEN : 0);
};

/** A unison belongs to the ends. */
const insideCost = (above: number, interval: number): number =>
  (above === 0 ? BROKEN : 0) + (PERFECT.includes(interval) ? 0.6 : 0);

/**
 * What the size of a melodic interval costs: no tritone, no seventh, nothing over an octave; a major sixth counts as
 * one too (a minor one up is let stand).
 */
function sizeCost(size: number): number {
  const broken = [6, 9, 10, 11].includes(size) || size > 12 ? BROKEN : 0;
  if (size === 0) return 0.5;
  if (size <= 2) return 0;
  if (size <= 4) return 0.35;
  return (size <= 7 ? 0.7 : 1.2) + broken;
}

/** What a move costs against that of the tune. */
export function speciesStep(slots: readonly Against[], c: number, from: Midi, to: Midi): number {
  const [a, b] = [sure(nth(slots, c).tune), sure(nth(slots, c + 1).tune)];
  const [own, tune] = [to - from, b - a];
  const size = Math.abs(own);
  let cost = sizeCost(size);
  const perfect = PERFECT.includes(mod(Math.abs(to - b), 12));
  const sameWay = own !== 0 && tune !== 0 && Math.sign(own) === Math.sign(tune);
  if (perfect && sameWay) cost += BROKEN;
  // Two voices that both stand say nothing.
  if (own === 0 && tune === 0) cost += 1;
  if (sameWay) cost += 0.5;
  // The last interval is reached by step against the tune, where the tune steps itself.
  if (c === slots.length - 2 && (size > 2 || size === 0)) cost += 3;
  return cost;
}

/**
 * What three notes cost: a leap is answered by a step or a smaller leap the other way; not three of one in a row, no
 * tritone outlined.
 */
export function speciesTurn(slots: readonly Against[], c: number, [x, y, z]: readonly [Midi, Midi, Midi]): number {
  const [first, second] = [y - x, z - y];
  let cost = 0;
  if (first === 0 && second === 0) cost += 2;
  if (Math.abs(first) >= 5 && !(Math.sign(second) === -Math.sign(first))) cost += 1.5;
  if (Math.sign(first) === Math.sign(second) && Math.abs(z - x) === 6) cost += 0.8;
  // Three thirds or three sixths in a row are one too many.
  const gaps = [x, y, z].map((m, i) => Math.abs(m - sure(nth(slots, c + i).tune)));
  const thirds = gaps.every((g) => mod(g, 12) === 3 || mod(g, 12) === 4);
  const sixths = gaps.every((g) => mod(g, 12) === 8 || mod(g, 12) === 9);
  return cost + (thirds || sixths ? 0.4 : 0);
}
