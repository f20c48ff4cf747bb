/** What sounds at a place, as facts: everything else that is heard reads these. */
import { chordOf } from "../theory/chord/progression";
import { partOf } from "../song/document";
import { eventAfter, firstNote, wayOn, type FirstNote } from "../song/onward";
import { passPlace, type Place } from "../song/place";
import {
  assemble,
  frameOf,
  joinPasses,
  realizedChords,
  realizedHits,
  realizedNotes,
  type RealizedChord,
  type RealizedHit,
  type RealizedNote,
  type RealizedSong,
} from "../song/realize";
import { kept, keptItems, sharing } from "../base/plain";
import { type Fact } from "../facts/memory";

/** How linked parts are read: as they are played, or as the chords they come from. */
export type Sounding = "played" | "held";

/** Chords of a place, as written. */
export const chordsAt: Fact<[Place], RealizedChord[]> = {
  id: "chords",
  of(read, place) {
    const frame = frameOf(read.song, place);
    return frame ? realizedChords(frame) : [];
  },
  keep: sharing,
};

/** Notes of one part at a place. */
export const notesAt: Fact<[Place, string, Sounding], RealizedNote[]> = {
  id: "notes",
  of(read, place, id, reading) {
    const frame = frameOf(read.song, place);
    const part = partOf(read.song, id);
    return frame && part ? realizedNotes(read.song, frame, part, reading === "held") : [];
  },
  keep: sharing,
};

/** Drum hits of a place. */
export const hitsAt: Fact<[Place], RealizedHit[]> = {
  id: "hits",
  of(read, place) {
    const frame = frameOf(read.song, place);
    return frame ? realizedHits(read.song, frame) : [];
  },
  keep: sharing,
};

/** A place realized by itself, from tick 0. */
export const realizedAt: Fact<[Place, Sounding], RealizedSong> = {
  id: "realized",
  of: (read, place, reading) =>
    assemble(read.song, frameOf(read.song, place), read.get(chordsAt, place), {
      notesOf: (part) => read.get(notesAt, place, part.id, reading),
      hits: read.get(hitsAt, place),
    }),
  // Its notes are those of the other facts, and no others that say the same.
  keep(before, now) {
    const parts = keptItems(before.parts, now.parts);
    return kept(before, { ...now, parts, sections: sharing(before.sections, now.sections) });
  },
};

/** The whole form on one axis; passes that differ in nothing are worked out once. */
export const formRealized: Fact<[Sounding], RealizedSong> = {
  id: "form",
  of: (read, reading) =>
    joinPasses(
      read.song,
      read.song.form.map((pass) => read.get(realizedAt, passPlace(read.song, pass.id), reading)),
    ),
};

export interface Onward {
  chord: RealizedChord;
  first: FirstNote | null;
  into: string;
}

/**
 * The chord with which the form goes on after a section, and the first note of a part there; null where it leads back
 * to its own beginning.
 */
export const onwardAt: Fact<[section: string, part: string], Onward | null> = {
  id: "onward",
  of(read, section, part) {
    const event = eventAfter(read.song, section);
    const way = event && wayOn(read.song, section);
    const chord = event && chordOf(event.symbol);
    if (!event || !way || !chord) return null;
    const { into, ...rest } = event;
    return { chord: { ...rest, pass: way.next, chord }, first: firstNote(read.song, way, part), into };
  },
  keep: sharing,
};
