/** How two voices of a section go together, as facts: worked out again only when one of the two has changed. */
import { sharing } from "../../base/plain";
import { sectionMeter, sectionOf } from "../../song/document";
import { sectionPlace } from "../../song/place";
import { type Fact, type Reader } from "../../facts/memory";
import { pairPlaces, type PairPlaces } from "../line/between";
import { doubles } from "../line/doubles";
import { chordsAt } from "../sounding";
import { liesAt, threadsAt } from "./voices";

/** A voice by its part and its place from the top there. */
type Of = [section: string, part: string, place: string, other: string, otherPlace: string];

const notesOf = (read: Reader, section: string, part: string, place: string) =>
  read.get(threadsAt, sectionPlace(section), part, "held")[Number(place)] ?? [];

/** What two voices do to each other; null where there is no such section. */
export const pairAt: Fact<Of, PairPlaces | null> = {
  id: "pair",
  of(read, ...at) {
    const [id, part, place, other, otherPlace] = at;
    const section = sectionOf(read.song, id);
    if (!section) return null;
    const [x, y] = [read.get(liesAt, part), read.get(liesAt, other)];
    const leaning = x === null || y === null || part === other ? undefined : x - y;
    return pairPlaces(notesOf(read, id, part, place), notesOf(read, id, other, otherPlace), {
      meter: sectionMeter(read.song, section),
      chords: read.get(chordsAt, sectionPlace(id)),
      leaning,
    });
  },
};

/** Whether two voices are one in two sounds. */
export const doublesAt: Fact<Of, boolean> = {
  id: "doubles",
  of(read, ...at) {
    const [id, part, place, other, otherPlace] = at;
    const section = sectionOf(read.song, id);
    return (
      section !== undefined &&
      doubles(notesOf(read, id, part, place), notesOf(read, id, other, otherPlace), {
        meter: sectionMeter(read.song, section),
      })
    );
  },
  keep: sharing,
};
