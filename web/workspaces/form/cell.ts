import type { Level, Part, Pass, Section, Song } from "../../../core/src/index";

/** A part in one pass of its section, and for whom changes are meant. */
export interface Cell {
  song: Song;
  part: Part;
  pass: Pass;
  section: Section;
  level: Level;
}
