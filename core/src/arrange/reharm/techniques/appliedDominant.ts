import { sure } from "../../../base/list";
import { mod } from "../../../theory/pitch/pitch";
import { rootPc, type Chord } from "../../../theory/chord/chord";
import { memberOf } from "../../../theory/chord/numerals";
import type { Technique } from "../technique";
import { before, dominantInto, dominantRoot, has, read, replacement, sizeOf } from "../tools";

export const appliedDominant: Technique = {
  id: "applied-dominant",
  title: "Applied dominant",
  explanation:
    "The dominant of the chord to come, put in front of it or in the whole place before it: its third leads up " +
    "into the next root, its seventh falls into the next third.",
  source: "any harmony textbook",
  adventure: 0.4,
  aim: "more",
  words: {
    leads: "{new} is the dominant of {next}: {third} leads up to {root}",
    whole: "{new} takes the whole place of {old} as the dominant of {next}: {third} leads up to {root}",
    turns: "{seventh} turns {old} into the dominant of {next}: it falls to {goal}",
  },
  propose(spot) {
    const { chord, event } = spot.here;
    const next = spot.next?.chord;
    if (!next || has(next, "b5") || rootPc(next) === rootPc(chord)) return [];
    const name = sure(spot.next).event.symbol;
    if (mod(rootPc(chord) - rootPc(next), 12) === 7) {
      // The chord is a fifth above already: I before IV wants nothing but its seventh.
      if (!has(chord, "3") || has(chord, "b7") || has(chord, "#5")) return [];
      const symbol = `${chord.root}7`;
      const params = {
        new: symbol,
        old: event.symbol,
        next: name,
        seventh: sure(memberOf(read(symbol), 7)).name,
        goal: thirdOf(next),
      };
      return replacement(spot, symbol, "turns", { params, more: { needsNext: true } });
    }
    const root = dominantRoot(next, spot.here.key);
    const params = (symbol: string) => ({
      new: symbol,
      old: event.symbol,
      next: name,
      third: sure(memberOf(read(symbol), 3)).name,
      root: next.root,
    });
    const whole = sizeOf(chord) === 4 ? [`${root}7`] : [root, `${root}7`];
    return [
      ...["7", dominantInto(next)].flatMap((quality) => before(spot, root + quality, "leads", params(root + quality))),
      ...whole.flatMap((symbol) =>
        replacement(spot, symbol, "whole", { params: params(symbol), more: { needsNext: true } }),
      ),
    ];
  },
};

const thirdOf = (chord: Chord): string => sure(memberOf(chord, 3) ?? memberOf(chord, 1)).name;
