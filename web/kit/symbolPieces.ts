import { nth, Pitch } from "../../core/src/index";

/** A chord symbol in the pieces it is printed in: root and minor sign large, quality raised, bass after a slash. */
export function symbolPieces(symbol: string): { root: string; raised: string; slash: string } {
  const match = /^([A-G](?:bb|b|##|x|#)?)(.*)$/.exec(symbol);
  if (!match) return { root: symbol, raised: "", slash: "" };
  const slash = /\/([A-G][b#x]*)$/.exec(nth(match, 2));
  const quality = slash ? nth(match, 2).slice(0, -slash[0].length) : nth(match, 2);
  const minor = /^m(?!aj)/.exec(quality) ? "m" : "";
  return {
    root: Pitch.typeset(nth(match, 1)) + minor,
    raised: Pitch.typeset(quality.slice(minor.length)),
    slash: slash ? `/${Pitch.typeset(nth(slash, 1))}` : "",
  };
}
