import { mod } from "../../../theory/pitch/pitch";
import { bassPc } from "../../../theory/chord/chord";
import type { Technique } from "../technique";
import { before, rootFrom } from "../tools";

export const passingDiminished: Technique = {
  id: "passing-diminished",
  title: "Passing diminished",
  explanation: "Between two chords a tone apart a diminished seventh fills the step in the bass.",
  source: "any harmony textbook",
  adventure: 0.42,
  aim: "more",
  words: { up: "{new} fills the step from {from} up to {to}", down: "{new} fills the step from {from} down to {to}" },
  propose(spot) {
    const { chord, key } = spot.here;
    if (!spot.next) return [];
    const move = mod(bassPc(spot.next.chord) - bassPc(chord), 12);
    if (move !== 2 && move !== 10) return [];
    const to = spot.next.chord.bass ?? spot.next.chord.root;
    const symbol = `${rootFrom(to, move === 2 ? 6 : 1, move === 2 ? 11 : 1, key)}dim7`;
    return before(spot, symbol, move === 2 ? "up" : "down", {
      new: symbol,
      from: chord.bass ?? chord.root,
      to,
    });
  },
};
