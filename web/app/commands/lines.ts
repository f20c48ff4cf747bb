import { Edit, type Part, Singer, Song } from "../../../core/src/index";
import { ALONE, WITH_ALL, type Hearing } from "./hearing";

const ROLES: readonly Part["role"][] = ["melody", "vocal", "counter"];

/** Parts that sing or play a line of their own: tunes first, then voices and counter melodies. */
export const lineParts = (song: Song): Part[] =>
  ROLES.flatMap((role) => song.parts.filter((p) => Song.isWritten(p) && p.role === role));

/** The line that is worked on. */
export const linePartOf = (song: Song, id: string): Part | undefined => {
  const lines = lineParts(song);
  return lines.find((p) => p.id === id) ?? lines[0];
};

const middle = (song: Song, part: Part): number =>
  Singer.rangeOfPart(song, part).comfortable.reduce((a, b) => a + b, 0) / 2;

/** The line that lies nearest to one. */
function neighborOf(song: Song, id: Part["id"]): string[] {
  const part = lineParts(song).find((p) => p.id === id);
  const others = lineParts(song).filter((p) => p.id !== id);
  if (!part || !others.length) return [];
  const away = (p: Part) => Math.abs(middle(song, p) - middle(song, part));
  return [others.reduce((best, p) => (away(p) < away(best) ? p : best)).id];
}

const LINE_HEARINGS: readonly Hearing[] = [
  ALONE,
  { id: "neighbor", title: "with its neighbor", beside: neighborOf },
  { id: "chords", title: "with chords", beside: (song) => Edit.laidOutParts(song).map((p) => p.id) },
  { id: "lines", title: "all lines", beside: (song) => lineParts(song).map((p) => p.id) },
  WITH_ALL,
];

/** Whom a line of a song can be heard with: other lines where there are some. */
export function lineHearings(song: Song): readonly Hearing[] {
  const lines = lineParts(song).length;
  return LINE_HEARINGS.filter((h) => {
    if (h.id === "neighbor") return lines > 1;
    if (h.id === "lines") return lines > 2;
    return true;
  });
}
