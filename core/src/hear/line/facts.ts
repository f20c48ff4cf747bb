import { partOf, sectionTempo } from "../../song/document";
import { sectionPlace } from "../../song/place";
import { frameOf } from "../../song/realize";
import type { Fact } from "../../facts/memory";
import { chordsAt, notesAt } from "../sounding";
import type { TuneContext } from "./tune";

/** A part of a section looked at as a tune; null where there is no such part. */
export const tuneAt: Fact<[section: string, part: string], TuneContext | null> = {
  id: "tune",
  of(read, section, part) {
    const place = sectionPlace(section);
    const frame = frameOf(read.song, place);
    if (!frame || !partOf(read.song, part)) return null;
    const { meter, from, to } = frame;
    return {
      notes: read.get(notesAt, place, part, "played"),
      meter,
      tempo: sectionTempo(read.song, frame.section),
      length: to - from,
      chords: read.get(chordsAt, place),
    };
  },
};
