import { firstOf, lastOf } from "../../base/list";
import { counted } from "../../theory/words/english";
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

/** Two neighboring chords in the key of the second. */
interface Join {
  a: Heard;
  b: Heard;
  /** Semitones of their roots above the tonic. */
  from: number;
  to: number;
  minor: boolean;
  /** The first is the dominant; the second is home. */
  onFive: boolean;
  home: boolean;
  /** Home is major in a minor key. */
  picardy: boolean;
}

function joinOf(a: Heard, b: Heard): Join {
  const { key } = b;
  const minor = isMinorish(key);
  const from = above(a.chord, key);
  const onTonic = rootPc(b.chord) === key.pcs[0] && isMajor(b.chord);
  const picardy = minor && onTonic && !isDominant(b.chord);
  return {
    a,
    b,
    from,
    to: above(b.chord, key),
    minor,
    onFive: from === 7 && isDominant(a.chord, true) && !isMinor(a.chord),
    // The seventh on I is a color in the blues, and a Picardy third is home as well.
    home: isTonic(b.chord, key) || picardy || (!minor && onTonic && isDominant(b.chord)),
    picardy,
  };
}

const third = ({ picardy }: Join): string => (picardy ? ", with a Picardy third" : "");
const inRootPosition = ({ a, b }: Join): boolean =>
  bassPc(a.chord) === rootPc(a.chord) && bassPc(b.chord) === rootPc(b.chord);
const isPhrygian = ({ a, b, minor }: Join): boolean => minor && mod(bassPc(a.chord) - bassPc(b.chord), 12) === 1;
const stopsOnFive = ({ b, to }: Join): boolean => to === 7 && isDominant(b.chord, true) && !isMinor(b.chord);
const toSixth = ({ b, to, minor }: Join): boolean => to === (minor ? 8 : 9) || (to === 8 && isMajor(b.chord));
const fromBelow = ({ a, b, from, minor }: Join): boolean =>
  from === 10 && isDominant(a.chord) && !minor && !b.key.pcs.includes(rootPc(a.chord));

interface CadenceRule {
  kind: CadenceKind;
  /** Only where a phrase ends. */
  ends?: boolean;
  holds(join: Join): boolean;
  words(join: Join): string;
}

/** What two chords can make, the first that holds. */
const CADENCES: readonly CadenceRule[] = [
  {
    kind: "perfect",
    holds: (j) => j.onFive && j.home && inRootPosition(j),
    words: (j) => `authentic cadence, both in root position${third(j)}`,
  },
  {
    kind: "imperfect",
    holds: (j) => j.onFive && j.home,
    words: (j) => `authentic cadence over an inversion${third(j)}`,
  },
  {
    kind: "deceptive",
    holds: (j) => j.onFive && toSixth(j),
    words: ({ to, minor }) =>
      `deceptive: the dominant goes to the ${to === 8 && !minor ? "lowered sixth" : "sixth"} degree instead of home`,
  },
  {
    kind: "substitute",
    holds: ({ a, from, home }) => from === 1 && isDominant(a.chord) && isMajor(a.chord) && home,
    words: () => "home from the tritone substitute, the bass falling a semitone",
  },
  {
    kind: "backdoor",
    holds: (j) => j.home && fromBelow(j),
    words: () => "home through the back door, from ♭VII7",
  },
  {
    kind: "modal",
    ends: true,
    holds: ({ a, from, home }) => from === 10 && home && isMajor(a.chord),
    words: (j) => `modal cadence: up a tone from below, without a leading tone${third(j)}`,
  },
  {
    kind: "minor plagal",
    ends: true,
    holds: ({ a, from, home, minor }) => from === 5 && home && isMinor(a.chord) && !minor,
    words: () => "plagal cadence with the minor iv",
  },
  {
    kind: "plagal",
    ends: true,
    holds: ({ from, home }) => from === 5 && home,
    words: (j) => `plagal cadence${third(j)}`,
  },
  {
    kind: "phrygian half",
    ends: true,
    holds: (j) => stopsOnFive(j) && isPhrygian(j),
    words: () => "half cadence with the bass falling a semitone",
  },
  {
    kind: "half",
    ends: true,
    holds: stopsOnFive,
    words: () => "half cadence: the phrase stays open on the dominant",
  },
];

/**
 * The cadence two neighboring chords make in the key of the second, if any. A half or plagal cadence needs the end of a
 * phrase.
 */
function between(a: Heard, b: Heard, endsPhrase: boolean): Cadence | null {
  const join = joinOf(a, b);
  const found = CADENCES.find((c) => (endsPhrase || !c.ends) && c.holds(join));
  if (!found) return null;
  const text = `${symbol(a.chord)} – ${symbol(b.chord)}: ${found.words(join)}`;
  return { kind: found.kind, from: a.event.id, to: b.event.id, text };
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

/** How one chord goes on to another, in a few words; `on`: it leads on and not back. */
function howItGoes(last: Heard, first: Heard, { cadence, on }: { cadence: Cadence | null; on: boolean }): string {
  if (cadence) return cadence.text.slice(cadence.text.indexOf(": ") + 2);
  if (rootPc(last.chord) === rootPc(first.chord))
    return `the same root again: vary the last bar if it should lead ${on ? "on" : "back"}`;
  return `${romanOf(last.chord, last.key)} to ${romanOf(first.chord, first.key)}`;
}

/** How the last chord leads back into the first, or on into what follows. */
export function loopJoin(p: Progression, on?: { to: Heard; into: string }): LoopJoin | null {
  const last = p.chords.at(-1);
  const first = on?.to ?? p.chords[0];
  if (!last || !first || (!on && p.chords.length < 2)) return null;
  const cadence = between(last, first, false);
  const common = shares(last.chord, first.chord).length;
  const motion = smallestMotion(last.chord, first.chord);
  const where = on ? `on to ${symbol(first.chord)}, where ${on.into} begins` : `back to ${symbol(first.chord)}`;
  const how = howItGoes(last, first, { cadence, on: on !== undefined });
  return {
    text:
      `${symbol(last.chord)} ${where}: ${how}; ${counted(common, "common tone")}, ` +
      `${counted(motion, "semitone")} of motion.`,
    cadence: cadence?.kind ?? null,
    common,
    motion,
  };
}
