import { sure } from "../../../base/list";
import { mod, pitchClass } from "../../../theory/pitch/pitch";
import { bassPc, toneName } from "../../../theory/chord/chord";
import type { Technique } from "../technique";
import { replacement, slashed } from "../tools";

const distance = (a: number, b: number) => Math.min(mod(a - b, 12), mod(b - a, 12));

export const inversion: Technique = {
  id: "inversion",
  title: "Inversion for a stepwise bass",
  explanation:
    "The same chord with its third, fifth or seventh in the bass, so that the bass walks by step from the " +
    "chord before to the one after.",
  source: "any harmony textbook",
  adventure: 0.1,
  aim: "more",
  words: { step: "With {bass} in the bass the line walks {from} – {bass} – {to}" },
  propose(spot) {
    const { chord } = spot.here;
    if (!spot.prev || !spot.next) return [];
    const [from, to] = [bassPc(spot.prev.chord), bassPc(spot.next.chord)];
    return chord.tones
      .filter((t) => [1, 3, 5, 7].includes(t.degree))
      .flatMap((t) => {
        const bass = toneName(chord, t);
        const pc = pitchClass(bass);
        const [a, b] = [distance(from, pc), distance(pc, to)];
        if (pc === bassPc(chord) || !a || !b || a > 2 || b > 2) return [];
        return replacement(spot, slashed(chord, bass), "step", {
          params: {
            bass,
            from: sure(spot.prev).chord.bass ?? sure(spot.prev).chord.root,
            to: sure(spot.next).chord.bass ?? sure(spot.next).chord.root,
          },
        });
      });
  },
};
