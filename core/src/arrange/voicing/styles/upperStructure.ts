import { nth } from "../../../base/list";
import { mod } from "../../../theory/pitch/pitch";
import { chordSymbol, toneName } from "../../../theory/chord/chord";
import { closePositions, lossOf, pcOf, places, toneAt, voiced } from "../stack";
import type { VoicingStyle } from "../style";

export const upperStructure: VoicingStyle = {
  id: "upper-structure",
  title: "Triad over shell",
  explanation:
    "Third and seventh below, and above them a plain major or minor triad made of the chord's upper tones: two " +
    "clear sounds that make one rich chord.",
  source: "Levine, The Jazz Piano Book",
  fixed: true,
  candidates(chord, limits) {
    const third = toneAt(chord, 3, 4);
    const seventh = toneAt(chord, 7, 6);
    if (!third || !seventh || chord.tones.length < 5) return [];
    const pcs = chord.tones.map((t) => pcOf(chord, t));
    const triads = chord.tones.flatMap((own) =>
      (["major", "minor"] as const)
        .map((kind) => ({ kind, own, pcs: [0, kind === "major" ? 4 : 3, 7].map((s) => mod(pcOf(chord, own) + s, 12)) }))
        .filter((triad) => triad.pcs.every((pc) => pcs.includes(pc))),
    );
    const [a, b] = [pcOf(chord, third), pcOf(chord, seventh)];
    // A triad that brings no color is only the chord again.
    const colorful = triads.filter((t) => chord.tones.some((x) => x.degree > 7 && t.pcs.includes(pcOf(chord, x))));
    return colorful.flatMap((triad) => {
      const shells = [
        [a, b],
        [b, a],
      ].flatMap((s) => places(s, { low: limits.low - 4, high: limits.low + 16 }));
      const layouts = shells.flatMap((left) =>
        closePositions(triad.pcs, { low: nth(left, 1) + 1, high: Math.min(limits.high + 4, nth(left, 1) + 20) }).map(
          (right) => [...left, ...right],
        ),
      );
      const used = chord.tones.filter((t) => [a, b, ...triad.pcs].includes(pcOf(chord, t)));
      const says = `${toneName(chord, triad.own)} ${triad.kind} over the shell of ${chordSymbol(chord)}`;
      return voiced(
        chord,
        layouts,
        { ...limits, low: limits.low - 4, high: limits.high + 4 },
        { missing: lossOf(chord, used, limits.bassCovered) },
      ).map((v) => ({ ...v, says }));
    });
  },
};
