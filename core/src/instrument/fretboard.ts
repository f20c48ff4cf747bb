import { mod, type Midi, type PitchClass, type Semitones } from "../pitch/pitch";

/** A neck with its strings as drawn (lowest drawn string first), sounding open pitches without capo. */
export interface Neck {
  strings: readonly Midi[];
  frets: number;
  capo: Semitones;
  /** Vibrating length in millimetres. */
  scale: number;
}

/** A chord under the fingers of one hand. */
export interface Shape {
  /** Frets counted from the capo, string by string; 0 open, null not played. */
  frets: (number | null)[];
  /** Sounding, low to high. */
  pitches: Midi[];
  /** Lowest fretted fret, 0 when all strings are open. */
  position: number;
  /** Frets from the lowest to the highest finger. */
  span: number;
  /** Distance between them in millimetres. */
  reach: number;
  fingers: number;
  /** One finger over several strings at the lowest fret: first and last string. */
  barre: { fret: number; from: number; to: number } | null;
  /** Strings between sounding ones that must be kept silent. */
  muted: number;
  /** How hard it is to hold; 0 is open strings alone. */
  strain: number;
}

export interface ShapeLimits {
  /** Highest fret used. */
  highest: number;
  /** Most frets from lowest to highest finger. */
  span: number;
  /** Most millimetres between them. */
  reach: number;
  fingers: number;
  /** Silent strings allowed between sounding ones. */
  muted: number;
}

/** Four fingers over four frets; up to five high on the neck, where frets are narrow; a stretch past 100 mm is wide (common practice). */
export const SHAPE_LIMITS: ShapeLimits = { highest: 15, span: 4, reach: 112, fingers: 4, muted: 1 };
export const WIDE_REACH = 100;

/** Distance in millimetres from the nut (or capo) to a fret. */
export const fretPlace = (scale: number, fret: number): number => scale * (1 - 2 ** (-fret / 12));

/** What holding these frets takes; null when no hand can: too few fingers, or an open string under a barre. */
export function holdShape(neck: Neck, frets: readonly (number | null)[]): Omit<Shape, "frets" | "pitches"> | null {
  let low = Infinity;
  let high = 0;
  let fretted = 0;
  let first = -1;
  let last = -1;
  frets.forEach((f, s) => {
    if (f === null) return;
    if (first < 0) first = s;
    last = s;
    if (f === 0) return;
    fretted++;
    if (f < low) low = f;
    if (f > high) high = f;
  });
  let muted = 0;
  for (let s = first + 1; s < last; s++) if (frets[s] === null) muted++;
  if (!fretted) return { position: 0, span: 0, reach: 0, fingers: 0, barre: null, muted, strain: muted * 0.8 };
  const above = frets.filter((f) => f !== null && f > low).length;
  const from = frets.indexOf(low);
  const to = frets.lastIndexOf(low);
  const barred = to > from && !frets.slice(from, to + 1).includes(0);
  const needed = fretted > 4 || (barred && fretted === 4 && to - from > 2);
  const barre = barred && (needed || fretted - above > 2) ? { fret: low, from, to } : null;
  const fingers = barre ? 1 + above : fretted;
  const reach = fretPlace(neck.scale, high + neck.capo) - fretPlace(neck.scale, low + neck.capo);
  const strain =
    fingers * 0.25 +
    (barre ? 0.9 : 0) +
    Math.max(0, reach - 75) * 0.03 +
    muted * 0.8 +
    Math.max(0, low - 5) * 0.05;
  return { position: low, span: high - low, reach, fingers, barre, muted, strain };
}

const options = (open: Midi, allowed: ReadonlySet<PitchClass>, from: number, to: number): number[] => {
  const out: number[] = [];
  for (let f = from; f <= to; f++) if (allowed.has(mod(open + f, 12))) out.push(f);
  return out;
};

/**
 * Every shape of the given pitch classes that lies within the limits, found by search over strings and frets: each string is open,
 * fretted within one span of the hand, or silent. At least `least` strings sound; `required` classes all sound.
 */
export function findShapes(
  neck: Neck,
  allowed: readonly PitchClass[],
  required: readonly PitchClass[],
  limits: ShapeLimits = SHAPE_LIMITS,
  least = 3,
): Shape[] {
  const pcs = new Set(allowed);
  const strings = neck.strings.map((m) => m + neck.capo);
  const highest = Math.min(limits.highest, neck.frets - neck.capo);
  const out: Shape[] = [];
  const frets: (number | null)[] = new Array<number | null>(strings.length).fill(null);
  const openOptions = strings.map((open) => (pcs.has(mod(open, 12)) ? [0] : []));
  const walk = (s: number, choices: readonly number[][], position: number, sounding: number): void => {
    if (s === strings.length) {
      if (sounding < least || (position > 0 && !frets.includes(position))) return;
      const heard = frets.map((f, i) => (f === null ? -1 : mod(strings[i]! + f, 12)));
      if (!required.every((pc) => heard.includes(pc))) return;
      const held = holdShape(neck, frets);
      if (!held || held.fingers > limits.fingers || held.muted > limits.muted || held.reach > limits.reach) return;
      const pitches = frets.flatMap((f, i) => (f === null ? [] : [strings[i]! + f])).sort((a, b) => a - b);
      out.push({ frets: [...frets], pitches, ...held });
      return;
    }
    frets[s] = null;
    walk(s + 1, choices, position, sounding);
    for (const f of choices[s]!) {
      frets[s] = f;
      walk(s + 1, choices, position, sounding + 1);
    }
    frets[s] = null;
  };
  walk(0, openOptions, 0, 0);
  for (let position = 1; position <= highest; position++) {
    const top = Math.min(highest, position + limits.span);
    const choices = strings.map((open, s) => [...openOptions[s]!, ...options(open, pcs, position, top)]);
    walk(0, choices, position, 0);
  }
  return out;
}

/** The easiest way to hold exactly these pitches, each on a string of its own; null when there is none within the limits. */
export function shapeOf(neck: Neck, pitches: readonly Midi[], limits: ShapeLimits = SHAPE_LIMITS): Shape | null {
  const strings = neck.strings.map((m) => m + neck.capo);
  const highest = Math.min(limits.highest, neck.frets - neck.capo);
  const frets: (number | null)[] = new Array<number | null>(strings.length).fill(null);
  let best: Shape | null = null;
  const place = (i: number): void => {
    if (i === pitches.length) {
      const held = holdShape(neck, frets);
      if (!held || held.fingers > limits.fingers || held.muted > limits.muted || held.reach > limits.reach || held.span > limits.span) return;
      if (!best || held.strain < best.strain) best = { frets: [...frets], pitches: [...pitches].sort((a, b) => a - b), ...held };
      return;
    }
    strings.forEach((open, s) => {
      const f = pitches[i]! - open;
      if (frets[s] !== null || f < 0 || f > highest) return;
      frets[s] = f;
      place(i + 1);
      frets[s] = null;
    });
  };
  place(0);
  return best;
}
