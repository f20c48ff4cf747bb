import { laidOutParts, type Part, type Song } from "../../core/src/index";
import { usePlayback } from "../store/playback";

const ROLES: readonly Part["role"][] = ["melody", "vocal", "counter"];

/** Parts that sing or play a line of their own: tunes first, then voices and counter melodies. */
export const lineParts = (song: Song): Part[] => ROLES.flatMap((role) => song.parts.filter((p) => !p.link && p.role === role));

/** The line that is worked on. */
export const linePartOf = (song: Song, id: string): Part | undefined => {
  const lines = lineParts(song);
  return lines.find((p) => p.id === id) ?? lines[0];
};

export type LineHearing = "alone" | "chords" | "lines" | "all";

/** Whom one hears beside the line: nobody, the chords, the other lines, everybody. */
function beside(song: Song, part: string, what: LineHearing): string[] {
  if (what === "all") return [];
  const more = what === "chords" ? laidOutParts(song) : what === "lines" ? lineParts(song) : [];
  return [...new Set([part, ...more.map((p) => p.id)])];
}

export const hearLine = (song: Song, part: string, what: LineHearing): void => usePlayback.setState({ solo: beside(song, part, what) });

/** What is heard beside the line now; null where the choice of solo parts is another one. */
export function heardBeside(song: Song, part: string, solo: readonly string[]): LineHearing | null {
  const now = [...solo].sort().join();
  const all: LineHearing[] = ["all", "alone", "chords", "lines"];
  return all.find((what) => beside(song, part, what).sort().join() === now) ?? null;
}
