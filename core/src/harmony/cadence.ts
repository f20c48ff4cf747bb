import { mod, typeset } from "../pitch/pitch";
import type { Meter } from "../time/meter";
import { bassPc, rootPc, type Chord } from "../chord/chord";
import { isMinorish, romanOf } from "../chord/numerals";
import { above, isDominant, isMinor, isTonic, shares, type Heard, type Progression } from "./context";
import { smallestMotion } from "./distance";

export type CadenceKind = "perfect" | "imperfect" | "half" | "deceptive" | "plagal" | "minor plagal" | "backdoor" | "phrygian half";

export interface Cadence {
  kind: CadenceKind;
  /** Ids of the chord it leaves from and the one it ends on. */
  from: string;
  to: string;
  text: string;
}

const symbol = (c: Chord): string => typeset(c.root + c.quality + (c.bass ? `/${c.bass}` : ""));

/** The cadence two neighboring chords make in the key of the second, if any. A half or plagal cadence needs the end of a phrase. */
function between(a: Heard, b: Heard, endsPhrase: boolean): Cadence | null {
  const key = b.key;
  const make = (kind: CadenceKind, words: string): Cadence => ({
    kind,
    from: a.event.id,
    to: b.event.id,
    text: `${symbol(a.chord)} – ${symbol(b.chord)}: ${words}`,
  });
  const onFive = above(a.chord, key) === 7 && isDominant(a.chord, true) && !isMinor(a.chord);
  if (onFive && isTonic(b.chord, key)) {
    const rootPosition = bassPc(a.chord) === rootPc(a.chord) && bassPc(b.chord) === rootPc(b.chord);
    return rootPosition
      ? make("perfect", "authentic cadence, both in root position")
      : make("imperfect", "authentic cadence over an inversion");
  }
  if (onFive && above(b.chord, key) === (isMinorish(key) ? 8 : 9))
    return make("deceptive", "deceptive: the dominant goes to the sixth degree instead of home");
  if (above(a.chord, key) === 10 && isDominant(a.chord) && isTonic(b.chord, key) && !isMinorish(key))
    return make("backdoor", "home through the back door, from bVII7".replace("bVII7", "♭VII7"));
  if (!endsPhrase) return null;
  if (above(a.chord, key) === 5 && isTonic(b.chord, key))
    return isMinor(a.chord) && !isMinorish(key)
      ? make("minor plagal", "plagal cadence with the minor iv")
      : make("plagal", "plagal cadence");
  if (above(b.chord, key) === 7 && isDominant(b.chord, true) && !isMinor(b.chord)) {
    const phrygian = isMinorish(key) && mod(bassPc(a.chord) - bassPc(b.chord), 12) === 1;
    return make(
      phrygian ? "phrygian half" : "half",
      phrygian ? "half cadence with the bass falling a semitone" : "half cadence: the phrase stays open on the dominant",
    );
  }
  return null;
}

/** All cadences of a progression; phrases are taken to be four bars long, and the progression's end ends one. */
export function findCadences(p: Progression, meter: Meter | null): Cadence[] {
  const found: Cadence[] = [];
  p.chords.forEach((b, i) => {
    // A suspension and its resolution are one dominant.
    let at = i - 1;
    while (at > 0 && rootPc(p.chords[at]!.chord) === rootPc(b.chord)) at--;
    const a = p.chords[at];
    if (!a) return;
    const end = b.event.start + b.event.duration;
    const endsPhrase = i === p.chords.length - 1 || (meter !== null && end % (4 * meter.bar) === 0);
    const cadence = between(a, b, endsPhrase);
    // Another color of the chord that has arrived is not a second arrival.
    const goesOn = at < i - 1 && cadence?.kind !== "half" && cadence?.kind !== "phrygian half";
    if (cadence && !goesOn) found.push(cadence);
  });
  return found;
}

export interface LoopJoin {
  text: string;
  cadence: CadenceKind | null;
  common: number;
  motion: number;
}

/** How the last chord leads back into the first. */
export function loopJoin(p: Progression): LoopJoin | null {
  const last = p.chords.at(-1);
  const first = p.chords[0];
  if (!last || !first || p.chords.length < 2) return null;
  const cadence = between(last, first, false);
  const common = shares(last.chord, first.chord).length;
  const motion = smallestMotion(last.chord, first.chord);
  const same = rootPc(last.chord) === rootPc(first.chord);
  const how = cadence
    ? cadence.text.slice(cadence.text.indexOf(": ") + 2)
    : same
      ? "the same root again: vary the last bar if the loop should lead back"
      : `${romanOf(last.chord, last.key)} to ${romanOf(first.chord, first.key)}`;
  return {
    text: `${symbol(last.chord)} back to ${symbol(first.chord)}: ${how}; ${common} common tone${common === 1 ? "" : "s"}, ${motion} semitone${motion === 1 ? "" : "s"} of motion.`,
    cadence: cadence?.kind ?? null,
    common,
    motion,
  };
}
