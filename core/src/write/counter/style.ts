import type { Midi, Semitones } from "../../theory/pitch/pitch";
import type { Ticks } from "../../theory/time/meter";
import type { RealizedChord } from "../../song/realize";
import type { Reason } from "../../song/schema";
import type { LineStyle } from "../lines/kind";
import type { SeenNote } from "../lines/seen";
import type { CounterContext } from "./context";
import type { CounterSettings } from "./settings";

/** A place of the rhythm with what the style wishes for there. */
export interface CounterSlot {
  start: Ticks;
  duration: Ticks;
  /** The way the line should go from here to the next slot. */
  way?: 1 | -1;
  /** Tones outside the chord may stand here, where they are passed through by step. */
  passes?: boolean;
  /** A tone of the chord before may be held here and resolve down by step. */
  suspends?: boolean;
  /** The one pitch it has, where nothing is to be chosen. */
  fixed?: number;
  /** How the cell it belongs to goes over the chords. */
  cell?: CounterSettings["cell"];
  /** How far below it another note sounds, best first. */
  under?: readonly Semitones[];
  /** A pitch it stays close to. */
  near?: number;
  /** The pitch its cell has here before it goes over other chords. */
  model?: number;
  /** It likes to be the note before once more. */
  keeps?: boolean;
  /** Joined to the note before where both have one pitch: a tone that lasts through a change of chord. */
  ties?: boolean;
  /** A rest lies before it: the note before does not lead here. */
  fresh?: boolean;
}

/** What the pitches of a style cost; lower is liked better (common practice throughout). */
export interface CounterCosts {
  /** Of each tone of a chord by its role; `other` for those that are not named. */
  tones: Partial<Record<string, number>> & { other: number };
  /** Of a color: a tone outside the chord that does not contradict it; absent where it is not used as one. */
  color?: number;
  repeat: number;
  /** Of a step, and of a semitone of a wider move. */
  step: number;
  leap: number;
  /** Of a move of the line in the direction of the tune. */
  similar: number;
  /** Of a leap that is not answered by a step the other way. */
  unanswered: number;
}

export interface CounterTargets {
  /** Largest share of the line's time in which the tune sounds as well. */
  overlap?: number;
  /** Least share of moves that go against the tune or while it stands. */
  independent?: number;
  /** Largest share of attacks together with the tune. */
  together?: number;
  /** Least share of time on chord tones. */
  chordTime?: number;
  /** Most different notes in any two bars. */
  pitches?: number;
  /** Least share of moves by step or repeat. */
  stepwise?: number;
  /** Least share of notes that are the third or seventh of their chord. */
  guides?: number;
  /** Least share of moves down, within a figure. */
  falls?: number;
  /** Every hit of the drum is met. */
  hits?: boolean;
  /** Begins in gaps of the tune and ends before it goes on. */
  answers?: boolean;
  /** Its pitches are given: how they go with the tune is told, not aimed at. */
  given?: boolean;
  /** Strict rules against the tune. */
  strict?: boolean;
}

/** A slot with the chord and the tune at its beginning. */
export type PlacedSlot = CounterSlot & { chord: RealizedChord | null; tune: Midi | null };

/** Rules of a style of its own for the pitches, in place of the common costs. */
export interface PitchRules {
  /** Infinity forbids a pitch. */
  node(ctx: CounterContext, slot: PlacedSlot, midi: Midi): number;
  step(slots: readonly PlacedSlot[], column: number, from: Midi, to: Midi): number;
  turn(slots: readonly PlacedSlot[], column: number, midis: readonly [Midi, Midi, Midi]): number;
}

/** A note of a finished line as it is asked for its reason, with the place it was written into. */
export interface WrittenNote {
  ctx: CounterContext;
  slot: CounterSlot;
  note: SeenNote;
  /** What it is over its chord, for the words of a reason. */
  own: { role: string; chord: string };
}

/** A way of writing a counter melody: one file each in styles/. */
export interface CounterStyle extends LineStyle<CounterSettings> {
  targets: CounterTargets;
  costs: CounterCosts;
  /** Its rhythm; empty where the material offers no place, and then `nothing` says why. */
  slots(ctx: CounterContext, seed: number, attempt: number): CounterSlot[];
  /** What each attempt is called, where it is not another rhythm. */
  titles?(ctx: CounterContext): readonly string[];
  nothing?(ctx: CounterContext): { message: string; hint: string };
  rules?: PitchRules;
  /** Why a note is there, where the style has words of its own for it and the finished line bears them out. */
  reason?(note: WrittenNote): Reason | null;
  /** It hears the tune and the key; chords need not be there. */
  withoutChords?: boolean;
  /** Settings that mean something for it. */
  uses: readonly (keyof CounterSettings)[];
}

/** Costs that most styles share: tones of the chord are alike, steps are easy, the tune is not followed about. */
export const COSTS: CounterCosts = {
  tones: { "3": 0, b3: 0, "7": 0.2, b7: 0.1, "9": 0.2, "6": 0.2, "13": 0.3, "5": 0.25, R: 0.35, other: 0.3 },
  color: 1.1,
  repeat: 0.4,
  step: 0,
  leap: 0.09,
  similar: 0.25,
  unanswered: 0.7,
};
