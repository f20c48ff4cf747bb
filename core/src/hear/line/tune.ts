import { firstOf, lastOf, nth, sure } from "../../base/list";
import { counted } from "../../theory/words/english";
import type { Midi } from "../../theory/pitch/pitch";
import type { Meter, Seconds, Ticks } from "../../theory/time/meter";
import { ticksToSeconds } from "../../theory/time/swing";
import type { RealizedChord, RealizedNote } from "../../song/realize";

/** A tune in one place, as it is looked at. */
export interface TuneContext {
  /** Its notes in order; a tune has one at a time. */
  notes: readonly RealizedNote[];
  meter: Meter;
  tempo: number;
  /** Length of the place. */
  length: Ticks;
  /** Chords it sounds over, where they are known. */
  chords?: readonly RealizedChord[];
}

/** A wider step than a major third is a leap (any textbook of counterpoint). */
const LEAP = 5;
/** A step answers a leap. */
const STEP = 2;
/** A rest of a beat ends a phrase (common practice). */
const phraseGap = (meter: Meter): Ticks => firstOf(meter.beats).duration;

export interface Phrase {
  notes: RealizedNote[];
  start: Ticks;
  end: Ticks;
  seconds: Seconds;
}

/** A tune in phrases: a rest of a beat or more lies between two. */
export function phrasesOf({ notes, meter, tempo }: TuneContext): Phrase[] {
  const out: RealizedNote[][] = [];
  for (const note of notes) {
    const last = out.at(-1)?.at(-1);
    if (!last || note.start - (last.start + last.duration) >= phraseGap(meter)) out.push([note]);
    else lastOf(out).push(note);
  }
  return out.map((list) => {
    const [start, end] = [firstOf(list).start, Math.max(...list.map((n) => n.start + n.duration))];
    return { notes: list, start, end, seconds: ticksToSeconds(end - start, tempo) };
  });
}

/** A stretch in which the tune is silent. */
export interface Gap {
  from: Ticks;
  to: Ticks;
}

/** Silences of a tune of a beat or more, within a section that comes back. */
export function gapsOf(notes: readonly { start: Ticks; duration: Ticks }[], meter: Meter, length: Ticks): Gap[] {
  const beat = firstOf(meter.beats).duration;
  const gaps: Gap[] = [];
  let end: Ticks | null = null;
  for (const n of notes) {
    const from: Ticks = end ?? 0;
    if (n.start - from >= beat) gaps.push({ from, to: n.start });
    end = Math.max(end ?? 0, n.start + n.duration);
  }
  // A pickup of the repetition sounds before its first bar.
  const again = length + Math.min(0, notes[0]?.start ?? 0);
  if (end !== null && again - end >= beat) gaps.push({ from: end, to: again });
  return gaps;
}

export interface Leap {
  from: RealizedNote;
  to: RealizedNote;
  semitones: number;
  /** Answered by a step the other way; null where nothing follows within the phrase. */
  recovered: boolean | null;
}

/** Leaps within phrases, and whether a step the other way answers them. */
export function leapsOf(context: TuneContext): Leap[] {
  return phrasesOf(context).flatMap(({ notes }) =>
    notes.slice(1).flatMap((to, i): Leap[] => {
      const from = nth(notes, i);
      const semitones = to.midi - from.midi;
      if (Math.abs(semitones) < LEAP) return [];
      const next = notes[i + 2];
      const move = next && next.midi - to.midi;
      const recovered = move === undefined ? null : Math.sign(move) === -Math.sign(semitones) && Math.abs(move) <= STEP;
      return [{ from, to, semitones, recovered }];
    }),
  );
}

/**
 * Lowest and highest pitch between which a share of the sounding time lies: half of it is the tessitura (common
 * practice).
 */
export function span(notes: readonly RealizedNote[], share: number): [Midi, Midi] {
  const sorted = [...notes].sort((a, b) => a.midi - b.midi);
  const total = sorted.reduce((sum, n) => sum + n.duration, 0);
  const at = (target: number): Midi => {
    let sum = 0;
    return sure(sorted.find((n) => (sum += n.duration) >= target)).midi;
  };
  const edge = ((1 - share) / 2) * total;
  return [at(Math.max(edge, 1)), at(total - edge)];
}

/** Pitches of some notes added up, a note counting as long as it sounds; and how long they sound. */
const addedUp = (notes: readonly RealizedNote[]): { sum: number; length: Ticks } => ({
  sum: notes.reduce((sum, n) => sum + n.midi * n.duration, 0),
  length: notes.reduce((sum, n) => sum + n.duration, 0),
});

/** Mean pitch, a note counting as long as it sounds. */
export function meanPitch(notes: readonly RealizedNote[]): number {
  const { sum, length } = addedUp(notes);
  return sum / length;
}

export type Contour = "rises" | "falls" | "arch" | "bowl" | "level";

/** Semitones by which thirds of a tune must differ to be heard as higher or lower. */
const HEARD = 1.5;

/** How a tune goes as a whole: its thirds against each other. */
export function contourOf(notes: readonly RealizedNote[]): Contour {
  const [from, to] = [firstOf(notes).start, lastOf(notes).start + 1];
  const third = (i: number) => {
    const inside = notes.filter((n) => Math.min(2, Math.floor(((n.start - from) / (to - from)) * 3)) === i);
    return addedUp(inside.length ? inside : notes);
  };
  const [a, b, c] = [third(0), third(1), third(2)];
  if (isHeardOver(b, a) && isHeardOver(b, c)) return "arch";
  if (isHeardOver(a, b) && isHeardOver(c, b)) return "bowl";
  if (isHeardOver(c, a)) return "rises";
  return isHeardOver(a, c) ? "falls" : "level";
}

/** Whether one mean pitch is heard as higher than another: in whole numbers, so that it is the same in any octave. */
const isHeardOver = (high: ReturnType<typeof addedUp>, low: ReturnType<typeof addedUp>): boolean =>
  high.sum * low.length - low.sum * high.length >= HEARD * high.length * low.length;

/** A phrase that begins as an earlier one did. */
export interface Return {
  first: Phrase;
  again: Phrase;
  /** Notes that are the same, in rhythm and intervals, from the beginning. */
  same: number;
  /** How it goes on: the same to its end, another way, or on another pitch from the start. */
  words: string;
}

/** Least notes by which a figure is known again. */
const KNOWN = 3;

const figure = ({ notes, start }: Phrase): string[] =>
  notes.map((n) => `${n.start - start}:${n.midi - firstOf(notes).midi}`);

/** Phrases that begin like an earlier one, and how the second time ends. */
export function returnsOf(context: TuneContext): Return[] {
  const phrases = phrasesOf(context);
  const figures = phrases.map(figure);
  // Earlier phrases by how they begin, each figure once: a tune twice as long takes twice the time.
  const known = new Map<string, Map<string, number>>();
  return phrases.flatMap((again, k): Return[] => {
    const own = nth(figures, k);
    if (own.length < KNOWN) return [];
    const beginning = own.slice(0, KNOWN).join();
    const alike = known.get(beginning) ?? new Map<string, number>();
    known.set(beginning, alike);
    const best = [...alike.values()]
      .map((j) => {
        const differs = own.findIndex((x, i) => x !== nth(figures, j)[i]);
        return { first: nth(phrases, j), same: differs < 0 ? own.length : differs };
      })
      .sort((a, b) => b.same - a.same)[0];
    if (!alike.has(own.join())) alike.set(own.join(), k);
    if (!best) return [];
    const { first, same } = best;
    const moved = firstOf(again.notes).midi - firstOf(first.notes).midi;
    const whole = same === again.notes.length && same === first.notes.length;
    const [end, was] = [lastOf(again.notes).midi - moved, lastOf(first.notes).midi];
    let ending: string;
    if (whole) ending = "to the end";
    else if (end === was) ending = "and comes to the same end";
    else ending = `and ends ${Math.abs(end - was) > STEP ? "" : "a step "}${end > was ? "higher" : "lower"}`;
    const where = moved ? `, ${counted(Math.abs(moved), "semitone")} ${moved > 0 ? "higher" : "lower"}` : "";
    return [{ first, again, same, words: `the same for ${counted(same, "note")}${where}, ${ending}` }];
  });
}

/** Share of the place in which the tune is silent. */
export const silenceOf = ({ notes, length }: TuneContext): number =>
  1 -
  Math.min(
    1,
    notes.reduce((sum, n) => sum + Math.max(0, Math.min(length, n.start + n.duration) - Math.max(0, n.start)), 0) /
      length,
  );

export const attacksABar = ({ notes, length, meter }: TuneContext): number => notes.length / (length / meter.bar);

/** Two tunes that sit in one place: within these they are hard to tell apart (common practice). */
const SAME_PITCH = 2;
const SAME_SHARE = 0.1;

/** What makes two sections alike to the ear, or null where something sets them apart. */
export function samePlace(a: TuneContext, b: TuneContext): string | null {
  if (!a.notes.length || !b.notes.length) return null;
  const pitch = Math.abs(meanPitch(a.notes) - meanPitch(b.notes));
  const [x, y] = [attacksABar(a), attacksABar(b)];
  if (
    pitch > SAME_PITCH ||
    Math.abs(x - y) / Math.max(x, y) > SAME_SHARE ||
    Math.abs(silenceOf(a) - silenceOf(b)) > SAME_SHARE
  )
    return null;
  return (
    `both lie around ${nearest(a.notes, meanPitch(a.notes)).pitch}, with about ${counted(Math.round(x), "note")} ` +
    "a bar and as many rests"
  );
}

/** The note of a tune nearest to a pitch. */
export const nearest = (notes: readonly RealizedNote[], pitch: number): RealizedNote =>
  notes.reduce((best, n) => (Math.abs(n.midi - pitch) < Math.abs(best.midi - pitch) ? n : best));
