import { motionBetween, parallelPerfect } from "../../theory/motion/motion";
import { PARALLEL_WEIGHT, layoutStep, topCost, type Judge } from "./cost";
import type { BoundedLattice } from "../../search/onward";
import type { Midi } from "../../theory/pitch/pitch";
import type { Candidate, Column } from "./candidate";

/** Candidates of a column by their outer notes and number of voices. */
interface Groups {
  of: Int32Array;
  /** Lowest note, highest note and number of voices of each. */
  low: Int32Array;
  high: Int32Array;
  size: Int32Array;
  /** Sums of the inner notes. */
  inner: Float64Array;
  /** Notes of all candidates in a row, `stride` for each; how many each has. */
  notes: Int16Array;
  stride: number;
  voices: Uint8Array;
}

const known = new WeakMap<readonly Candidate[], Groups>();

function groupsOf(candidates: readonly Candidate[]): Groups {
  let groups = known.get(candidates);
  if (groups) return groups;
  const ids = new Map<number, number>();
  const outer: [low: Midi, high: Midi, voices: number][] = [];
  const of = Int32Array.from(candidates, ({ pitches }) => {
    const [low, high] = [pitches[0]!, pitches.at(-1)!];
    const key = (low * 128 + high) * 128 + pitches.length;
    let id = ids.get(key);
    if (id === undefined) ids.set(key, (id = outer.push([low, high, pitches.length]) - 1));
    return id;
  });
  const column = (k: 0 | 1 | 2) => Int32Array.from(outer, (o) => o[k]);
  const stride = Math.max(...candidates.map((v) => v.pitches.length));
  const notes = new Int16Array(stride * candidates.length);
  candidates.forEach((v, i) => notes.set(v.pitches, i * stride));
  const inner = Float64Array.from(candidates, ({ pitches }) => pitches.slice(1, -1).reduce((a, b) => a + b, 0));
  const voices = Uint8Array.from(candidates, (v) => v.pitches.length);
  known.set(
    candidates,
    (groups = { of, low: column(0), high: column(1), size: column(2), inner, notes, stride, voices }),
  );
  return groups;
}

/**
 * The steps between the layouts of chords. A bound from the outer notes alone: they go to each other in every matching,
 * and what they do at the top and in parallel is known; one from the motion of all voices leaves out only what is kept,
 * resolved and shifted, which never costs less than nothing.
 */
export function steppedLattice(columns: readonly Column[], judge: Judge, loop: boolean): BoundedLattice {
  const n = columns.length;
  const groups = columns.map((c) => groupsOf(c.candidates));
  const { profile, weights, top } = judge;
  const perfect = PARALLEL_WEIGHT[profile] * weights.parallels;
  return {
    sizes: columns.map((c) => c.candidates.length),
    node: (c, i) => columns[c]!.candidates[i]!.cost,
    step: (c, i, j) => layoutStep(columns[c]!.candidates[i]!, columns[(c + 1) % n]!.candidates[j]!, judge),
    closed: loop,
    alike: (c) => columns[c]!.candidates,
    groups: (c) => groups[c]!.of,
    places: (c) => groups[c]!.inner.map((sum) => sum * weights.motion),
    kinds: (c) => groups[c]!.size,
    leastBetween(c, g, h) {
      const a = groups[c]!;
      const b = groups[c + 1 < n ? c + 1 : 0]!;
      const [low, lowTo, high, highTo] = [a.low[g]!, b.low[h]!, a.high[g]!, b.high[h]!];
      const below = lowTo > low ? lowTo - low : low - lowTo;
      const above = highTo > high ? highTo - high : high - highTo;
      const alone = a.size[g] === 1 && b.size[h] === 1;
      const wide = below > above ? below : above;
      const leap = a.size[g] === b.size[h] && wide > 4 ? (wide - 4) * 0.5 : 0;
      const parallel = parallelPerfect(low, lowTo, high, highTo) ? perfect : 0;
      return (
        (alone ? above : below + above) * weights.motion +
        leap * weights.leap +
        topCost(highTo - high, top) * weights.topLine +
        parallel
      );
    },
    least(c, i, j) {
      const a = groups[c]!;
      const b = groups[c + 1 < n ? c + 1 : 0]!;
      const voices = a.voices[i]!;
      const from = i * a.stride;
      const to = j * b.stride;
      if (voices !== b.voices[j]) {
        const candidates = columns[(c + 1) % n]!.candidates;
        return motionBetween(columns[c]!.candidates[i]!.pitches, candidates[j]!.pitches) * weights.motion;
      }
      let motion = 0;
      let leap = 4;
      let move = 0;
      for (let v = 0; v < voices; v++) {
        move = b.notes[to + v]! - a.notes[from + v]!;
        const size = move < 0 ? -move : move;
        motion += size;
        if (size > leap) leap = size;
      }
      return motion * weights.motion + (leap - 4) * 0.5 * weights.leap + topCost(move, top) * weights.topLine;
    },
  };
}
