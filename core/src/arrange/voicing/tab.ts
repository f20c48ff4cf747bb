import { firstOf, nth } from "../../base/list";
import type { Midi } from "../../theory/pitch/pitch";
import { holdShape, SHAPE_LIMITS, type Neck } from "../../theory/instrument/fretboard";
import { cheapestPath } from "../../search/lattice";

/** A string (as drawn, lowest first, from 0) and a fret counted from the capo. */
export interface TabPlace {
  string: number;
  fret: number;
}

interface Hold {
  places: TabPlace[];
  /** Where the hand is; null when only open strings sound. */
  position: number | null;
  cost: number;
}

/** Ways looked at for one chord. */
const MOST = 60;

/** Notes where a shape that somebody wrote has them: no other way is looked for. */
function heldThere(neck: Neck, pitches: readonly Midi[], strings: readonly number[]): Hold[] {
  const places = pitches.map((midi, i) => ({
    string: nth(strings, i),
    fret: midi - nth(neck.strings, nth(strings, i)) - neck.capo,
  }));
  const frets = neck.strings.map((_, s) => places.find((p) => p.string === s)?.fret ?? null);
  if (frets.some((f) => f !== null && f < 0)) return [];
  return [{ places, position: holdShape(neck, frets)?.position ?? null, cost: 0 }];
}

/** All ways to place notes on strings of their own; at most the easiest sixty. */
function holds(neck: Neck, pitches: readonly Midi[]): Hold[] {
  const strings = neck.strings.map((m) => m + neck.capo);
  const highest = neck.frets - neck.capo;
  const out: Hold[] = [];
  const taken: (number | null)[] = strings.map(() => null);
  const place = (i: number, places: TabPlace[]): void => {
    if (i === pitches.length) {
      const held = holdShape(neck, taken);
      // A line needs no more than that the hand reaches; chords must also fit under four fingers.
      if (!held || held.reach > SHAPE_LIMITS.reach * 1.2 || (pitches.length > 1 && held.fingers > SHAPE_LIMITS.fingers))
        return;
      out.push({
        places,
        position: held.position || null,
        cost: held.strain + (held.position > 12 ? (held.position - 12) * 0.3 : 0),
      });
      return;
    }
    strings.forEach((open, string) => {
      const fret = nth(pitches, i) - open;
      if (taken[string] !== null || fret < 0 || fret > highest) return;
      taken[string] = fret;
      place(i + 1, [...places, { string, fret }]);
      taken[string] = null;
    });
  };
  place(0, []);
  return out.sort((a, b) => a.cost - b.cost).slice(0, MOST);
}

/**
 * Strings and frets for a line or a row of chords: the hand moves as little as it can (exactly, by the lattice). Where
 * strings are known, note by note, they are those. Null where notes cannot be played at once or lie off the neck.
 */
export function tabOf(
  neck: Neck,
  moments: readonly (readonly Midi[])[],
  known: readonly (readonly number[] | null)[] = [],
): (TabPlace[] | null)[] {
  const columns = moments.map((pitches, i) => {
    const strings = known[i];
    const held = strings ? heldThere(neck, pitches, strings) : [];
    return held.length ? held : holds(neck, pitches);
  });
  const playable = columns.map((c, i) => ({ c, i })).filter(({ c }) => c.length);
  const path = cheapestPath({
    sizes: playable.map(({ c }) => c.length),
    node: (c, i) => nth(nth(playable, c).c, i).cost,
    step: (c, i, j) => {
      const [a, b] = [nth(nth(playable, c).c, i), nth(nth(playable, c + 1).c, j)];
      // Within four frets the hand stays where it is.
      const move = a.position === null || b.position === null ? 0 : Math.abs(a.position - b.position);
      const cross = Math.abs(firstOf(a.places).string - firstOf(b.places).string);
      return Math.max(0, move - 3) * 0.6 + move * 0.1 + Math.max(0, cross - 1) * 0.15;
    },
  });
  const out: (TabPlace[] | null)[] = moments.map(() => null);
  playable.forEach(({ c, i }, k) => (out[i] = path ? nth(c, nth(path.picks, k)).places : null));
  return out;
}
