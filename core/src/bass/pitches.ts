import { mod, type Midi } from "../pitch/pitch";
import type { Ticks } from "../time/meter";
import { bassPc, chordPitchClasses, toneRole } from "../chord/chord";
import type { RealChord } from "../song/realize";
import type { Note } from "../song/schema";
import { cheapestPath, cheapestPaths, type Lattice, type Path } from "../lattice/lattice";
import { beatLength, chordAt, figures, type BassContext } from "./context";
import type { BassStyle, Slot } from "./style";

/** A slot with the pitches it may take. A pinned note is a slot with one pitch. */
export interface PitchSlot extends Slot {
  chord: RealChord | null;
  pin?: Note;
  candidates: { midi: Midi; cost: number; inChord: boolean }[];
}

/** Candidates of every slot with their costs: chord tones by the style's taste; in approach and turn slots also tones a step away from the next chord. */
export function pitchSlots(ctx: BassContext, style: BassStyle, slots: (Slot & { pin?: Note; pinMidi?: Midi })[]): PitchSlot[] {
  const [low, high] = ctx.range;
  const center = low + (high - low) * 0.4;
  return slots
    .map((slot, index) => {
      const chord = chordAt(ctx, slot.start) ?? null;
      const candidates: PitchSlot["candidates"] = [];
      if (slot.pinMidi !== undefined) {
        candidates.push({
          midi: slot.pinMidi,
          cost: 0,
          inChord: !chord?.chord || chordPitchClasses(chord.chord).includes(mod(slot.pinMidi, 12)),
        });
      } else if (chord?.chord) {
        const next = slots[(index + 1) % slots.length]!;
        const ahead = chordAt(ctx, next.start);
        for (let midi = low; midi <= high; midi++) {
          const found = candidateCost(
            ctx,
            style,
            slot,
            chord,
            ahead,
            (slot.start + slot.duration) % ctx.length === next.start % ctx.length,
            midi,
          );
          if (found) candidates.push({ midi, cost: found.cost + Math.abs(midi - center) * 0.05, inChord: found.inChord });
        }
      }
      return { ...slot, chord, candidates };
    })
    .filter((slot) => slot.candidates.length > 0);
}

function candidateCost(
  ctx: BassContext,
  style: BassStyle,
  slot: Slot,
  chord: RealChord,
  ahead: RealChord | null,
  leads: boolean,
  midi: Midi,
): { cost: number; inChord: boolean } | null {
  const pc = mod(midi, 12);
  const { taste } = style;
  const { role, inChord } = toneRole(chord.chord!, pc);
  if (inChord) {
    const isBass = pc === bassPc(chord.chord!);
    if (slot.use === "anchor") return { inChord, cost: isBass ? 0 : role === "5" ? 4 : role === "R" ? 5 : 6 };
    const own = isBass
      ? slot.use === "octave"
        ? taste.octave
        : taste.root
      : role === "R"
        ? taste.root + 0.5
        : role === "5"
          ? taste.fifth
          : role === "3"
            ? taste.majorThird
            : role === "b3"
              ? taste.minorThird
              : role === "b7" || role === "7"
                ? taste.seventh
                : taste.other;
    // In an approach slot a chord tone that lies a step beside the next root is as good as an approach from outside.
    const beside =
      !isBass && ahead?.chord && ahead !== chord && Math.min(mod(bassPc(ahead.chord) - pc, 12), mod(pc - bassPc(ahead.chord), 12));
    return { inChord, cost: slot.use !== "approach" ? own : beside === 1 || beside === 2 ? 0.15 : own + 1 };
  }
  const short = slot.duration <= beatLength(ctx, slot.start) / 2;
  if ((slot.use !== "approach" && slot.use !== "turn") || !short || !leads || !ahead?.chord || ahead === chord) return null;
  // Approach notes aim at the next chord's bass: a scale step, or a semitone from below or above.
  const target = bassPc(ahead.chord);
  const distance = Math.min(mod(target - pc, 12), mod(pc - target, 12));
  if (distance > 2) return null;
  const inKey = ctx.key.pcs.includes(pc);
  return { inChord, cost: distance === 1 ? 0.25 : inKey ? 0.4 : 1.2 };
}

/** Cost of the interval from one bass note to the next; a tone outside the chord must leave by step into a chord tone. */
function stepCost(style: BassStyle, from: PitchSlot["candidates"][number], to: PitchSlot["candidates"][number]): number {
  const distance = Math.abs(to.midi - from.midi);
  if (!from.inChord && (distance < 1 || distance > 2 || !to.inChord)) return Infinity;
  if (distance === 0) return style.taste.repeat;
  if (distance <= 2) return 0;
  if (distance === 12) return 0.5;
  if (distance > 12) return 2 + distance * 0.2;
  return distance * 0.09 + (distance === 6 || distance >= 10 ? 0.8 : 0);
}

/** The lattice of a line; `forbidden` removes pitch classes from figures. The line leads back into its own beginning. */
function lineLattice(slots: PitchSlot[], style: BassStyle, forbidden?: (slot: number, midi: Midi) => boolean): Lattice {
  return {
    sizes: slots.map((s) => s.candidates.length),
    node: (c, i) => (forbidden?.(c, slots[c]!.candidates[i]!.midi) ? Infinity : slots[c]!.candidates[i]!.cost),
    step: (c, i, j) => {
      const to = slots[(c + 1) % slots.length]!;
      // A pinned note is left as the user wants it; its conflicts are reported instead.
      return slots[c]!.pin ? 0 : stepCost(style, slots[c]!.candidates[i]!, to.candidates[j]!);
    },
    closed: true,
  };
}

const MOST_NODES = 300;

export interface PitchResult {
  path: Path;
  /** Figures that need more pitch classes than the target allows. */
  over: { from: Ticks; to: Ticks; count: number }[];
}

/**
 * The cheapest pitches whose figures keep to a number of pitch classes. Exact: where the cheapest unrestricted line uses too many in a
 * figure, every line that keeps the limit does without at least one of those it uses there, so the search branches over which.
 */
export function choosePitches(ctx: BassContext, style: BassStyle, slots: PitchSlot[]): PitchResult | null {
  const spans = figures(ctx);
  const figureOf = slots.map((s) => spans.findIndex((f) => s.start >= f.from && s.start < f.to));
  const used = (path: Path, f: number) => [
    ...new Set(path.picks.flatMap((pick, c) => (figureOf[c] === f ? [mod(slots[c]!.candidates[pick]!.midi, 12)] : []))),
  ];
  const limit = style.targets.pitchClasses;
  const solve = (bans: ReadonlySet<string>) =>
    cheapestPath(lineLattice(slots, style, bans.size ? (c, midi) => bans.has(`${figureOf[c]}:${mod(midi, 12)}`) : undefined));
  const overIn = (path: Path) =>
    spans.flatMap((f, i) => {
      const count = used(path, i).length;
      return count > limit ? [{ ...f, count, index: i }] : [];
    });
  const first = solve(new Set());
  if (!first) return null;
  const queue = [{ path: first, bans: new Set<string>() as ReadonlySet<string> }];
  const tried = new Set<string>();
  for (let nodes = 0; queue.length && nodes < MOST_NODES; nodes++) {
    let at = 0;
    for (let i = 1; i < queue.length; i++) if (queue[i]!.path.cost < queue[at]!.path.cost) at = i;
    const node = queue.splice(at, 1)[0]!;
    const over = overIn(node.path)[0];
    if (!over) return { path: node.path, over: [] };
    for (const pc of used(node.path, over.index)) {
      const bans = new Set([...node.bans, `${over.index}:${pc}`]);
      const id = [...bans].sort().join();
      if (tried.has(id)) continue;
      tried.add(id);
      const path = solve(bans);
      if (path) queue.push({ path, bans });
    }
  }
  return { path: first, over: overIn(first).map(({ from, to, count }) => ({ from, to, count })) };
}

/** Other lines on the same rhythm, each with a different pitch on at least a quarter of the notes. */
export function otherPitches(style: BassStyle, slots: PitchSlot[], k: number): Path[] {
  const least = Math.max(1, Math.ceil(slots.length / 4));
  return cheapestPaths(lineLattice(slots, style), { k, differs: (a, b) => a.filter((x, i) => x !== b[i]).length >= least, limit: 600 });
}
