import { nth, sure } from "../../base/list";
import { onceFor } from "../../base/once";
import { mod, type Midi, type PitchClass } from "../../theory/pitch/pitch";
import { bassPc, chordPitchClasses, toneRole } from "../../theory/chord/chord";
import type { RealizedChord } from "../../song/realize";
import type { Pinned } from "../lines/slots";
import { beatLength, chordAt, lowestTuneAt, type BassContext } from "./context";
import type { BassStyle, Slot } from "./style";

/** A slot as the writer holds it. A pinned note is a slot with one pitch. */
export type OpenSlot = Slot &
  Pinned & {
    /** It is not written: it stands for the first note of what follows in the form. */
    beyond?: NonNullable<BassContext["onward"]>;
  };

/** The slots of a line with the note to which it leads on. */
const withOnward = ({ onward, length }: BassContext, slots: OpenSlot[]): OpenSlot[] =>
  onward && slots.length
    ? [
        ...slots,
        {
          start: length + Math.max(0, onward.first?.after ?? 0),
          duration: onward.chord.duration,
          use: "anchor",
          beyond: onward,
        },
      ]
    : slots;

export interface Candidate {
  midi: Midi;
  cost: number;
  inChord: boolean;
  /** A step of the scale between chord tones. */
  scale?: boolean;
  /** Belongs to the chord that comes. */
  ahead?: boolean;
  /** The way the line came here, where the style minds turns: one candidate for each. */
  way?: 1 | -1;
}

/** A slot with the pitches it may take. */
export interface PitchSlot extends OpenSlot {
  chord: RealizedChord | null;
  candidates: Candidate[];
}

/** Costs that are the same for every style (common practice). */
const COST = {
  prefers: 0.6,
  unpreferred: 1.1,
  middle: 0.05,
  underTune: 2.5,
  otherOctave: 1.6,
  firstInverted: 1.5,
  seventhBelow: 1.2,
  anchor: { fifth: 4, root: 5, other: 6 },
  /** A tone that leads into the next root: by a semitone, by a step of the key, by another one. */
  approach: { semitone: 0.25, inKey: 0.4, outside: 1.2 },
} as const;

/**
 * What a fifth costs beside what the style says, and the share of its cost that a third keeps, by what is liked over
 * the chord.
 */
const FIFTH_WHERE = { third: 0.8, either: 0, fifth: -0.1 } as const;
const THIRD_WHERE = { third: 0.5, either: 0.8, fifth: 1 } as const;

const pedalCandidate = (midi: Midi, pedal: PitchClass): Candidate | null =>
  mod(midi, 12) === pedal ? { midi, cost: 0, inChord: true } : null;

/** Whether a slot is heard to go on into the next: it lasts to it, or comes no more than a beat before. */
const leadsInto = (ctx: BassContext, slot: OpenSlot, next: OpenSlot): boolean =>
  (slot.start + slot.duration) % ctx.length === next.start % ctx.length ||
  next.start - slot.start <= beatLength(ctx, slot.start);

/**
 * Candidates of every slot with their costs: chord tones by the style's costs; where the slot leads on, also tones a
 * step beside the next.
 */
export function pitchSlots(
  ctx: BassContext,
  style: BassStyle,
  slots: readonly OpenSlot[],
  pedal?: PitchClass,
): PitchSlot[] {
  return withOnward(ctx, [...slots])
    .map((slot, index, all): PitchSlot => {
      const center = centerOf(ctx);
      if (slot.beyond)
        return { ...slot, chord: slot.beyond.chord, candidates: firstOnward(slot.beyond, ctx.range, center) };
      const chord = chordAt(ctx, slot.start);
      if (slot.pinMidi !== undefined) {
        const inChord = !chord?.chord || chordPitchClasses(chord.chord).includes(mod(slot.pinMidi, 12));
        return { ...slot, chord, candidates: [{ midi: slot.pinMidi, cost: 0, inChord }] };
      }
      if (!chord?.chord) return { ...slot, chord, candidates: [] };
      const next = nth(all, (index + 1) % all.length);
      const ahead = next.beyond?.chord ?? chordAt(ctx, next.start);
      const most = (style.targets.longestOutside ?? 1) * beatLength(ctx, slot.start);
      const place = {
        ...{ slot, chord, center },
        next: ahead?.chord && ahead !== chord ? bassPc(ahead.chord) : null,
        passes: leadsInto(ctx, slot, next) && slot.duration <= most,
      };
      return { ...slot, chord, candidates: candidatesAt(ctx, style, place, pedal) };
    })
    .filter((slot) => slot.candidates.length > 0);
}

/** Where a line likes to lie: a little under the middle of its range. */
const centerOf = ({ range: [low, high] }: BassContext): number => low + (high - low) * 0.4;

/** All pitches of the range that a slot may take; the same list where the same may be taken. */
function candidatesAt(
  ctx: BassContext,
  style: BassStyle,
  place: Omit<Tried, "midi">,
  pedal: PitchClass | undefined,
): Candidate[] {
  const { slot, chord, next, passes } = place;
  const tune = ctx.settings.melody ? lowestTuneAt(ctx, slot.start) : null;
  const id = [style.id, chord.symbol, next, slot.use, slot.prefers, passes, !slot.start, tune, pedal].join("|");
  return onceFor([ctx], id, () => candidatesIn(ctx, style, place, { pedal, tune }));
}

function candidatesIn(
  ctx: BassContext,
  style: BassStyle,
  place: Omit<Tried, "midi">,
  { pedal, tune }: { pedal: PitchClass | undefined; tune: Midi | null },
): Candidate[] {
  const [low, high] = ctx.range;
  const out: Candidate[] = [];
  for (let midi = low; midi <= high; midi++) {
    const found = pedal === undefined ? candidateOf(ctx, style, { ...place, midi }) : pedalCandidate(midi, pedal);
    if (!found) continue;
    const underTune = tune !== null && midi > tune - 12 ? COST.underTune + (midi - tune + 12) * 0.2 : 0;
    const cost = found.cost + Math.abs(midi - place.center) * COST.middle + underTune;
    if (style.costs.reverse === undefined) out.push({ ...found, cost });
    else out.push({ ...found, cost, way: 1 }, { ...found, cost, way: -1 });
  }
  return out;
}

/** Whether a bass note leads on to another: by step, or by a fifth or fourth. */
export const leadsTo = (from: Midi, to: Midi): boolean => [1, 2, 5, 7, 10, 11].includes(mod(from - to, 12));

/** What the line leads on to: the note that is written there, else the bass of the chord in any octave of the range. */
function firstOnward(
  { chord, first }: NonNullable<BassContext["onward"]>,
  [low, high]: [Midi, Midi],
  center: Midi,
): Candidate[] {
  if (first) return [{ midi: first.midi, cost: 0, inChord: true }];
  const pc = bassPc(sure(chord.chord));
  return Array.from({ length: high - low + 1 }, (_, i) => low + i)
    .filter((midi) => mod(midi, 12) === pc)
    .map((midi) => ({ midi, cost: Math.abs(midi - center) * COST.middle, inChord: true }));
}

const TONES: Record<string, readonly string[]> = {
  "3": ["3", "b3", "4", "2"],
  "5": ["5", "b5", "#5"],
  "7": ["7", "b7", "bb7", "6"],
};

/** Position of a tone among the wishes of a slot; −1 where it is none of them. */
function preferenceOf(
  prefers: readonly string[],
  role: string,
  isBass: boolean,
  { high, overRoot }: { high: boolean; overRoot: boolean },
): number {
  return prefers.findIndex((w) => {
    if (w === "bass") return isBass && !high;
    if (w === "8") return isBass && high;
    if (w === "5up") return overRoot && sure(TONES["5"]).includes(role);
    return (TONES[w] ?? [w]).includes(role);
  });
}

/** A pitch that is tried in a slot. */
interface Tried {
  slot: Slot;
  chord: RealizedChord;
  /** The bass of the chord that comes; null where it stays the same. */
  next: PitchClass | null;
  /** Whether tones outside the chord may stand here: it leads on, and is short enough for one. */
  passes: boolean;
  midi: Midi;
  center: Midi;
}

/** What an anchor costs that states the written bass; a preference only says in which octave. */
function anchorCost(role: string, isBass: boolean, at: number): number {
  if (isBass) return at && COST.otherOctave;
  if (role === "5") return COST.anchor.fifth;
  return role === "R" ? COST.anchor.root : COST.anchor.other;
}

/** A beginning wants its root; a major seventh in the bass clashes with the root above it. */
const invertedCost = (slot: OpenSlot, role: string, isBass: boolean): number =>
  (slot.start === 0 && !isBass ? COST.firstInverted : 0) + (role === "7" ? COST.seventhBelow : 0);

/** A tone of the chord; `beside` is how far it lies from the bass that comes. */
function toneCandidate(
  ctx: BassContext,
  style: BassStyle,
  { slot, chord, midi, center }: Tried,
  { role, beside }: { role: string; beside: number | null },
): Candidate {
  const isBass = mod(midi, 12) === bassPc(sure(chord.chord));
  const [low] = ctx.range;
  const high = midi >= center && midi - 12 >= low;
  // Over a root that lies low.
  const overRoot = midi - 7 >= low && !(midi - 7 >= center && midi - 19 >= low);
  const at = slot.prefers ? preferenceOf(slot.prefers, role, isBass, { high, overRoot }) : 0;
  const tone = (cost: number): Candidate => ({ midi, inChord: true, cost });
  if (slot.use === "anchor" && !style.inverts) return tone(anchorCost(role, isBass, at));
  const placed = slot.use === "anchor" ? invertedCost(slot, role, isBass) : 0;
  const own = toneCost(ctx, style, { chord, role, isBass, octave: slot.use === "octave" }) + placed;
  // In a slot that leads on, a chord tone that lies a step beside the next root is as good as an approach from
  // outside.
  if (slot.use === "approach") return tone(beside === 1 || beside === 2 ? 0.15 : own + 1);
  if (!slot.prefers) return tone(own);
  return tone(at < 0 ? own + COST.unpreferred : at * COST.prefers);
}

/** A tone outside the chord, where the slot leads on and is short enough for one. */
function outsideCandidate(ctx: BassContext, { slot, passes, midi }: Tried, beside: number | null): Candidate | null {
  if (!passes) return null;
  const inKey = ctx.key.pcs.includes(mod(midi, 12));
  if (slot.use === "approach" || slot.use === "ending") {
    // Approach notes aim at the next chord's bass: a scale step, or a semitone from below or above.
    if (beside === null || beside > 2 || beside === 0) return null;
    const step = inKey ? COST.approach.inKey : COST.approach.outside;
    return { midi, inChord: false, cost: beside === 1 ? COST.approach.semitone : step };
  }
  return slot.use === "scale" && inKey ? { midi, inChord: false, cost: 0.5, scale: true } : null;
}

function candidateOf(ctx: BassContext, style: BassStyle, tried: Tried): Candidate | null {
  const { slot, chord, next, midi } = tried;
  const pc = mod(midi, 12);
  const { role, inChord } = toneRole(sure(chord.chord), pc);
  const beside = next === null ? null : Math.min(mod(next - pc, 12), mod(pc - next, 12));
  if (slot.use === "push" && next === pc && slot.prefers?.includes("next"))
    return { midi, cost: 0, inChord, ...(inChord ? {} : { ahead: true }) };
  return inChord ? toneCandidate(ctx, style, tried, { role, beside }) : outsideCandidate(ctx, tried, beside);
}

const FIFTHS: ReadonlySet<string> = new Set(["5", "b5", "#5"]);
const SEVENTHS: ReadonlySet<string> = new Set(["b7", "7", "bb7", "6"]);

/** The style's costs, bent by what the settings say of thirds and fifths over major and minor chords. */
function toneCost(
  ctx: BassContext,
  { costs }: BassStyle,
  { chord, role, isBass, octave }: { chord: RealizedChord; role: string; isBass: boolean; octave: boolean },
): number {
  if (isBass) return octave ? costs.octave : costs.root;
  if (role === "R") return costs.root + 0.5;
  if (SEVENTHS.has(role)) return costs.seventh;
  const minor = sure(chord.chord).tones.some((t) => t.role === "b3");
  const liked = minor ? ctx.settings.overMinor : ctx.settings.overMajor;
  if (FIFTHS.has(role)) return Math.max(0, costs.fifth + FIFTH_WHERE[liked] + (role === "5" ? 0 : 0.2));
  if (role === "3") return Math.max(0.1, costs.majorThird * THIRD_WHERE[liked]);
  return role === "b3" ? Math.max(0.1, costs.minorThird * THIRD_WHERE[liked]) : costs.other;
}
