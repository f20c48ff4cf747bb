import { must } from "../../base/result";
import type { ChordTone } from "./chord";
import { parseChord } from "./parse";

/** A quality that notes can be named by, with the tones that may be left out and how unusual the name is. */
export interface Template {
  quality: string;
  tones: ChordTone[];
  /** Bit n set: the tone n semitones above the root belongs to it. */
  mask: number;
  /** Bits of the tones that may be missing, with what each costs. */
  optional: Map<number, { cost: number; label: string }>;
  /** All bits of `optional` together. */
  spare: number;
  cost: number;
  seventh: boolean;
  suspended: boolean;
}

/**
 * Qualities with a measure of how readily a musician reaches for the name: triads and sevenths first, then extensions,
 * then alterations (common practice).
 */
const QUALITIES: [quality: string, cost: number][] = [
  ["", 0],
  ["m", 0],
  ["5", 1],
  ["sus4", 1.2],
  ["sus2", 1.4],
  ["dim", 1],
  ["aug", 1.2],
  ["(b5)", 1.8],
  ["6", 1],
  ["m6", 1.3],
  ["6/9", 1.2],
  ["m6/9", 1.6],
  ["6sus4", 1.9],
  ["6/9sus4", 1.2],
  ["(add9)", 0.9],
  ["m(add9)", 1],
  ["(add11)", 1.7],
  ["m(add11)", 1.7],
  ["sus24", 1.9],
  ["maj7", 0.4],
  ["m7", 0.4],
  ["7", 0.4],
  ["m7b5", 0.8],
  ["dim7", 0.8],
  ["mMaj7", 1.3],
  ["maj7sus4", 2.2],
  ["maj7sus2", 2.2],
  ["7sus4", 0.9],
  ["7sus2", 1.8],
  ["maj9", 0.6],
  ["m9", 0.6],
  ["9", 0.6],
  ["m7(b9)", 1.7],
  ["m9b5", 1.4],
  ["mMaj9", 1.6],
  ["9sus4", 0.9],
  ["13sus4", 0.9],
  ["11", 1.3],
  ["m11", 0.9],
  ["maj11", 1.8],
  ["m11b5", 1.8],
  ["mMaj11", 2.2],
  ["13", 0.8],
  ["m13", 1.2],
  ["maj13", 1],
  ["mMaj13", 2.4],
  ["7(b5)", 1.3],
  ["7(#5)", 1.2],
  ["9(b5)", 1.6],
  ["9(#5)", 1.5],
  ["7(b9)", 0.9],
  ["7(#9)", 1],
  ["7(#11)", 1.3],
  ["7(b13)", 1.4],
  ["9(#11)", 1.2],
  ["9(b13)", 1.6],
  ["13(b9)", 1.3],
  ["13(#9)", 1.6],
  ["13(#11)", 1.4],
  ["7(b5,b9)", 1.8],
  ["7(b5,#9)", 1.8],
  ["7(#5,b9)", 1.7],
  ["7(#5,#9)", 1.6],
  ["7(b9,#9)", 2],
  ["7(b9,#11)", 1.7],
  ["7(#9,#11)", 1.9],
  ["7(b9,b13)", 1.7],
  ["7(#9,b13)", 1.7],
  ["7(b9,#9,b13)", 1.9],
  ["7sus4(b9)", 1.5],
  ["13sus4(b9)", 2],
  ["13(b9,#11)", 2],
  ["13(b5,b9)", 2.2],
  ["7(b9,#9,#11,b13)", 2.4],
  ["7alt", 2.3],
  ["maj7(b5)", 1.6],
  ["maj7(#5)", 1.5],
  ["maj9(#5)", 2],
  ["maj7(#11)", 1],
  ["maj9(#11)", 1.1],
  ["maj13(#11)", 1.5],
  ["mMaj7(b5)", 2],
  ["dim7(add9)", 2],
  ["dimMaj7", 2],
];

const OMITTED_FIFTH = 0.5;
const OMITTED_THIRD = 2.3;

function template(quality: string, cost: number): Template {
  const { tones } = must(parseChord("C" + quality));
  const optional: Template["optional"] = new Map();
  const seventh = tones.some((t) => t.degree === 7);
  const top = Math.max(...tones.map((t) => t.degree));
  // What it costs to leave a tone out, by degree. Without its third a triad is a power chord, and a seventh chord is
  // neither major nor minor: one name serves both.
  const prices = new Map<number, number>();
  if (tones.length > 2) prices.set(5, OMITTED_FIFTH);
  if (seventh || quality === "6")
    prices.set(3, tones.some((t) => t.degree === 11 && t.alter === 0) ? 0.3 : OMITTED_THIRD);
  if (top > 9) prices.set(9, 0.3);
  if (top === 13) prices.set(11, 0.2);
  for (const t of tones) {
    const price = prices.get(t.degree);
    if (t.alter === 0 && price !== undefined) optional.set(1 << (t.semitones % 12), { cost: price, label: t.role });
  }
  return {
    quality,
    tones,
    optional,
    cost,
    spare: [...optional.keys()].reduce((m, bit) => m | bit, 0),
    mask: tones.reduce((m, t) => m | (1 << (t.semitones % 12)), 0),
    seventh,
    suspended: tones.some((t) => t.degree === 2 || t.degree === 4),
  };
}

export const TEMPLATES: readonly Template[] = QUALITIES.map(([quality, cost]) => template(quality, cost));

/**
 * Names a tone outside a template can be added under, by semitones above the root; null where the name would contradict
 * the chord.
 */
export function addedName(t: Template, above: number): string | null {
  const third = t.tones.find((x) => x.degree === 3);
  switch (above) {
    case 1:
      return "b9";
    case 2:
      return "9";
    case 3:
      return third && third.alter === 0 ? "#9" : null;
    case 5:
      return t.suspended ? null : "11";
    case 6:
      return t.tones.some((x) => x.degree === 5 && x.alter === 0) ? "#11" : null;
    case 8:
      return "b13";
    case 9:
      return t.seventh ? "13" : null;
    default:
      return null;
  }
}
