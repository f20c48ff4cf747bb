import { sure } from "../../../base/list";
import { mod } from "../../../theory/pitch/pitch";
import { bassPc, chordSymbol, rootPc, type Chord, type ChordTone } from "../../../theory/chord/chord";
import { comesBack } from "../../../theory/chord/frets";
import { findShapes, SHAPE_LIMITS, type Neck, type Shape } from "../../../theory/instrument/fretboard";
import { doublingCost, importanceOf, pcOf } from "../stack";
import type { RawVoicing, VoicingLimits, VoicingStyle } from "../style";

/** What a way of playing asks of a shape, beside what it holds of the chord and how hard it is (common practice). */
interface Wishes {
  id: string;
  /** Cost of a string less than is wished for, and of one more. */
  fewer: number;
  more: number;
  /** Cost of a doubled tone, as a share of what it costs on keys. */
  doubled: number;
  /** Cost of another lowest note than the root, over a bass that plays it. */
  inverted: number;
  /** Cost of an open string that sounds; below nothing where it is liked. */
  open: number;
  /** Whether the grips of songbooks are wanted rather than any that is easy. */
  known: boolean;
}

/**
 * From this fret on open strings among fretted ones are a special effect; a barre is a grip one knows, and one stays
 * low on the neck (common practice).
 */
const HIGH = 4;
const AMONG_HIGH = 0.5;
const KNOWN_BARRE = 0.45;
const UP_THE_NECK = 0.12;
const FIFTH = 0.2;
const HIGHEST_GRIP = 11;
/** How much harder or poorer than the best shape one may be and still be a candidate (common practice). */
const ENOUGH = 2;
/** Fewer strings than this are no chord; and so many fewer than are wished for are not looked at. */
const FEWEST = 3;
const LACKING = 2;

const known = new Map<string, RawVoicing[]>();

/**
 * All shapes of a chord on a neck with what they leave out and double; remembered, for a song uses the same chords
 * again and again.
 */
function shapesOf(
  chord: Chord,
  neck: Neck,
  wished: number,
  { bassCovered, wishes }: { bassCovered: boolean; wishes: Wishes },
): RawVoicing[] {
  const id = [
    wishes.id,
    chordSymbol(chord),
    neck.strings.join(),
    neck.capo,
    neck.frets,
    neck.scale,
    wished,
    bassCovered,
  ].join("|");
  const found = known.get(id);
  if (found) return found;
  // Grips leave the fifth out without a second thought.
  const worth = (t: ChordTone) =>
    wishes.known && t.degree === 5 && !t.alter ? FIFTH : importanceOf(t, chord, bassCovered);
  const weight = new Map(chord.tones.map((t) => [pcOf(chord, t), worth(t)]));
  const tones = chord.tones.map((t) => ({ pc: pcOf(chord, t), doubled: doublingCost(t) * wishes.doubled }));
  const reentrant = comesBack(neck.strings);
  const bass = bassPc(chord);
  const pcs = [...new Set([...chord.tones.map((t) => pcOf(chord, t)), ...(bassCovered ? [] : [bass])])];
  // What the chord cannot do without; on few strings even that may have to give way.
  const essential = [...weight].filter(([, w]) => w >= 4).map(([pc]) => pc);
  const least = Math.min(neck.strings.length, Math.max(FEWEST, wished - LACKING));
  const limits = wishes.known ? { ...SHAPE_LIMITS, highest: HIGHEST_GRIP } : SHAPE_LIMITS;
  const whole = findShapes(neck, pcs, essential, { limits, least });
  const raw = (whole.length ? whole : findShapes(neck, pcs, [], { limits, least })).flatMap((shape): RawVoicing[] => {
    const heard = shape.pitches.map((m) => mod(m, 12));
    // Alone, the lowest note is the bass; a re-entrant tuning has none.
    if (!bassCovered && !reentrant && heard[0] !== bass) return [];
    if (new Set(shape.pitches).size < shape.pitches.length && shape.pitches.length <= 3) return [];
    const missing = [...weight].reduce((sum, [pc, w]) => (heard.includes(pc) ? sum : sum + w), 0);
    const doubling = tones.reduce(
      (sum, t) => sum + Math.max(0, heard.filter((pc) => pc === t.pc).length - 1) * t.doubled,
      0,
    );
    // Under a root of its own a guitar chord stands firmest.
    const inverted = !reentrant && heard[0] !== (bassCovered ? rootPc(chord) : bass) ? wishes.inverted : 0;
    return [
      { pitches: shape.pitches, missing: missing + inverted + stringsCost(shape, wished, wishes), doubling, shape },
    ];
  });
  // Of the same notes the easiest fingering in each position; of all, those that are not much harder or poorer than the
  // best.
  const own = (v: RawVoicing) => v.missing + v.doubling + sure(v.shape).strain;
  const easiest = new Map<string, RawVoicing>();
  for (const v of raw) {
    const same = `${v.pitches.join()}:${sure(v.shape).position}`;
    if (!easiest.has(same) || own(v) < own(sure(easiest.get(same)))) easiest.set(same, v);
  }
  const best = Math.min(...[...easiest.values()].map(own));
  const good = [...easiest.values()].filter((v) => own(v) <= best + ENOUGH).sort((a, b) => own(a) - own(b));
  if (known.size > 500) known.clear();
  known.set(id, good);
  return good;
}

/** How far the strings that sound are from what is wished for. */
function stringsCost(
  { frets, barre, position }: Shape,
  wished: number,
  { fewer, more, open, known: grips }: Wishes,
): number {
  const sounding = frets.filter((f) => f !== null).length;
  const opens = frets.filter((f) => f === 0).length;
  const high = Math.max(...frets.map((f) => f ?? 0)) >= HIGH;
  return (
    Math.max(0, wished - sounding) * fewer +
    Math.max(0, sounding - wished) * more +
    opens * (open + (grips && high ? AMONG_HIGH : 0)) +
    (grips ? position * UP_THE_NECK - (barre ? KNOWN_BARRE : 0) : 0)
  );
}

const necked =
  (wishes: Wishes): VoicingStyle["candidates"] =>
  (chord, { neck, voices, bassCovered }: VoicingLimits) =>
    neck ? shapesOf(chord, neck, voices, { bassCovered, wishes }) : [];

/** A hand takes a grip as a whole: what each voice does counts little, and low strings do not boom as keys do. */
const GRIPS: VoicingStyle["weights"] = {
  motion: 0.02,
  leap: 0,
  common: 0,
  topLine: 0.1,
  parallels: 0,
  register: 0,
  spacing: 0.1,
  lowIntervals: 0,
  roughness: 0,
};

export const shapes: VoicingStyle = {
  id: "shapes",
  title: "Strummed shapes",
  explanation:
    "The open and barre shapes one strums: as many strings as will sound, the root lowest, low on the neck. " +
    "Found by searching strings, frets, capo and tuning: four fingers over four or five frets, a barre where " +
    "no open string forbids it, at most one silent string inside.",
  source: "common practice",
  alone: true,
  held: "frets",
  weights: GRIPS,
  candidates: necked({ id: "strum", fewer: 0.5, more: 0, doubled: 0.05, inverted: 1.5, open: 0, known: true }),
};

export const picking: VoicingStyle = {
  id: "picking",
  title: "Picked shapes",
  explanation:
    "For fingers that pluck string by string: open strings are liked, the root lies lowest, four or five " +
    "strings are enough, and the hand stays where it is when it can.",
  source: "common practice",
  alone: true,
  held: "frets",
  weights: { ...GRIPS, motion: 0.1, common: 1, topLine: 0.4 },
  candidates: necked({ id: "pick", fewer: 0.3, more: 0.1, doubled: 0.2, inverted: 1.8, open: -0.15, known: true }),
};

export const comping: VoicingStyle = {
  id: "comping",
  title: "Comping shapes",
  explanation:
    "Small movable chords as jazz guitarists comp: three or four strings, no tone twice, no open string " +
    "ringing on, third and seventh before all, and little movement from one to the next.",
  source: "common practice",
  alone: true,
  held: "frets",
  voices: 4,
  weights: { motion: 0.5, leap: 0.5, parallels: 0, register: 0.5, lowIntervals: 0.4, roughness: 0.5 },
  candidates: necked({ id: "comp", fewer: 0.2, more: 0.8, doubled: 1, inverted: 0.2, open: 1.5, known: false }),
};
