import { firstOf } from "../../../base/list";
import { mod } from "../../../theory/pitch/pitch";
import { bassPc } from "../../../theory/chord/chord";
import { byWorth, closePositions, lossOf, pcOf, voiced } from "../stack";
import type { VoicingStyle } from "../style";

export const spread: VoicingStyle = {
  id: "spread",
  title: "Spread with octave bass",
  explanation:
    "The left hand plays the bass note in octaves, the right hand three tones close together: full, for a " +
    "piano alone or a big chorus.",
  source: "common practice",
  fixed: true,
  candidates(chord, limits) {
    const bass = bassPc(chord);
    const upper = byWorth(chord, true)
      .filter((t) => pcOf(chord, t) !== bass)
      .slice(0, 3);
    const pcs = upper.length < 3 ? [...upper.map((t) => pcOf(chord, t)), bass] : upper.map((t) => pcOf(chord, t));
    // The lower octave may lie under the window: it is the bass.
    const layouts = closePositions(pcs, { low: limits.low + 5, high: limits.high }).flatMap((right) => {
      const left = firstOf(right) - 3 - mod(firstOf(right) - 3 - bass, 12);
      return [[left - 12, left, ...right]];
    });
    const used = [...upper, ...chord.tones.filter((t) => pcOf(chord, t) === bass)];
    return voiced(
      chord,
      layouts.filter((l) => firstOf(l) >= 24),
      { ...limits, low: limits.low - 24 },
      { missing: lossOf(chord, used, false), doubling: 0.3 },
    );
  },
};
