import { firstOf, lastOf } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import type { PitchName } from "../../theory/pitch/pitch";
import type { Seconds, Ticks } from "../../theory/time/meter";
import { mod } from "../../theory/pitch/pitch";
import { partOf, sectionOf } from "../../song/document";
import type { Song } from "../../song/schema";
import { tuneReport, type TuneMeasure } from "./report";
import {
  attacksABar,
  contourOf,
  gapsOf,
  leapsOf,
  meanPitch,
  nearest,
  phrasesOf,
  returnsOf,
  silenceOf,
  span,
  type Contour,
  type Gap,
} from "./tune";
import { tuneAt } from "./facts";
import { factsOf } from "../../facts/memory";

/** What a tune is, in figures, and as rows to read. */
export interface MelodyReport {
  notes: number;
  range: [PitchName, PitchName];
  /** Where half of the sounding time lies. */
  tessitura: [PitchName, PitchName];
  /** MIDI, a note counting as long as it sounds. */
  meanPitch: number;
  leaps: { from: PitchName; to: PitchName; start: Ticks; semitones: number; recovered: boolean | null }[];
  phrases: { start: Ticks; end: Ticks; seconds: Seconds; notes: number }[];
  gaps: Gap[];
  contour: Contour;
  pitchClasses: number;
  returns: { first: Ticks; again: Ticks; same: number; words: string }[];
  attacksABar: number;
  /** Share of the section. */
  silence: number;
  measures: TuneMeasure[];
}

/** The report on a tune. Errors: `melody.section`, `melody.part`, `melody.empty`. */
export function reportMelody(song: Song, { section, part }: { section: string; part: string }): Result<MelodyReport> {
  if (!sectionOf(song, section)) return fail("melody.section", `No section has the id "${section}"`);
  const tune = factsOf(song).get(tuneAt, section, part);
  if (!tune || !partOf(song, part)) return fail("melody.part", `No part has the id "${part}"`);
  const { notes, meter, length } = tune;
  if (!notes.length) return fail("melody.empty", "The part has no note there", { hint: "Write the tune first." });
  const sorted = [...notes].sort((a, b) => a.midi - b.midi);
  const [low, high] = span(notes, 0.5);
  return ok({
    notes: notes.length,
    range: [firstOf(sorted).pitch, lastOf(sorted).pitch],
    tessitura: [nearest(notes, low).pitch, nearest(notes, high).pitch],
    meanPitch: meanPitch(notes),
    leaps: leapsOf(tune).map(({ from, to, semitones, recovered }) => ({
      from: from.pitch,
      to: to.pitch,
      start: from.start,
      semitones,
      recovered,
    })),
    phrases: phrasesOf(tune).map((p) => ({ start: p.start, end: p.end, seconds: p.seconds, notes: p.notes.length })),
    gaps: gapsOf(notes, meter, length),
    contour: contourOf(notes),
    pitchClasses: new Set(notes.map((n) => mod(n.midi, 12))).size,
    returns: returnsOf(tune).map((r) => ({ first: r.first.start, again: r.again.start, same: r.same, words: r.words })),
    attacksABar: attacksABar(tune),
    silence: silenceOf(tune),
    measures: tuneReport(tune),
  });
}
