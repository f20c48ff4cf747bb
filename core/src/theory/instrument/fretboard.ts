import { nth } from "../../base/list";
import { mod, type Midi, type PitchClass, type Semitones } from "../pitch/pitch";

/** A capo above this is out of the way of most hands (common practice). */
export const HIGHEST_CAPO = 9;

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

/**
 * Four fingers over four frets; up to five high on the neck, where frets are narrow; a stretch past 100 mm is wide
 * (common practice).
 */
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
    Math.max(0, low - 5) * 0.1 +
    // Open strings beside a hand high on the neck are a special effect.
    (low > 4 && frets.includes(0) ? (low - 4) * 0.4 : 0);
  return { position: low, span: high - low, reach, fingers, barre, muted, strain };
}

/**
 * Every shape of the given pitch classes that lies within the limits, found by search over strings and frets: each
 * string is open, fretted within one span of the hand, or silent. At least `least` strings sound; `required` classes
 * all sound.
 */
export function findShapes(
  neck: Neck,
  allowed: readonly PitchClass[],
  required: readonly PitchClass[],
  { limits = SHAPE_LIMITS, least = 3 }: { limits?: ShapeLimits | undefined; least?: number | undefined } = {},
): Shape[] {
  const pcs = new Set(allowed.map((pc) => mod(pc, 12)));
  const needed = required.reduce((mask, pc) => mask | (1 << mod(pc, 12)), 0);
  const strings = neck.strings.map((m) => m + neck.capo);
  const highest = Math.min(limits.highest, neck.frets - neck.capo);
  const out: Shape[] = [];
  const frets: (number | null)[] = new Array<number | null>(strings.length).fill(null);
  /** Frets of each string that sound an allowed class: open, and within the hand. */
  const choicesAt = (position: number, top: number) =>
    strings.map((open) => {
      const list = pcs.has(mod(open, 12)) ? [0] : [];
      if (position) for (let f = position; f <= top; f++) if (pcs.has(mod(open + f, 12))) list.push(f);
      return list.map((fret) => ({ fret, bit: 1 << mod(open + fret, 12) }));
    });
  const search = (position: number, top: number): void => {
    const choices = choicesAt(position, top);
    // What the strings from s on can still bring.
    const ahead = [...choices, []].map((_, s) =>
      choices
        .slice(s)
        .flat()
        .reduce((mask, c) => mask | c.bit, 0),
    );
    const rooted = choices.map((_, s) => choices.slice(s).some((list) => list.some((c) => c.fret === position)));
    // Cut off early: tones that can no longer come, too many fingers, too many silent strings inside, too few strings
    // left to sound.
    const walk = (
      s: number,
      sounding: number,
      {
        mask,
        based,
        above,
        inside,
        silent,
      }: { mask: number; based: boolean; above: number; inside: number; silent: number },
    ): void => {
      if (sounding + strings.length - s < least || (needed & ~(mask | nth(ahead, s))) !== 0 || (!based && !rooted[s]))
        return;
      if (s === strings.length) {
        const held = holdShape(neck, frets);
        if (!held || held.fingers > limits.fingers || held.reach > limits.reach) return;
        const pitches = frets.flatMap((f, i) => (f === null ? [] : [nth(strings, i) + f])).sort((a, b) => a - b);
        out.push({ frets: [...frets], pitches, ...held });
        return;
      }
      frets[s] = null;
      walk(s + 1, sounding, { mask, based, above, inside, silent: sounding ? silent + 1 : 0 });
      if (inside + silent <= limits.muted)
        for (const { fret, bit } of nth(choices, s)) {
          const higher = above + (fret > position ? 1 : 0);
          if (higher > limits.fingers) continue;
          frets[s] = fret;
          walk(s + 1, sounding + 1, {
            mask: mask | bit,
            based: based || fret === position,
            above: higher,
            inside: inside + silent,
            silent: 0,
          });
        }
      frets[s] = null;
    };
    walk(0, 0, { mask: 0, based: position === 0, above: 0, inside: 0, silent: 0 });
  };
  search(0, 0);
  for (let position = 1; position <= highest; position++) {
    let top = Math.min(highest, position + limits.span);
    while (
      top > position &&
      fretPlace(neck.scale, top + neck.capo) - fretPlace(neck.scale, position + neck.capo) > limits.reach
    )
      top--;
    search(position, top);
  }
  return out;
}

/**
 * The easiest way to hold exactly these pitches, each on a string of its own; null when there is none within the
 * limits.
 */
export function shapeOf(neck: Neck, pitches: readonly Midi[], limits: ShapeLimits = SHAPE_LIMITS): Shape | null {
  const strings = neck.strings.map((m) => m + neck.capo);
  const highest = Math.min(limits.highest, neck.frets - neck.capo);
  const frets: (number | null)[] = new Array<number | null>(strings.length).fill(null);
  let best: Shape | null = null;
  const place = (i: number): void => {
    if (i === pitches.length) {
      const held = holdShape(neck, frets);
      if (
        !held ||
        held.fingers > limits.fingers ||
        held.muted > limits.muted ||
        held.reach > limits.reach ||
        held.span > limits.span
      )
        return;
      if (!best || held.strain < best.strain)
        best = { frets: [...frets], pitches: [...pitches].sort((a, b) => a - b), ...held };
      return;
    }
    strings.forEach((open, s) => {
      const f = nth(pitches, i) - open;
      if (frets[s] !== null || f < 0 || f > highest) return;
      frets[s] = f;
      place(i + 1);
      frets[s] = null;
    });
  };
  place(0);
  return best;
}
