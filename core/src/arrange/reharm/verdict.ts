import { firstOf, lastOf } from "../../base/list";
import { counted } from "../../theory/words/english";
import { keyName } from "../../theory/pitch/key";
import { rootPc } from "../../theory/chord/chord";
import { sectionKey } from "../../song/document";
import type { Song } from "../../song/schema";
import { smallestMotion } from "../../hear/harmony/distance";
import { fitOf, outsideOf } from "./fit";
import { materialOf } from "./ground";

export interface Verdict {
  /** Nothing needs doing. */
  enough: boolean;
  text: string;
}

/**
 * Whether a progression works as it is, in one or two sentences: it is in one key, closes or loops, and the tune fits
 * (common practice).
 */
export function judgeProgression(song: Song, sectionId: string): Verdict {
  const read = materialOf(song, sectionId);
  if (!read.ok || read.value.slots.length < 2) return { enough: false, text: "There is too little here to judge." };
  const { slots, lines, section, after, into } = read.value;
  const home = sectionKey(song, section);
  const roots = new Set(slots.map((s) => rootPc(s.chord))).size;
  const clashes = slots.flatMap(
    (s) =>
      fitOf(s.chord, s.key, { from: s.event.start, to: s.event.start + s.event.duration, notes: lines.melody, lines })
        .clashes,
  );
  const diatonic = slots.filter((s) => outsideOf(s.chord, home) === 0).length;
  const last = lastOf(slots);
  const join = smallestMotion(last.chord, (after ?? firstOf(slots)).chord);
  const fit = () => {
    if (lines.melody.length) {
      if (clashes.length)
        return `${clashes.length} ${clashes.length === 1 ? "note of the tune clashes" : "notes of the tune clash"}`;
      return "the tune fits throughout";
    }
    return "no tune to fit yet";
  };
  const parts = [
    `${counted(roots, "root")} in ${counted(slots.length, "chord")}`,
    `${diatonic} of them in ${keyName(home)}`,
    fit(),
    `${counted(join, "semitone")} ${after ? `on to ${into}` : "back to the beginning"}`,
  ];
  const enough = !clashes.length && roots >= 2 && join <= 8 && diatonic >= slots.length / 2;
  const judgement = () => {
    if (enough) return "It needs nothing";
    if (clashes.length) return "The tune asks for a change";
    return "It could do with some care";
  };
  return {
    enough,
    text: `${judgement()}: ${parts.join(", ")}.`,
  };
}
