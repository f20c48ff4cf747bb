import { nth } from "../../base/list";
import { mod, type Midi } from "../../theory/pitch/pitch";
import { metricalLevel } from "../../theory/time/meter";
import { chordPitchClasses, toneRole } from "../../theory/chord/chord";
import type { RealizedChord } from "../../song/realize";
import { cheapestSecond, type SecondOrder } from "../../search/second";
import { motionAgainst } from "../../theory/motion/motion";
import { isTension } from "../../hear/slice/roles";
import type { Pinned } from "../lines/slots";
import { rubbedBeats, rubsInCounter } from "./clash";
import { chordAt, REACH, type CounterContext } from "./context";
import type { CounterSlot, CounterStyle, PlacedSlot } from "./style";

/** How a pitch stands to the chord of its slot. */
export type Standing = "chord" | "color" | "passing" | "suspension" | "free";

export interface Candidate {
  midi: Midi;
  cost: number;
  standing: Standing;
  /** The note that sounds under it, in double-stops. */
  under?: Midi;
}

/** A slot with its chord, the tune at its beginning, and the pitches it may take. */
export interface PitchSlot extends PlacedSlot, Pinned {
  candidates: Candidate[];
}

/** Costs that are the same for every style (common practice). */
const COST = {
  away: 0.03,
  crosses: 2.5,
  close: 0.5,
  doublesOctave: 1.2,
  doublesUnison: 3,
  passing: 0.45,
  offBeatRub: 1.5,
  suspension: 0.1,
  astray: 0.12,
  tritone: 0.8,
  seventh: 1.6,
  octave: 0.5,
  wide: 3,
  parallel: 6,
  lessWanted: 0.05,
  keeps: -1.5,
  ruledRub: 4,
  sameWay: 0.35,
  wrongWay: 0.6,
} as const;

const within = (ctx: CounterContext, midi: Midi): boolean => midi >= ctx.range[0] && midi <= ctx.range[1];

/** Slots with their candidates and costs. Null where a slot has none; `at` is the slot. */
export function pitchSlots(
  ctx: CounterContext,
  style: CounterStyle,
  slots: readonly (CounterSlot & Pinned)[],
): { slots: PitchSlot[]; stuck: (CounterSlot & Pinned)[] } {
  const stuck: (CounterSlot & Pinned)[] = [];
  const open = slots.flatMap((slot, index): PitchSlot[] => {
    const chord = chordAt(ctx, Math.max(0, slot.start));
    const tune = ctx.tuneAt(slot.start)?.midi ?? null;
    // Nothing leads to the first note.
    const base = { ...slot, ...(index === 0 ? { fresh: true } : {}), chord, tune };
    const only = slot.pinMidi ?? slot.fixed;
    if (only !== undefined) {
      const inChord = !chord?.chord || chordPitchClasses(chord.chord).includes(mod(only, 12));
      return [{ ...base, candidates: [{ midi: only, cost: 0, standing: inChord ? "chord" : "free" }] }];
    }
    const [low, high] = [Math.max(ctx.range[0], ctx.home - REACH), Math.min(ctx.range[1], ctx.home + REACH)];
    const candidates: Candidate[] = [];
    for (let midi = low; midi <= high; midi++)
      candidates.push(...candidatesFor(ctx, style, base, { next: slots[index + 1], midi }));
    if (!candidates.length) stuck.push(slot);
    return candidates.length ? [{ ...base, candidates }] : [];
  });
  return { slots: open, stuck };
}

type Based = PlacedSlot & Pinned;

function candidatesFor(
  ctx: CounterContext,
  style: CounterStyle,
  slot: Based,
  { next, midi }: { next: CounterSlot | undefined; midi: Midi },
): Candidate[] {
  if (style.rules) {
    const cost = style.rules.node(ctx, slot, midi);
    // The chords are heard last: of what the rules let stand, what does not rub against them.
    const rubs = rubbedBeats(ctx, midi, slot.start, slot.duration).length ? COST.ruledRub : 0;
    return cost === Infinity ? [] : [{ midi, cost: cost + rubs + place(ctx, slot, midi), standing: "chord" }];
  }
  const rubbed = rubbedBeats(ctx, midi, slot.start, slot.duration).length > 0;
  return standings(ctx, style, { slot, next, midi, rubbed }).flatMap(([standing, own]): Candidate[] => {
    const cost = own + place(ctx, slot, midi) + (!rubbed && rubsInCounter(ctx, midi, slot.start) ? COST.offBeatRub : 0);
    const { under: unders } = slot;
    if (!unders) return [{ midi, cost, standing }];
    if (standing !== "chord") return [];
    // The best two of the notes that fit under it: the line is chosen by its upper notes.
    return unders
      .flatMap((below, rank): Candidate[] => {
        const under = midi - below;
        const fits =
          within(ctx, under) &&
          belongs(slot.chord, under) &&
          !rubbedBeats(ctx, under, slot.start, slot.duration).length;
        const doubles = under === slot.tune ? COST.doublesUnison : 0;
        return fits
          ? [{ midi, cost: cost + rank * COST.lessWanted + crossed(ctx, slot, under) + doubles, standing, under }]
          : [];
      })
      .sort((a, b) => a.cost - b.cost)
      .slice(0, 2);
  });
}

const belongs = (chord: RealizedChord | null, midi: Midi): boolean =>
  !chord?.chord || chordPitchClasses(chord.chord).includes(mod(midi, 12));

/** Chords a slot sounds through that a pitch does not belong to. */
const leaves = (ctx: CounterContext, slot: Based, midi: Midi): boolean => {
  for (let at = slot.start; at < slot.start + slot.duration;) {
    const chord = chordAt(ctx, Math.max(0, at));
    if (!chord) return false;
    if (chord !== slot.chord && !belongs(chord, midi)) return true;
    at = Math.max(0, chord.start) + chord.duration;
  }
  return false;
};

/** A pitch that is tried in a slot. */
interface Tried {
  slot: Based;
  next: CounterSlot | undefined;
  midi: Midi;
  rubbed: boolean;
}

/** What it costs to leave the chord before the note ends. */
const LEAVES = 2;

/** Whether a slot may pass through a tone: short, and weaker than what it leads to, without a rest. */
function passesThrough(ctx: CounterContext, { slot, next }: Tried): boolean {
  if (!slot.passes || next?.start !== slot.start + slot.duration) return false;
  const beat = nth(ctx.meter.beats, 0).duration;
  return slot.duration <= beat && metricalLevel(ctx.meter, slot.start) < metricalLevel(ctx.meter, next.start);
}

/** Whether a tone may hang over here and resolve: what follows is there at once, and it is no longer than a bar. */
const hangsOver = (ctx: CounterContext, { slot, next }: Tried): boolean =>
  slot.suspends === true && next?.start === slot.start + slot.duration && slot.duration <= ctx.meter.bar;

/** What a pitch can be in a slot, with what each costs. */
function standings(ctx: CounterContext, { costs }: CounterStyle, tried: Tried): [Standing, number][] {
  const { slot, midi, rubbed } = tried;
  const pc = mod(midi, 12);
  const inKey = ctx.key.pcs.includes(pc);
  const chord = slot.chord?.chord;
  if (!chord) return inKey && !rubbed ? [["free", costs.tones.other]] : [];
  const { role, inChord } = toneRole(chord, pc);
  const leaving = () => (leaves(ctx, slot, midi) ? LEAVES : 0);
  if (inChord) return rubbed ? [] : [["chord", (costs.tones[role] ?? costs.tones.other) + leaving()]];
  return outsideStandings(ctx, tried, { color: costs.color, moves: !slot.fresh && inKey, leaving });
}

/** What a pitch outside the chord can be: a color, or, where it comes from a note before and is in the key, led. */
function outsideStandings(
  ctx: CounterContext,
  tried: Tried,
  { color, moves, leaving }: { color: number | undefined; moves: boolean; leaving: () => number },
): [Standing, number][] {
  const chord = tried.slot.chord?.chord;
  // Prepared and resolved, it may rub: that is what a suspension is for.
  const hangs: [Standing, number][] = moves && hangsOver(ctx, tried) ? [["suspension", COST.suspension]] : [];
  if (tried.rubbed || !chord) return hangs;
  const out: [Standing, number][] = [];
  if (color !== undefined && isTension(chord, mod(tried.midi, 12), ctx.key)) out.push(["color", color + leaving()]);
  if (moves && passesThrough(ctx, tried)) out.push(["passing", COST.passing]);
  return [...out, ...hangs];
}

/** What it costs to lie on the other side of the tune. */
const crossed = (ctx: CounterContext, { tune }: Based, midi: Midi): number =>
  tune !== null && (ctx.side === "below" ? midi > tune : midi < tune) ? COST.crosses : 0;

/** What a pitch costs by where it lies: far from home, across the tune, close to it, doubling it. */
function place(ctx: CounterContext, slot: Based, midi: Midi): number {
  let cost =
    crossed(ctx, slot, midi) +
    Math.abs(midi - ctx.home) * COST.away +
    (slot.near === undefined ? 0 : Math.abs(midi - slot.near) * COST.astray);
  if (slot.tune === null) return cost;
  const apart = ctx.side === "below" ? slot.tune - midi : midi - slot.tune;
  if (apart > 0 && apart < 3) cost += COST.close;
  if (apart === 0) cost += COST.doublesUnison;
  else if (apart % 12 === 0) cost += COST.doublesOctave;
  return cost;
}

/** A tone that is passed through comes and goes by step; a suspension is held over and falls by step. */
function joins(from: Candidate, to: Candidate): boolean {
  const move = to.midi - from.midi;
  const step = Math.abs(move) === 1 || Math.abs(move) === 2;
  const stands = (c: Candidate) => c.standing !== "passing" && c.standing !== "suspension";
  if (to.standing === "passing" && !(step && stands(from))) return false;
  if (from.standing === "passing" && !(step && stands(to))) return false;
  if (to.standing === "suspension" && !(move === 0 && from.standing === "chord")) return false;
  return !(from.standing === "suspension" && !(move < 0 && step && to.standing === "chord"));
}

/** What the interval of a move costs by itself. */
function intervalCost(size: number): number {
  if (size === 6) return COST.tritone;
  if (size === 10 || size === 11) return COST.seventh;
  if (size === 12) return COST.octave;
  return size > 12 ? COST.wide : 0;
}

/** What a move costs by its size: staying, a step, or so much a semitone. */
function sizeCost({ costs }: CounterStyle, b: PitchSlot, to: Candidate, size: number): number {
  if (size > 2) return size * costs.leap;
  if (size > 0) return costs.step;
  if (b.keeps) return COST.keeps;
  return to.standing === "suspension" ? 0 : costs.repeat;
}

/** What a move costs against that of the tune. */
function againstTune({ costs }: CounterStyle, [a, b]: readonly [PitchSlot, PitchSlot], from: Midi, to: Midi): number {
  if (a.tune === null || b.tune === null) return 0;
  const { kind, parallel } = motionAgainst(from, to, a.tune, b.tune);
  return (parallel ? COST.parallel : 0) + (kind === "similar" || kind === "parallel" ? costs.similar : 0);
}

const isLeft = ({ standing }: Candidate): boolean => standing === "passing" || standing === "suspension";

function counterStep(
  style: CounterStyle,
  a: PitchSlot,
  b: PitchSlot,
  { from, to }: { from: Candidate; to: Candidate },
): number {
  // A pinned note is left and reached as the user wants it; its conflicts are reported instead.
  const pinned = [a, b].some((s) => s.pin !== undefined || s.fixed !== undefined);
  if (b.fresh) return !pinned && (isLeft(to) || from.standing === "passing") ? Infinity : 0;
  if (!pinned && !joins(from, to)) return Infinity;
  const move = to.midi - from.midi;
  const size = Math.abs(move);
  const wrong = a.way && Math.sign(move) !== a.way ? COST.wrongWay * (size === 0 ? 0.6 : 1) : 0;
  return sizeCost(style, b, to, size) + intervalCost(size) + wrong + againstTune(style, [a, b], from.midi, to.midi);
}

/** What three notes in a row cost: a leap wants a step back, and not another leap on. */
function turnCost({ costs }: CounterStyle, a: Candidate, b: Candidate, c: Candidate): number {
  const [first, second] = [b.midi - a.midi, c.midi - b.midi];
  if (Math.abs(first) < 5) return 0;
  const back = Math.sign(second) === -Math.sign(first);
  if (back && Math.abs(second) <= 2) return 0;
  return costs.unanswered * (back || second === 0 ? 0.5 : 1);
}

/** The line as a lattice. */
export function lineLattice(style: CounterStyle, slots: readonly PitchSlot[]): SecondOrder {
  const at = (c: number, i: number) => nth(nth(slots, c).candidates, i);
  const { rules } = style;
  return {
    sizes: slots.map((s) => s.candidates.length),
    node: (c, i) => at(c, i).cost,
    step: (c, i, j) =>
      rules
        ? rules.step(slots, c, at(c, i).midi, at(c + 1, j).midi)
        : counterStep(style, nth(slots, c), nth(slots, c + 1), { from: at(c, i), to: at(c + 1, j) }),
    turn: (c, i, j, k) => {
      if (rules) return rules.turn(slots, c, [at(c, i).midi, at(c + 1, j).midi, at(c + 2, k).midi]);
      return nth(slots, c + 1).fresh || nth(slots, c + 2).fresh
        ? 0
        : turnCost(style, at(c, i), at(c + 1, j), at(c + 2, k));
    },
  };
}

/** The cheapest pitches; null where no line is possible. */
export const choosePitches = (style: CounterStyle, slots: readonly PitchSlot[]): number[] | null =>
  cheapestSecond(lineLattice(style, slots))?.picks ?? null;

/** Share of notes in which another line differs, so that one hears it is another. */
const OTHER = 0.25;

/**
 * Another line on the same rhythm: the tones that the first one took cost more and more, in every octave, until a
 * quarter of the notes differ.
 */
export function otherPitches(
  style: CounterStyle,
  slots: readonly PitchSlot[],
  taken: readonly number[],
): { slots: PitchSlot[]; picks: number[] } | null {
  const tone = (c: number, i: number) => mod(nth(nth(slots, c).candidates, i).midi, 12);
  for (const surcharge of [0.3, 0.7, 1.5]) {
    const turned = slots.map((s, c) => ({
      ...s,
      candidates: s.candidates.map((x, i) =>
        s.candidates.length > 1 && tone(c, i) === tone(c, nth(taken, c)) ? { ...x, cost: x.cost + surcharge } : x,
      ),
    }));
    const picks = choosePitches(style, turned);
    if (picks && picks.filter((p, c) => tone(c, p) !== tone(c, nth(taken, c))).length >= slots.length * OTHER)
      return { slots: turned, picks };
  }
  return null;
}
