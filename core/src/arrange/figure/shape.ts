import { nth } from "../../base/list";
import { attacksOf, stepsOf } from "../../song/comp/patterns";
import type { Meter, Ticks } from "../../theory/time/meter";

/** What is changed of the values or the loudness of a figure. */
export const FIGURE_SHAPES = [
  { id: "halved", title: "half the values" },
  { id: "doubled", title: "twice the values" },
  { id: "louder", title: "louder" },
  { id: "softer", title: "softer" },
  { id: "legato", title: "legato" },
  { id: "staccato", title: "staccato" },
  { id: "dying", title: "dying away" },
] as const;
export type FigureShape = (typeof FIGURE_SHAPES)[number]["id"];

interface Value {
  start: Ticks;
  duration: Ticks;
  velocity: number;
}

/** One step of loudness in velocity, as between mf and f; the shortest note; what is left at the end of dying away. */
const LOUDER = 14;
const SHORTEST: Ticks = 30;
const LEFT = 0.4;

const within = (velocity: number): number => Math.max(1, Math.min(127, Math.round(velocity)));

/** Notes as long as it takes to the next one that begins after them; the last stays as it is. */
const toNext = (notes: readonly Value[], note: Value): Ticks => {
  const next = Math.min(...notes.filter((n) => n.start > note.start).map((n) => n.start));
  return Number.isFinite(next) ? next - note.start : note.duration;
};

/** A figure with other values or loudness: times from its first note. */
export function shaped<N extends Value>(notes: readonly N[], shape: FigureShape): N[] {
  const from = Math.min(...notes.map((n) => n.start));
  const last = Math.max(...notes.map((n) => n.start));
  const scaled =
    (by: number) =>
    (n: N): N => ({
      ...n,
      start: from + Math.round((n.start - from) * by),
      duration: Math.max(SHORTEST, Math.round(n.duration * by)),
    });
  const ways: Record<FigureShape, (n: N) => N> = {
    halved: scaled(0.5),
    doubled: scaled(2),
    louder: (n) => ({ ...n, velocity: within(n.velocity + LOUDER) }),
    softer: (n) => ({ ...n, velocity: within(n.velocity - LOUDER) }),
    legato: (n) => ({ ...n, duration: toNext(notes, n) }),
    staccato: (n) => ({ ...n, duration: Math.max(SHORTEST, Math.round(Math.min(n.duration, toNext(notes, n)) / 2)) }),
    dying: (n) => ({
      ...n,
      velocity: within(n.velocity * (last > from ? 1 - (1 - LEFT) * ((n.start - from) / (last - from)) : LEFT)),
    }),
  };
  return notes.map(ways[shape]);
}

/**
 * Held notes struck again in a rhythm, by name or in steps of one's own: each attack inside a note is one of its own,
 * at least one from where it begins.
 */
export function restruck<N extends Value>(notes: readonly N[], rhythm: string, meter: Meter): N[] {
  const end = Math.max(...notes.map((n) => n.start + n.duration));
  const attacks = attacksOf(stepsOf(rhythm, meter), end);
  return notes.flatMap((n): N[] => {
    const stop = n.start + n.duration;
    const inside = attacks.filter((a) => a.start >= n.start && a.start < stop);
    const starts =
      inside.length && nth(inside, 0).start === n.start
        ? inside
        : [{ start: n.start, duration: stop - n.start }, ...inside];
    return starts.map((a, i) => ({
      ...n,
      start: a.start,
      duration: Math.min(a.duration, (starts[i + 1]?.start ?? stop) - a.start),
    }));
  });
}
