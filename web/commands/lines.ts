import { isWritten, laidOutParts, type Part, type Song } from "../../core/src/index";
import { ALONE, WITH_ALL, type Hearing } from "./hearing";

const ROLES: readonly Part["role"][] = ["melody", "vocal", "counter"];

/** Parts that sing or play a line of their own: tunes first, then voices and counter melodies. */
export const lineParts = (song: Song): Part[] => ROLES.flatMap((role) => song.parts.filter((p) => isWritten(p) && p.role === role));

/** The line that is worked on. */
export const linePartOf = (song: Song, id: string): Part | undefined => {
  const lines = lineParts(song);
  return lines.find((p) => p.id === id) ?? lines[0];
};

/** Whom a line is heard with. */
export const LINE_HEARINGS: readonly Hearing[] = [
  ALONE,
  { id: "chords", title: "with chords", beside: (song) => laidOutParts(song).map((p) => p.id) },
  { id: "lines", title: "all lines", beside: (song) => lineParts(song).map((p) => p.id) },
  WITH_ALL,
];
