import { lastOf, nth } from "../../base/list";
import type { Midi } from "../../theory/pitch/pitch";
import type { Ticks } from "../../theory/time/meter";

/** Notes that overlap by a thirty-second at most are played legato, one after the other (common practice). */
export const LEGATO: Ticks = 60;

interface Sounding {
  start: Ticks;
  duration: Ticks;
  midi: Midi;
}

const end = (n: Sounding): Ticks => n.start + n.duration;

/** Whether no note of a part is struck before the one before it has ended: then the part is one voice. */
const isSingle = (notes: readonly Sounding[]): boolean =>
  notes.every((n, i) => i === 0 || end(nth(notes, i - 1)) - n.start <= LEGATO);

/**
 * Which notes follow which: the notes of a part, in order of time, taken apart into voices of one note at a time,
 * high to low by where they lie. Of what is struck together each note follows another one that has ended, so that the
 * sum of the ways is the smallest and none cross (the least motion, as a listener connects them; Huron 2001). A note
 * that is held keeps its voice. Time: notes × voices.
 */
export function threadsOf<N extends Sounding>(notes: readonly N[]): N[][] {
  if (!notes.length) return [];
  if (isSingle(notes)) return [[...notes]];
  const open: N[][] = [];
  for (let i = 0; i < notes.length;) {
    const { start } = nth(notes, i);
    const struck: N[] = [];
    while (i < notes.length && nth(notes, i).start === start) struck.push(nth(notes, i++));
    struck.sort((a, b) => a.midi - b.midi);
    const free = open
      .filter((thread) => end(lastOf(thread)) - start <= LEGATO)
      .sort((a, b) => lastOf(a).midi - lastOf(b).midi);
    const follows = nearest(
      free.map((thread) => lastOf(thread).midi),
      struck.map((n) => n.midi),
    );
    struck.forEach((note, k) => {
      const thread = follows[k] === undefined ? undefined : free[follows[k]];
      if (thread) thread.push(note);
      else open.push([note]);
    });
  }
  const height = (thread: readonly N[]) => thread.reduce((sum, n) => sum + n.midi, 0) / thread.length;
  return open
    .map((thread) => ({ thread, at: height(thread) }))
    .sort((a, b) => b.at - a.at)
    .map((t) => t.thread);
}

/**
 * For each of the pitches that begin, low to high, the one before it that goes there: no two ways cross, as many as
 * can go do, and their sum is the smallest.
 */
function nearest(from: readonly Midi[], to: readonly Midi[]): (number | undefined)[] {
  const [fewer, more] = from.length <= to.length ? [from, to] : [to, from];
  // cost[i][j]: the first i of the fewer within the first j of the more.
  const cost = Array.from({ length: fewer.length + 1 }, () => new Array<number>(more.length + 1).fill(Infinity));
  nth(cost, 0).fill(0);
  for (let i = 1; i <= fewer.length; i++)
    for (let j = i; j <= more.length; j++)
      nth(cost, i)[j] = Math.min(
        nth(nth(cost, i), j - 1),
        nth(nth(cost, i - 1), j - 1) + Math.abs(nth(fewer, i - 1) - nth(more, j - 1)),
      );
  const pairs: [number, number][] = [];
  for (let i = fewer.length, j = more.length; i > 0; j--)
    if (nth(nth(cost, i), j) < nth(nth(cost, i), j - 1)) pairs.push([--i, j - 1]);
  const out: (number | undefined)[] = to.map(() => undefined);
  for (const [a, b] of pairs) {
    const [source, target] = fewer === from ? [a, b] : [b, a];
    out[target] = source;
  }
  return out;
}
