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
  const dominant = isDominant(a, true);
  if (move === 0) return 0.5;
  if (dominant && (move === 5 || (move === 11 && isDominant(a)))) return 0;
  const [x, y] = [stepOf(a, key), stepOf(b, key)];
  if (belongs(a, key) && belongs(b, key) && x !== null && y !== null) return USUAL[rootProgression(x, y)];
  const common = shared(a, b);
  if (move === 5) return 0.1;
  if (move === 11 || move === 1) return common > 1 ? 0.3 : 0.5;
  if ([3, 4, 8, 9].includes(move)) return common ? 0.3 : 0.7;
  if (move === 7) return 0.35;
  return move === 6 ? 1 : 0.5;
}
