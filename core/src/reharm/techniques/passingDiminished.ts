import { mod } from "../../pitch/pitch";
import { bassPc } from "../../chord/chord";
import type { Technique } from "../technique";
import { before, symbolAt } from "../tools";

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
    const symbol = symbolAt(bassPc(chord) + (move === 2 ? 1 : 11), "dim7", key, move === 10);
    return before(spot, symbol, move === 2 ? "up" : "down", {
      new: symbol,
      from: chord.bass ?? chord.root,
      to: spot.next.chord.bass ?? spot.next.chord.root,
    });
  },
};
