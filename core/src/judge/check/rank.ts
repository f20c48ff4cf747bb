import { firstOf } from "../../base/list";
import { byId } from "../../base/once";
import { metricalLevel } from "../../theory/time/meter";
import { strengthOf } from "../../theory/instrument/loudness";
import { sliceAt, type SliceNote } from "../../hear/slice/slices";
import type { RealizedNote } from "../../song/realize";
import type { CheckContext, RawFinding } from "./rule";

/** A place longer than this is not noticed more. */
const LONGEST_BEATS = 4;
/** Worth of a place by its beat: the first of a bar, another beat, between them (common practice). */
const BEATS = { first: 1.5, beat: 1.15, between: 0.8 } as const;
/** Notes at the top or at the bottom, and those that hardly anybody else covers, are heard plainly. */
const OUTER = 1.35;
const BARE = 1.25;

/** How much a listener notices a place: its length, its loudness, its beat, and how exposed it stands. */
export function noticing(ctx: CheckContext): (raw: RawFinding) => number {
  const { meter, sliced } = ctx;
  const parts = sliced.real.parts.map((p) => byId(p.notes));
  const noteOf = (id: string) => parts.findLast((notes) => notes.has(id))?.get(id);
  return ({ tick, duration = 0, notes: ids }) => {
    const own = ids.flatMap((id) => noteOf(id) ?? []);
    const beats = Math.min(LONGEST_BEATS, duration / firstOf(meter.beats).duration);
    const loud = own.length ? Math.max(...own.map((n) => strengthOf(n.velocity))) / strengthOf(80) : 1;
    const level = metricalLevel(meter, tick);
    let beat: 0.8 | 1.5 | 1.15;
    if (level === 0) beat = BEATS.first;
    else if (level >= -2) beat = BEATS.beat;
    else beat = BEATS.between;
    return (0.5 + beats) * loud * beat * exposure(own, sliceAt(sliced.slices, tick)?.notes ?? []);
  };
}

function exposure(own: readonly RealizedNote[], slice: readonly SliceNote[]): number {
  const around = slice.map((n) => n.note);
  if (!own.length || !around.length) return 1;
  const [low, high] = [Math.min(...around.map((n) => n.midi)), Math.max(...around.map((n) => n.midi))];
  const outer = own.some((n) => n.midi <= low || n.midi >= high) ? OUTER : 1;
  return outer * (new Set(around.map((n) => n.part)).size <= 2 ? BARE : 1);
}

/** What several places are worth together: the worst of them, and more the more there are. */
export const joinedWeight = (weights: readonly number[]): number =>
  Math.max(0, ...weights) * (1 + Math.log2(Math.max(1, weights.length)) / 2);
