import { pitchMidi, type Midi } from "../../theory/pitch/pitch";
import type { Ticks } from "../../theory/time/meter";
import type { Note } from "../../song/schema";

/** A place of a rhythm that gets a pitch. */
export interface Timed {
  start: Ticks;
  duration: Ticks;
}

/** A pinned note as a slot has it. */
export interface Pinned {
  pin?: Note;
  pinMidi?: Midi;
}

/**
 * Pinned notes take their place, as slots of one pitch; slots that they cover give way, slots before them end where
 * they begin.
 */
export function withPins<S extends Timed>(
  slots: readonly S[],
  pinned: readonly Note[],
  slotOf: (pin: Note) => S,
): (S & Pinned)[] {
  const pins = pinned.map((pin): S & Pinned => ({ ...slotOf(pin), pin, pinMidi: pitchMidi(pin.pitch) }));
  const free = slots
    .filter((s) => !pins.some((p) => s.start >= p.start && s.start < p.start + p.duration))
    .map((s) => {
      const next = pins.find((p) => p.start > s.start);
      return next ? { ...s, duration: Math.min(s.duration, next.start - s.start) } : s;
    });
  return [...free, ...pins].sort((a, b) => a.start - b.start);
}

/** Different plans of a line, each once, in the order in which they were found; empty ones are none. */
export function distinctRhythms<S extends Timed>(attempts: number, make: (attempt: number) => S[]): S[][] {
  const found = new Map<string, S[]>();
  for (let attempt = 0; attempt < attempts; attempt++) {
    const slots = make(attempt);
    const id = JSON.stringify(slots);
    if (slots.length && !found.has(id)) found.set(id, slots);
  }
  return [...found.values()];
}
