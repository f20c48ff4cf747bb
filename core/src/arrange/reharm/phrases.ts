import { nth } from "../../base/list";
import { mod, type PitchClass } from "../../theory/pitch/pitch";
import type { Meter, Ticks } from "../../theory/time/meter";
import type { RealizedNote } from "../../song/realize";

/** The end of a phrase: where its last note begins, and how sure it is, 0 to 1. */
export interface PhraseEnd {
  arrives: Ticks;
  /** The bar line it closes at. */
  at: Ticks;
  weight: number;
  /** Pitch classes of its last note and of the one before. */
  last: PitchClass;
  before: PitchClass | null;
}

/** The start of the note after one, or the end of all. */
const onward = (notes: readonly RealizedNote[], i: number, length: Ticks): Ticks => notes[i + 1]?.start ?? length;

/** A phrase arrives where its last note is struck first. */
function arrival(notes: readonly RealizedNote[], last: number): Omit<PhraseEnd, "at" | "weight"> {
  let i = last;
  while (
    i > 0 &&
    nth(notes, i - 1).midi === nth(notes, i).midi &&
    nth(notes, i - 1).start + nth(notes, i - 1).duration >= nth(notes, i).start
  )
    i--;
  const before = notes[i - 1];
  return {
    arrives: nth(notes, i).start,
    last: mod(nth(notes, i).midi, 12),
    before: before ? mod(before.midi, 12) : null,
  };
}

/**
 * Where a line rests: every four bars, every two with half the weight, when its last note there is longer than the line
 * usually moves (gaps and long notes close groups: Lerdahl & Jackendoff 1983, rules of grouping); the end of the
 * section always. Notes in order.
 */
export function phraseEnds(notes: readonly RealizedNote[], meter: Meter, length: Ticks): PhraseEnd[] {
  if (!notes.length) return [];
  const gaps = notes.map((n, i) => onward(notes, i, length) - n.start).sort((a, b) => a - b);
  const usual = nth(gaps, Math.floor(gaps.length / 2));
  const ends: PhraseEnd[] = [];
  for (let bar = 2; bar * meter.bar <= length; bar += 2) {
    const at = bar * meter.bar;
    // A pickup into the next phrase stands between the long note and the bar line.
    const inBar = notes.map((n, i) => ({ n, i })).filter(({ n }) => n.start >= at - 1.5 * meter.bar && n.start < at);
    const long = inBar.filter(
      ({ n, i }) =>
        onward(notes, i, length) - n.start >= Math.min(1.5 * usual, meter.bar) &&
        onward(notes, i, length) - n.start > usual,
    );
    const last = at === length ? inBar.at(-1) : long.at(-1);
    if (!last || (at !== length && onward(notes, last.i, length) < at - meter.bar / 2)) continue;
    const weightHere = () => {
      if (at === length) return 1;
      if (bar % 4 === 0) return 0.8;
      return 0.35;
    };
    ends.push({ ...arrival(notes, last.i), at, weight: weightHere() });
  }
  if (length % (2 * meter.bar) !== 0) ends.push({ ...arrival(notes, notes.length - 1), at: length, weight: 1 });
  return ends;
}
