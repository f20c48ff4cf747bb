import { nth } from "../../base/list";
import type { Key } from "../../theory/pitch/key";
import { parseChord } from "../../theory/chord/parse";
import { NO_CHORD } from "../../theory/chord/progression";
import { chordBefore, eventAfter } from "../../song/onward";
import type { ChordEvent, Song } from "../../song/schema";
import type { Heard, Progression } from "./context";
import { findRegions } from "./regions";

/** What stands before and after a progression in the form; without it the last chord leads back to the first. */
export interface Around {
  before?: string | null;
  after?: Pick<ChordEvent, "id" | "start" | "duration" | "symbol"> | null;
}

/** What surrounds a section in the form; null where it leads back to its own beginning. */
export function aroundSection(song: Song, sectionId: string): (Around & { into: string }) | null {
  const after = eventAfter(song, sectionId);
  return after && { after, before: chordBefore(song, sectionId), into: after.into };
}

/** The chords of a progression with the keys they are heard in; events without a chord are left out. */
export function readProgression(events: readonly ChordEvent[], home: Key, loop: boolean): Read {
  const read = events.flatMap((event): Heard[] => {
    const chord = event.symbol === NO_CHORD ? null : parseChord(event.symbol);
    return chord?.ok ? [{ event, chord: chord.value, key: home }] : [];
  });
  const regions = findRegions(
    read.map((h) => h.chord),
    home,
  );
  for (const region of regions)
    for (let i = region.from; i < region.to; i++) read[i] = { ...nth(read, i), key: region.key };
  return { chords: read, home, loop, regions };
}

type Read = Progression & { regions: { from: number; to: number; key: Key }[] };

/**
 * A progression with what surrounds it: the chord that follows stands behind its own, heard in the key the last of them
 * is heard in.
 */
export function within(p: Read, around: Around | null): Read {
  const heard = (event: ChordEvent, key: Key): Heard[] => {
    const chord = event.symbol === NO_CHORD ? null : parseChord(event.symbol);
    return chord?.ok ? [{ event, chord: chord.value, key }] : [];
  };
  const [first, last] = [p.chords[0], p.chords.at(-1)];
  if (!around?.after || !first || !last) return p;
  const [before] = around.before
    ? heard({ id: "before", start: 0, duration: 1, symbol: around.before }, first.key)
    : [];
  return { ...p, loop: false, chords: [...p.chords, ...heard(around.after, last.key)], ...(before ? { before } : {}) };
}
