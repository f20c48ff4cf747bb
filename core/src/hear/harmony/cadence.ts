import { firstOf, lastOf } from "../../base/list";
import { mod, typeset } from "../../theory/pitch/pitch";
import type { Meter } from "../../theory/time/meter";
import { bassPc, rootPc, type Chord } from "../../theory/chord/chord";
import { isMinorish, romanOf } from "../../theory/chord/numerals";
import { above, isDominant, isMajor, isMinor, isTonic, shares, type Heard, type Progression } from "./context";
import { smallestMotion } from "./distance";

export type CadenceKind =
  | "perfect"
  | "imperfect"
  | "half"
  | "deceptive"
  | "plagal"
  | "minor plagal"
  | "substitute"
  | "backdoor"
  | "modal"
  | "phrygian half";

export interface Cadence {
  kind: CadenceKind;
  /** Ids of the chord it leaves from and the one it ends on. */
  from: string;
  to: string;
  text: string;
}

const symbol = (c: Chord): string => typeset(c.root + c.quality + (c.bass ? `/${c.bass}` : ""));

/**
 * The cadence two neighboring chords make in the key of the second, if any. A half or plagal cadence needs the end of a
 * phrase.
 */
function between(a: Heard, b: Heard, endsPhrase: boolean): Cadence | null {
  const key = b.key;
  const make = (kind: CadenceKind, words: string): Cadence => ({
    kind,
    from: a.event.id,
    to: b.event.id,
    text: `${symbol(a.chord)} – ${symbol(b.chord)}: ${words}`,
  });
  const from = above(a.chord, key);
  const onFive = from === 7 && isDominant(a.chord, true) && !isMinor(a.chord);
  const picardy = isMinorish(key) && rootPc(b.chord) === key.pcs[0] && isMajor(b.chord) && !isDominant(b.chord);
  // The seventh on I is a color in the blues, and a Picardy third is home as well.
  const home =
    isTonic(b.chord, key) ||
    picardy ||
    (!isMinorish(key) && rootPc(b.chord) === key.pcs[0] && isDominant(b.chord) && isMajor(b.chord));
  const third = picardy ? ", with a Picardy third" : "";
  if (onFive && home) {
    const rootPosition = bassPc(a.chord) === rootPc(a.chord) && bassPc(b.chord) === rootPc(b.chord);
    return rootPosition
      ? make("perfect", `authentic cadence, both in root position${third}`)
      : make("imperfect", `authentic cadence over an inversion${third}`);
  }
  const to = above(b.chord, key);
  if (onFive && (to === (isMinorish(key) ? 8 : 9) || (to === 8 && isMajor(b.chord))))
    return make(
      "deceptive",
      `deceptive: the dominant goes to the ${to === 8 && !isMinorish(key) ? "lowered sixth" : "sixth"} degree ` +
        "instead of home",
    );
  if (from === 1 && isDominant(a.chord) && isMajor(a.chord) && home)
    return make("substitute", "home from the tritone substitute, the bass falling a semitone");
  if (from === 10 && isDominant(a.chord) && home && !isMinorish(key) && !key.pcs.includes(rootPc(a.chord)))
    return make("backdoor", "home through the back door, from ♭VII7");
  if (!endsPhrase) return null;
  if (from === 10 && home && isMajor(a.chord))
    return make("modal", `modal cadence: up a tone from below, without a leading tone${third}`);
  if (from === 5 && home)
    return isMinor(a.chord) && !isMinorish(key)
      ? make("minor plagal", "plagal cadence with the minor iv")
      : make("plagal", `plagal cadence${third}`);
  if (to === 7 && isDominant(b.chord, true) && !isMinor(b.chord)) {
    const phrygian = isMinorish(key) && mod(bassPc(a.chord) - bassPc(b.chord), 12) === 1;
    return make(
      phrygian ? "phrygian half" : "half",
      phrygian
        ? "half cadence with the bass falling a semitone"
        : "half cadence: the phrase stays open on the dominant",
    );
  }
  return null;
}

/** All cadences of a progression; phrases are taken to be four bars long, and the progression's end ends one. */
export function findCadences(p: Progression, meter: Meter | null): Cadence[] {
  // Repeats, suspensions and other colors of a chord are one harmony: it arrives with its first chord and ends with its
  // last.
  const runs: Heard[][] = [];
  for (const heard of p.chords) {
    const run = runs.at(-1);
    if (run && rootPc(firstOf(run).chord) === rootPc(heard.chord)) run.push(heard);
    else runs.push([heard]);
  }
  return runs.flatMap((run, r): Cadence[] => {
    const before = runs[r - 1];
    if (!before) return [];
    const endsPhrase =
      r === runs.length - 1 ||
      (meter !== null && run.some(({ event }) => (event.start + event.duration) % (4 * meter.bar) === 0));
    const from = before.findLast((h) => isDominant(h.chord, true)) ?? lastOf(before);
    const arrived = run
      .map((b) => between(from, b, endsPhrase))
      .find((c) => c !== null && c.kind !== "half" && c.kind !== "phrygian half");
    const open = arrived ? null : between(lastOf(before), lastOf(run), endsPhrase);
    return [arrived ?? open].filter((c) => c !== null && c !== undefined);
  });
}

export interface LoopJoin {
  text: string;
  cadence: CadenceKind | null;
  common: number;
  motion: number;
}

/** How the last chord leads back into the first, or on into what follows. */
export function loopJoin(p: Progression, on?: { to: Heard; into: string }): LoopJoin | null {
  const last = p.chords.at(-1);
  const first = on?.to ?? p.chords[0];
  if (!last || !first || (!on && p.chords.length < 2)) return null;
  const cadence = between(last, first, false);
  const common = shares(last.chord, first.chord).length;
  const motion = smallestMotion(last.chord, first.chord);
  const same = rootPc(last.chord) === rootPc(first.chord);
  let how: string;
  if (cadence) how = cadence.text.slice(cadence.text.indexOf(": ") + 2);
  else if (same) how = `the same root again: vary the last bar if it should lead ${on ? "on" : "back"}`;
  else how = `${romanOf(last.chord, last.key)} to ${romanOf(first.chord, first.key)}`;
  return {
    text:
      `${symbol(last.chord)} ${on ? "on" : "back"} to ` +
      `${symbol(first.chord)}${on ? `, where ${on.into} begins` : ""}: ${how}; ${common} common ` +
      `tone${common === 1 ? "" : "s"}, ${motion} semitone${motion === 1 ? "" : "s"} of motion.`,
    cadence: cadence?.kind ?? null,
    common,
    motion,
  };
}
