/** The voices of everything that sounds, as facts. */
import { nth } from "../../base/list";
import { pitchMidi, type Midi } from "../../theory/pitch/pitch";
import { instrumentOf } from "../../theory/instrument/instruments";
import { partOf } from "../../song/document";
import { type Place } from "../../song/place";
import type { RealizedNote } from "../../song/realize";
import type { Part } from "../../song/schema";
import { type Fact } from "../../facts/memory";
import { notesAt, type Sounding } from "../sounding";
import { threadsOf } from "./threads";

/** What moves: a sung or played line, or a thread inside a part that sounds several notes at once. */
export interface Voice {
  part: Part;
  /** As it is told: "Alto", "the top of Piano", "the 2nd voice of Piano". */
  name: string;
  /** Its place in its part from the top, 0-based, and how many there are. */
  place: number;
  of: number;
  /** It is its part: nearly all of its notes. Double stops here and there leave a line a line. */
  main: boolean;
  notes: readonly RealizedNote[];
}

/** Voices of one part at a place, from the top; what sounds one note at a time has one, however its notes overlap. */
export const threadsAt: Fact<[Place, string, Sounding], RealizedNote[][]> = {
  id: "threads",
  of(read, place, id, reading) {
    const notes = read.get(notesAt, place, id, reading);
    const part = partOf(read.song, id);
    if (part && notes.length && instrumentOf(part.instrument, read.song).polyphony === 1) return [notes];
    return threadsOf(notes);
  },
};

const ORDINALS = ["1st", "2nd", "3rd", "4th", "5th", "6th", "7th", "8th", "9th", "10th"];

/** What a voice of a part is called, by its place from the top. */
function voiceName(part: Part, place: number, of: number): string {
  const [short] = part.name.split(",");
  if (place === 0) return `the top of ${short}`;
  if (place === of - 1) return `the bottom of ${short}`;
  return `the ${nth(ORDINALS, Math.min(place, ORDINALS.length - 1))} voice of ${short}`;
}

/** Share of the notes of a part that makes a voice the part itself (common practice). */
const MAIN = 0.7;

/** The voices of a part from their notes. */
export function partVoices(part: Part, threads: readonly (readonly RealizedNote[])[]): Voice[] {
  const all = threads.reduce((sum, t) => sum + t.length, 0);
  return threads.map((notes, place): Voice => {
    const main = notes.length >= MAIN * all;
    const name = main ? part.name : voiceName(part, place, threads.length);
    return { part, name, place, of: threads.length, main, notes };
  });
}

/** Where the written notes of a part lie in the song: the middle one by height; null without notes. */
export const liesAt: Fact<[part: string], Midi | null> = {
  id: "lies",
  of(read, id) {
    if (!partOf(read.song, id)) return null;
    const midis = read.song.sections
      .flatMap((section) => section.notes[id] ?? [])
      .map((n) => pitchMidi(n.pitch))
      .sort((a, b) => a - b);
    return midis[Math.floor(midis.length / 2)] ?? null;
  },
};
