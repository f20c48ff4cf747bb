import { firstOf, nth } from "../../base/list";
import type { Key } from "../../theory/pitch/key";
import { mod } from "../../theory/pitch/pitch";
import { metricalLevel, type Meter, type Ticks } from "../../theory/time/meter";
import { bassPc, chordPitchClasses, rootPc, type Chord } from "../../theory/chord/chord";
import type { RealizedNote } from "../../song/realize";
import { isDominant, rootMove } from "../../hear/harmony/context";
import { smallestMotion } from "../../hear/harmony/distance";
import { rootProgression, stepOf } from "../../hear/harmony/roots";
import { bassOf, type Choice, type HarmonicRhythm, type Segment } from "./choices";
import { outsideOf } from "./fit";
import { degreeCost } from "./overLine";
import { phraseEnds, type PhraseEnd } from "./phrases";

/** Weights (common practice), in the same unit as the fit: beats of clash. */
export const W = {
  fit: 2,
  degree: 1,
  /** A change on a bar line, inside the bar, and on a beat that is neither. */
  change: { bar: 0.1, half: 0.75, beat: 1.3 },
  /** The same chord again over a bar line: no harm, where the tune lets it. */
  stay: 0.1,
  early: 0.8,
  recolor: 0.5,
  motion: 0.03,
  usual: { usual: 0, sometimes: 0.2, seldom: 0.7, unlisted: 0.9 },
  end: 4,
  /** A phrase that rests on another chord than I or V, and one that comes home without its dominant. */
  rest: 1.6,
  cadence: 1.2,
  start: 1.2,
  /** A phrase begins at home more often than not. */
  begin: 0.8,
  stray: 2.5,
} as const;

/**
 * A line to be harmonized: its stretches, the chords that may stand in each, and what the line says to each of them.
 */
export interface HarmonyProblem {
  key: Key;
  meter: Meter;
  length: Ticks;
  rhythm: HarmonicRhythm;
  ending: "closed" | "open";
  as: "melody" | "bass";
  notes: readonly RealizedNote[];
  segments: readonly Segment[];
  columns: readonly (readonly Choice[])[];
  fits: readonly (readonly { cost: number }[])[];
  /** The chord with which the form goes on. */
  onto?: Chord;
}

/** What each chord costs where it stands, and each step from one to the next. */
export function costsOf(problem: HarmonyProblem): {
  node(c: number, i: number): number;
  step(c: number, i: number, j: number): number;
} {
  const { key, segments, columns, fits, as, notes } = problem;
  const last = columns.length - 1;
  const phrases = phraseEnds(notes, problem.meter, problem.length);
  const arrivals = byStretch(segments, phrases, (p) => p.arrives);
  const starts = byStretch(segments, phrases, (p) => p.at);
  const ends = endCosts(problem, as === "bass" ? bassOf(notes, nth(segments, last)) : undefined);
  const node = (c: number, i: number): number => {
    const choice = nth(nth(columns, c), i);
    const step = stepOf(choice.chord, key);
    const tonicStart = c === 0 && step !== 1 ? W.start : 0;
    const begins = c > 0 && step !== 1 ? (starts[c]?.weight ?? 0) * W.begin : 0;
    const rests = c < last ? restCost(choice.chord, key, arrivals[c]) * W.rest : 0;
    return (
      nth(nth(fits, c), i).cost * W.fit +
      choice.distance +
      degreeCost(choice.chord, key) * W.degree +
      tonicStart +
      begins +
      rests +
      (c === last ? ends(choice.chord) : 0)
    );
  };
  const step = (c: number, i: number, j: number): number =>
    chordStep(problem, nth(segments, c), {
      segment: nth(segments, c + 1),
      a: nth(nth(columns, c), i),
      b: nth(nth(columns, c + 1), j),
      free: nth(columns, c + 1).length > 1,
      arrives: arrivals[c + 1],
    });
  return { node, step };
}

/** Rhythms of harmony in which a change costs less. */
const SHORT: ReadonlySet<HarmonyProblem["rhythm"]> = new Set<HarmonyProblem["rhythm"]>(["half bar", "beat"]);

/** Where a chord changes. A bar of two beats has halves for beats. */
function placeOf(meter: Meter, start: Ticks): "bar" | "half" | "beat" {
  if (start % meter.bar === 0) return "bar";
  return metricalLevel(meter, start) >= -1 || meter.beats.length === 2 ? "half" : "beat";
}

function chordStep(
  { key, meter, rhythm }: HarmonyProblem,
  before: Segment,
  {
    segment,
    a,
    b,
    free,
    arrives,
  }: { segment: Segment; a: Choice; b: Choice; free: boolean; arrives: PhraseEnd | undefined },
): number {
  const onBar = segment.start % meter.bar === 0;
  const stays = a.symbol === b.symbol;
  if (b.held ? !stays : stays && !onBar && free) return Infinity;
  // A phrase comes home from the dominant, or plagally.
  const home = stepOf(b.chord, key) === 1 ? approachCost(a.chord, key, arrives) * W.cadence : 0;
  if (stays) {
    // What is new inside a bar and goes on over the bar line sounds early.
    const early = a.held === undefined && before.start % meter.bar !== 0 ? W.early : 0;
    return onBar ? W.stay + early + home : home;
  }
  const moves = W.change[placeOf(meter, segment.start)] * (SHORT.has(rhythm) ? 0.6 : 1);
  // Another color of the same chord is hardly a change.
  if (rootPc(a.chord) === rootPc(b.chord) && bassPc(a.chord) === bassPc(b.chord)) return moves + W.recolor;
  // An applied dominant that does not arrive is a stray.
  const stray = a.leads !== undefined && a.leads !== rootPc(b.chord) ? W.stray : 0;
  return moves + progress(a.chord, b.chord, key) + stray + home + smallestMotion(a.chord, b.chord) * W.motion;
}

/** The phrase that ends (or the one after which another begins) in each stretch. */
function byStretch(
  segments: readonly Segment[],
  ends: readonly PhraseEnd[],
  where: (p: PhraseEnd) => Ticks,
): (PhraseEnd | undefined)[] {
  const out: (PhraseEnd | undefined)[] = segments.map(() => undefined);
  for (const end of ends) {
    const c = segments.findIndex((s) => s.start <= where(end) && where(end) < s.start + s.duration);
    if (c >= 0 && (out[c]?.weight ?? 0) < end.weight) out[c] = end;
  }
  return out;
}

/** Minor falls and climbs by step, i VII VI V and VI VII i, and borrows the turns of its relative major. */
const MINOR_STEPS = new Set(["17", "76", "65", "67", "71", "73", "37", "47", "63", "36"]);

/**
 * What it costs that one root follows another: Piston's table; from I any chord may follow, from IV home is near, from
 * V back to IV is weak; a mode moves freely; chords from outside are tied by anything but a slide (common practice).
 */
function progress(a: Chord, b: Chord, key: Key): number {
  const [from, to] = [stepOf(a, key), stepOf(b, key)];
  if (from === null || to === null) {
    const slides = [1, 11].includes(rootMove(a, b)) && a.bass === b.bass && to !== 5 && to !== 1;
    return slides ? 0.7 : 0.25;
  }
  if (key.mode !== "major" && key.mode !== "minor") return 0.15;
  const steps = `${from}${to}`;
  if (key.mode === "minor" && MINOR_STEPS.has(steps)) return 0.1;
  const usual = W.usual[rootProgression(from, to)];
  return from === 1 ? Math.min(usual, 0.25) : (OWN_COSTS[steps] ?? usual);
}

/** Plagally home; from the dominant back. */
const OWN_COSTS: Record<string, number> = { "41": 0.1, "54": 0.6, "52": 0.6 };

const isFive = (chord: Chord, key: Key): boolean =>
  stepOf(chord, key) === 5 && (isDominant(chord, true) || (key.mode !== "major" && key.mode !== "minor"));

/**
 * How little a phrase rests on a chord: I and V best, IV and vi less, others least; on the tonic's note it rests at
 * home.
 */
function restCost(chord: Chord, key: Key, end: PhraseEnd | undefined): number {
  if (!end || stepOf(chord, key) === 1 || isFive(chord, key)) return 0;
  return ([4, 6, 3].includes(stepOf(chord, key) ?? 0) && end.last !== key.pcs[0] ? 0.5 : 1) * end.weight;
}

/** Chords that lead home in a mode: those with its mark. */
const LEADS_HOME: Record<Key["mode"], readonly number[]> = {
  major: [],
  minor: [],
  dorian: [7, 4],
  mixolydian: [7],
  phrygian: [2, 7],
  lydian: [2],
  locrian: [2],
};

/**
 * How little a chord leads home at the end of a phrase: the dominant best (in a mode the chord that has its mark), then
 * the subdominant, if they carry the note before the last one. A tune that steps onto the tonic from its second or
 * seventh degree asks for it; where it does not, the tonic may have been there before.
 */
function approachCost(chord: Chord, key: Key, end: PhraseEnd | undefined): number {
  if (!end) return 0;
  const step = stepOf(chord, key);
  if (isFive(chord, key) || (step !== null && LEADS_HOME[key.mode].includes(step))) return 0;
  const away = end.before === null ? 0 : mod(end.before - firstOf(key.pcs), 12);
  const asks = end.last === key.pcs[0] && [1, 2, 10, 11].includes(away);
  if (step === 1) {
    const asTwo = () => {
      if (asks) return 1;
      if (end.weight === 1) return 0.3;
      return 0;
    };
    return asTwo() * end.weight;
  }
  const carried = end.before === null || chordPitchClasses(chord).includes(end.before);
  return ((step === 4 || step === 7) && carried ? 0.4 : 1) * end.weight;
}

/**
 * What it costs to end on a chord. A bass that ends on another note than the tonic ends open, on the chord it carries.
 */
function endCosts({ key, ending, onto }: HarmonyProblem, bass: RealizedNote | undefined): (chord: Chord) => number {
  const open = ending === "open" || (bass !== undefined && mod(bass.midi, 12) !== key.pcs[0]);
  const isHome = (chord: Chord) => stepOf(chord, key) === 1 && outsideOf(chord, key) === 0;
  const onRoot = (chord: Chord) => bassPc(chord) === rootPc(chord);
  const closed = (chord: Chord) => {
    if (!isHome(chord)) return W.end;
    return onRoot(chord) ? 0 : 1;
  };
  const overBass = (chord: Chord) => {
    if (isHome(chord)) return 1;
    if (!onRoot(chord)) return 0.8;
    return isFive(chord, key) || stepOf(chord, key) !== 5 ? 0 : 0.6;
  };
  // What leads on into another section is its dominant: the fifth below is the root that comes.
  const leading = (next: Chord) => (chord: Chord) => {
    if (rootMove(chord, next) === 5 && isDominant(chord, true)) return 0;
    return isFive(chord, key) ? W.end / 4 : W.end;
  };
  if (!open) return closed;
  if (bass !== undefined) return overBass;
  if (onto && stepOf(onto, key) !== 1) return leading(onto);
  return (chord) => (isFive(chord, key) ? 0 : W.end);
}
