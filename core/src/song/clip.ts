import { firstOf } from "../base/list";
import type { Meter, Ticks } from "../theory/time/meter";
import type { NewNote, Note } from "./schema";

/** Notes that were copied: where they stand is counted from the beat the first one stands in. */
export interface Clip {
  notes: NewNote[];
  /**
   * Whole beats, or whole bars where it is longer than half a bar: a copy of it stands at the same place of its bar.
   */
  length: Ticks;
}

/** What copying takes of a note: its reason was that of another place. */
const copied = ({ id: _, reason: _reason, pinned: _pinned, ...note }: Note): NewNote => note;

const beatAt = (meter: Meter, tick: Ticks): Ticks => {
  const bar = Math.floor(tick / meter.bar) * meter.bar;
  return bar + (meter.beats.findLast((b) => b.start <= tick - bar)?.start ?? 0);
};

/** Where a clip begins: the beat of its first note, or the bar where it is longer than half of one. */
export function clipStart(notes: readonly Pick<Note, "start" | "duration">[], meter: Meter): Ticks {
  const first = Math.min(...notes.map((n) => n.start));
  const end = Math.max(...notes.map((n) => n.start + n.duration));
  return end - first > meter.bar / 2 ? Math.floor(first / meter.bar) * meter.bar : beatAt(meter, first);
}

/** Notes as they are copied. At least one. */
export function clipOf(notes: readonly Note[], meter: Meter): Clip {
  const start = clipStart(notes, meter);
  const end = Math.max(...notes.map((n) => n.start + n.duration));
  const unit = end - start > meter.bar / 2 ? meter.bar : firstOf(meter.beats).duration;
  return {
    notes: notes.map((n) => ({ ...copied(n), start: n.start - start })),
    length: Math.ceil((end - start) / unit) * unit,
  };
}

/**
 * A part with a clip set down at a place: what stands in its stretch gives way but for pinned notes, a note held into
 * it ends there, and what would begin past the end is left out. The new notes come last.
 */
export function pasted(
  stored: readonly Note[],
  clip: Clip,
  at: Ticks,
  length: Ticks,
): { kept: Note[]; added: NewNote[]; gone: number } {
  const to = at + clip.length;
  const kept = stored
    .filter((n) => n.pinned || n.start < at || n.start >= to)
    .map((n) => (!n.pinned && n.start < at && n.start + n.duration > at ? { ...n, duration: at - n.start } : n));
  const added = clip.notes.map((n) => ({ ...n, start: n.start + at })).filter((n) => n.start < length);
  return { kept, added, gone: stored.length - kept.length };
}
