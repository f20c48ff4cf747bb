import { fail, ok, type Result } from "../result";
import { nameInKey } from "../pitch/key";
import { mod, type PitchClass } from "../pitch/pitch";
import { metricalLevel, type Ticks } from "../time/meter";
import type { ChordEvent, Song } from "../song/schema";
import type { RealNote } from "../song/realize";
import { cheapestPath } from "../lattice/lattice";
import { bassContext } from "./context";

/** What a stretch of a bass line alone says about the harmony. */
export interface ImpliedRoot {
  start: Ticks;
  duration: Ticks;
  root: PitchClass;
  name: string;
  /** Chord that is meant most plainly: a triad of the key where its third is open, by the tones that were played where they tell it. */
  symbol: string;
  /** Other roots that explain the stretch nearly as well. */
  others: string[];
  /** Which tones speak for it, in words. */
  reason: string;
  notes: string[];
}

/** How plainly a tone points to a root, by its distance above it (common practice: root, fifth and third tell, the rest speaks against). */
const SPEAKS: Record<number, number> = {
  0: 1,
  7: 0.62,
  4: 0.5,
  3: 0.5,
  10: 0.3,
  11: 0.22,
  6: 0.12,
  5: 0.05,
  2: 0.04,
  9: 0.06,
  8: 0.02,
  1: 0,
};
const COST = { change: 0.3, weak: 0.3, outside: 0.35, other: 1 } as const;

/**
 * Roots that a bass line implies where no chord is written yet: for every half bar (or beat group) each root is weighed by how long and how
 * strongly its tones sound, and the cheapest way through the section is taken, in which a change of root costs something. Errors: those of
 * `bassContext`, and `bass.empty`.
 */
export function impliedRoots(song: Song, sectionId: string, partId: string): Result<ImpliedRoot[]> {
  const context = bassContext(song, sectionId, partId);
  if (!context.ok) return context;
  const ctx = context.value;
  const notes = ctx.sliced.real.parts.find((p) => p.id === partId)!.notes.filter((n) => n.start >= 0);
  if (!notes.length)
    return fail("bass.empty", "There is no bass line yet", {
      hint: "Click one into the bass lane, play it in, or take it from a MIDI file.",
    });
  const { meter } = ctx;
  // Stretches: half bars where the meter has a middle, otherwise its beats.
  const cuts: Ticks[] = [];
  for (let bar = 0; bar < ctx.bars; bar++) {
    const halves = meter.beats.length % 2 === 0 && meter.beats.length > 1 ? [0, meter.beats[meter.beats.length / 2]!.start] : [0];
    for (const at of halves) cuts.push(bar * meter.bar + at);
  }
  const spans = cuts.map((from, i) => ({ from, to: cuts[i + 1] ?? ctx.length }));
  const weightOf = (n: RealNote, from: Ticks, to: Ticks): number => {
    const time = Math.min(to, n.start + n.duration) - Math.max(from, n.start);
    if (time <= 0) return 0;
    // The note that begins a stretch counts most: it is heard as its bass.
    const strong = n.start <= from ? 1.6 : 1 + (metricalLevel(meter, n.start) + 3) * 0.12;
    return (time / (to - from)) * Math.max(0.5, strong);
  };
  const points = spans.map(({ from, to }) => {
    const inside = notes.map((n) => ({ n, w: weightOf(n, from, to) })).filter((x) => x.w > 0);
    const all = inside.reduce((sum, x) => sum + x.w, 0);
    return {
      inside: inside.map((x) => x.n),
      fit: Array.from({ length: 12 }, (_, root) =>
        all ? inside.reduce((sum, { n, w }) => sum + w * (SPEAKS[mod(n.midi - root, 12)] ?? 0), 0) / all : 0.5,
      ),
      silent: all === 0,
    };
  });
  const path = cheapestPath({
    sizes: spans.map(() => 12),
    node: (c, root) =>
      (points[c]!.silent ? 0 : (1 - points[c]!.fit[root]!) * COST.other) + (ctx.key.pcs.includes(root) ? 0 : COST.outside * 0.5),
    step: (c, a, b) =>
      a === b ? 0 : COST.change * (points[c + 1]!.silent ? 2 : 1) + (spans[c + 1]!.from % meter.bar ? COST.weak * 0.3 : 0),
  })!;
  const out: ImpliedRoot[] = [];
  path.picks.forEach((root, c) => {
    const { from, to } = spans[c]!;
    const last = out.at(-1);
    if (last && last.root === root) {
      last.duration = to - last.start;
      last.notes.push(...points[c]!.inside.map((n) => n.id).filter((id) => !last.notes.includes(id)));
      return;
    }
    out.push({
      start: from,
      duration: to - from,
      root,
      name: nameInKey(root, ctx.key),
      symbol: "",
      others: [],
      reason: "",
      notes: points[c]!.inside.map((n) => n.id),
    });
  });
  for (const found of out) {
    const end = found.start + found.duration;
    const time = new Map<number, number>();
    for (const n of notes) {
      const overlap = Math.min(end, n.start + n.duration) - Math.max(found.start, n.start);
      if (overlap > 0) time.set(mod(n.midi - found.root, 12), (time.get(mod(n.midi - found.root, 12)) ?? 0) + overlap);
    }
    const total = [...time.values()].reduce((a, b) => a + b, 0) || 1;
    const has = (semitones: number) => (time.get(semitones) ?? 0) / total > 0.06;
    const minor = has(3)
      ? true
      : has(4)
        ? false
        : ctx.key.pcs.includes(mod(found.root + 3, 12)) && !ctx.key.pcs.includes(mod(found.root + 4, 12));
    const flat5 =
      has(6) && !has(7)
        ? true
        : !has(7) && minor && !ctx.key.pcs.includes(mod(found.root + 7, 12)) && ctx.key.pcs.includes(mod(found.root + 6, 12));
    const seventh = has(10) ? "7" : has(11) && !minor ? "maj7" : "";
    found.symbol = found.name + (minor ? (flat5 ? (seventh === "7" ? "m7b5" : "dim") : `m${seventh === "7" ? "7" : ""}`) : seventh);
    const words: Record<number, string> = {
      0: "its root",
      7: "its fifth",
      4: "its third",
      3: "its third",
      10: "its seventh",
      11: "its seventh",
    };
    const spoken = [...time].filter(([pc, t]) => words[pc] && t / total > 0.06).sort((a, b) => b[1] - a[1]);
    found.reason = spoken.length
      ? spoken.map(([pc, t]) => `${words[pc]} ${Math.round((t / total) * 100)} % of the time`).join(", ")
      : "carried on from before";
    const mean = Array.from({ length: 12 }, (_, root) => {
      const inside = spans.map((s, c) => ({ s, c })).filter(({ s }) => s.from >= found.start && s.to <= end);
      return inside.reduce((sum, { c }) => sum + points[c]!.fit[root]!, 0) / inside.length;
    });
    found.others = mean
      .map((fit, root) => ({ fit, root }))
      .filter((x) => x.root !== found.root && x.fit > mean[found.root]! * 0.75 && x.fit > 0.3)
      .sort((a, b) => b.fit - a.fit)
      .slice(0, 2)
      .map((x) => nameInKey(x.root, ctx.key));
  }
  return ok(out);
}

/** Implied roots as chords that can be written. */
export const impliedChords = (roots: readonly ImpliedRoot[]): Omit<ChordEvent, "id">[] =>
  roots.map(({ start, duration, symbol }) => ({ start, duration, symbol, why: { id: "implied" } }));
