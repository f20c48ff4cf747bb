import type { Singer, Song } from "../../song/schema";
import type { Reader } from "../../facts/memory";
import { singerRange } from "./range";
import { sungBy } from "./sung";
import { zoneOf } from "./fit";

/**
 * Share of the time above the comfortable range, and seconds on end there, from which a word of caution is due (common
 * practice).
 */
const DWELLS = 0.15;
const ON_END = 8;
/** Struck as loud as this, a note is shouted rather than sung. */
const LOUD = 112;

/** A short word of caution where a part dwells high or loud for its singer; null where it does not. */
export function cautionFor(read: Reader, singer: Singer): string | null {
  const notes = sungBy(read, singer);
  const range = singerRange(read.song as Song, singer);
  const all = notes.reduce((sum, n) => sum + n.seconds, 0);
  if (!all) return null;
  let [high, loud, row, longest] = [0, 0, 0, 0];
  for (const n of notes) {
    const zone = zoneOf(range, n.midi);
    const up = zone === "high" || zone === "above";
    high += up ? n.seconds : 0;
    row = up ? row + n.seconds : 0;
    longest = Math.max(longest, row);
    loud += up && n.velocity >= LOUD ? n.seconds : 0;
  }
  const beyond = notes.some((n) => zoneOf(range, n.midi) === "above");
  let why: string | null;
  if (beyond) why = "the part goes beyond the top of the voice";
  else if (high / all > DWELLS)
    why = `${Math.round((high / all) * 100)} % of the part lies above the comfortable range`;
  else if (longest > ON_END) why = `the part stays high for ${Math.round(longest)} seconds on end`;
  else if (loud > 2) why = "the part is high and loud";
  else why = null;
  return (
    why &&
    `${singer.name}: ${why}. Singing high or loud for long tires a voice and can hurt it: warm up, take ` +
      "breaks, try another key; with pain or hoarseness stop and ask a voice professional."
  );
}
