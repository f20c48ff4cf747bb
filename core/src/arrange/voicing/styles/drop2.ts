import { nth } from "../../../base/list";
import type { Chord } from "../../../theory/chord/chord";
import type { Midi } from "../../../theory/pitch/pitch";
import { chosenTones, closePositions, lossOf, pcOf, places, voiced } from "../stack";
import type { RawVoicing, VoicingLimits, VoicingStyle } from "../style";

/** Four-note close positions; a triad doubles the note at its bottom on top. */
function fourNotes(chord: Chord, limits: VoicingLimits): { layouts: Midi[][]; missing: number; doubling: number } {
  const tones = chosenTones(chord, 4, limits.bassCovered);
  const pcs = tones.map((t) => pcOf(chord, t));
  const wide = { low: limits.low, high: limits.high + 12 };
  if (pcs.length >= 4)
    return { layouts: closePositions(pcs, wide), missing: lossOf(chord, tones, limits.bassCovered), doubling: 0 };
  const ring = [...pcs].sort((a, b) => a - b);
  const layouts = ring.flatMap((_, i) => places([...ring.slice(i), ...ring.slice(0, i), nth(ring, i)], wide));
  return { layouts, missing: 0, doubling: 0.3 };
}

/** Drops the given voices of a close position, counted from the top, by an octave. */
export function dropping(...voices: number[]): (chord: Chord, limits: VoicingLimits) => RawVoicing[] {
  return (chord, limits) => {
    const { layouts, missing, doubling } = fourNotes(chord, limits);
    return voiced(
      chord,
      layouts.map((stack) => stack.map((m, i) => (voices.includes(stack.length - i) ? m - 12 : m))),
      limits,
      { missing, doubling },
    );
  };
}

export const drop2: VoicingStyle = {
  id: "drop2",
  title: "Drop 2",
  explanation:
    "A close position with its second note from the top an octave lower: the usual spread for two hands, " +
    "guitars and sections.",
  source: "any jazz arranging handbook",
  fixed: true,
  candidates: dropping(2),
};
