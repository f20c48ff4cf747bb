import type { Key } from "../../theory/pitch/key";
import type { Chord } from "../../theory/chord/chord";
import { belongs, isDominant, rootMove } from "../../hear/harmony/context";
import { rootProgression, stepOf } from "../../hear/harmony/roots";
import { shared } from "./tools";

const USUAL = { usual: 0, sometimes: 0.2, seldom: 0.45, unlisted: 0.6 } as const;

/**
 * How little one chord prepares the next, from 0 (a dominant that arrives) to about 1 (two chords with nothing in
 * common). Within the key after Piston's table; outside it by what ties chords together there: falling fifths,
 * semitones under a dominant, thirds with notes in common (common practice).
 */
export function linkCost(a: Chord, b: Chord, key: Key): number {
  const move = rootMove(a, b);
  if (move === 0) return 0.5;
  if (isDominant(a, true) && (move === 5 || (move === 11 && isDominant(a)))) return 0;
  const [x, y] = [stepOf(a, key), stepOf(b, key)];
  if (belongs(a, key) && belongs(b, key) && x !== null && y !== null) return USUAL[rootProgression(x, y)];
  return outsideCost(move, shared(a, b));
}

/** What ties two chords outside the key: the move of the roots, in semitones up, and the notes in common. */
function outsideCost(move: number, common: number): number {
  switch (move) {
    case 5:
      return 0.1;
    case 7:
      return 0.35;
    case 6:
      return 1;
    case 1:
    case 11:
      return common > 1 ? 0.3 : 0.5;
    case 3:
    case 4:
    case 8:
    case 9:
      return common ? 0.3 : 0.7;
    default:
      return 0.5;
  }
}
