import { firstOf, lastOf, nth } from "../../base/list";
import type { Key } from "../../theory/pitch/key";
import { mod } from "../../theory/pitch/pitch";
import { rootPc, type Chord } from "../../theory/chord/chord";
import { isDiatonic } from "../../theory/chord/numerals";
import { belongs, isDominant, isTonic } from "./context";
import { tonicOf } from "./distance";
import { nameKey } from "./keys";

/** A stretch heard in another key: indices of its first chord and the one after its last. */
export interface Region {
  from: number;
  to: number;
  key: Key;
}

/**
 * Finds stretches of a progression that are in another key (common practice): a run of chords that all belong to it,
 * with its dominant going to its tonic. Where that tonic is foreign to the home key, a ii–V–I is enough; where it is
 * one of the home key's own chords, the music has to stay there after arriving, otherwise it is only leaned on. The
 * relative major or minor, which has no foreign notes, counts where the music stays away from home for four chords and
 * comes to its tonic twice. A stretch begins with the pivot that both keys share and is held until the music leaves it.
 */
export function findRegions(chords: readonly Chord[], home: Key): Region[] {
  const foreign = chords.map((c) => !belongs(c, home));
  const sharps =
    chords.reduce(
      (sum, c) => {
        const signOf = () => {
          if (c.root.includes("#")) return 1;
          if (c.root.includes("b")) return -1;
          return 0;
        };
        return sum + signOf();
      },
      home.signature > 0 ? 0.5 : -0.5,
    ) > 0;
  const found: (Region & { weight: number })[] = relativeStays(chords, home, sharps);
  if (foreign.filter(Boolean).length < 2 && !found.length) return [];
  for (const mode of ["major", "minor"] as const)
    for (let pc = 0; pc < 12; pc++) {
      const key = nameKey(pc, mode, sharps);
      if (key.pcs.every((x) => home.pcs.includes(x)) && mode === home.mode) continue;
      let from = 0;
      while (from < chords.length) {
        if (!belongs(nth(chords, from), key)) {
          from++;
          continue;
        }
        let to = from;
        while (to < chords.length && belongs(nth(chords, to), key)) to++;
        const region = trim(chords, foreign, { from, to, key, home });
        if (region) found.push(region);
        from = to;
      }
    }
  found.sort((a, b) => b.weight - a.weight || b.to - b.from - (a.to - a.from));
  const taken: Region[] = [];
  for (const { from, to, key } of found)
    if (taken.every((t) => to <= t.from || from >= t.to)) taken.push({ from, to, key });
  return taken.sort((a, b) => a.from - b.from);
}

/** The part of a run that really is in the other key, or null when nothing confirms it. */
function trim(
  chords: readonly Chord[],
  foreign: readonly boolean[],
  { from, to, key, home }: { from: number; to: number; key: Key; home: Key },
): (Region & { weight: number }) | null {
  const arrives = (i: number) =>
    isTonic(nth(chords, i), key) &&
    rootPc(nth(chords, i - 1)) === mod(firstOf(key.pcs) + 7, 12) &&
    isDominant(nth(chords, i - 1), foreign[i - 1]);
  const arrivals = chords.flatMap((_, i) => (i > from && i < to && arrives(i) ? [i] : []));
  if (!arrivals.length) return null;
  const outside = foreign.flatMap((f, i) => (f && i >= from && i < to ? [i] : []));
  if (outside.length < 2) return null;
  const tonicIsHome = isDiatonic(tonicOf(key), home);
  const last = Math.max(lastOf(arrivals), lastOf(outside));
  // A tonic that belongs to the home key must be stayed in: it is reached again, with chords from outside in between.
  if (tonicIsHome && !(arrivals.length > 1 && outside.some((i) => i > firstOf(arrivals) && i < lastOf(arrivals))))
    return null;
  const dominant = firstOf(arrivals) - 1;
  let first = Math.min(dominant, firstOf(outside));
  if (first > from && first === dominant) {
    const before = nth(chords, first - 1);
    // What prepares the dominant belongs to it, ii or IV of the other key; so does its own tonic, which both share.
    if ([2, 5].includes(mod(rootPc(before) - firstOf(key.pcs), 12)) || isTonic(before, key)) first--;
  }
  if (last + 1 - first < 3) return null;
  // At the end of the progression nothing leaves it but a return home.
  let end = last + 1;
  if (to === chords.length) while (end < to && !isAtHome(nth(chords, end), home)) end++;
  return { from: first, to: end, key, weight: outside.filter((i) => i >= first && i <= last).length };
}

/** The tonic of a key or its dominant. */
const isAtHome = (c: Chord, home: Key): boolean =>
  isTonic(c, home) || (rootPc(c) === mod(firstOf(home.pcs) + 7, 12) && isDominant(c, true) && belongs(c, home));

/**
 * Stays in the relative major or minor: a run without the home key's tonic and dominant that comes to the other tonic
 * twice, once from its dominant.
 */
function relativeStays(chords: readonly Chord[], home: Key, sharps: boolean): (Region & { weight: number })[] {
  if (home.mode !== "major" && home.mode !== "minor") return [];
  const key =
    home.mode === "major" ? nameKey(nth(home.pcs, 5), "minor", sharps) : nameKey(nth(home.pcs, 2), "major", sharps);
  const stays: (Region & { weight: number })[] = [];
  for (let from = 0; from < chords.length; from++) {
    if (isAtHome(nth(chords, from), home) || !belongs(nth(chords, from), key)) continue;
    let to = from;
    while (to < chords.length && !isAtHome(nth(chords, to), home) && belongs(nth(chords, to), key)) to++;
    const tonics = chords.flatMap((c, i) =>
      i >= from && i < to && isTonic(c, key) && (i === from || rootPc(nth(chords, i - 1)) !== rootPc(c)) ? [i] : [],
    );
    const arrives = tonics.some(
      (i) =>
        i > from &&
        rootPc(nth(chords, i - 1)) === mod(firstOf(key.pcs) + 7, 12) &&
        isDominant(nth(chords, i - 1), home.mode === "major"),
    );
    const last = to === chords.length ? to : (tonics.at(-1) ?? 0) + 1;
    if (tonics.length > 1 && arrives && last - from >= 4)
      stays.push({ from, to: last, key, weight: (last - from) / 4 });
    from = to;
  }
  return stays;
}
