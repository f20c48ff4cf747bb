import type { PitchClass } from "../../theory/pitch/pitch";
import type { Ticks } from "../../theory/time/meter";
import type { LineStyle } from "../lines/kind";
import type { BassContext } from "./context";
import type { BassSettings } from "./settings";

/**
 * What a slot of the rhythm is for: an anchor states the chord, a kick slot doubles the kick, a hook stands off the
 * kick, an octave lifts, an approach leads into the next anchor, an ending makes the last bar differ, a scale slot
 * steps on, a weave slot meets another player's accent, a push takes the next chord early.
 */
export type SlotUse = "anchor" | "kick" | "hook" | "octave" | "approach" | "ending" | "scale" | "weave" | "push";

export interface Slot {
  start: Ticks;
  duration: Ticks;
  use: SlotUse;
  /**
   * Tones that are wished for, best first: roles over the chord, "8" for the bass an octave up, "bass" for the written
   * bass, "5up" for the fifth above it.
   */
  prefers?: readonly string[];
  /** Player whose accent a weave slot meets. */
  with?: string;
  /** A gap of the melody lies here. */
  inGap?: boolean;
}

/** A place where a style may sound. */
export interface RhythmPlace {
  at: Ticks;
  use: SlotUse;
  /** How much the style wants it: 1 always, 0.5 at medium density, near 0 only in the busiest line. */
  priority: number;
  prefers?: readonly string[];
  with?: string;
}

/** Cost of each chord tone in slots that are not anchors; lower is liked better. */
export interface ToneCosts {
  root: number;
  fifth: number;
  /** Over major chords the fifth is the safer color, over minor chords the third is welcome (common practice). */
  majorThird: number;
  minorThird: number;
  seventh: number;
  other: number;
  octave: number;
  repeat: number;
  /** Cost of a semitone of leap. */
  leap?: number;
  /** Cost of a change of direction, where the line should go on the way it goes. */
  reverse?: number;
}

export interface BassTargets {
  /** Largest number of different pitch classes in a figure. */
  pitchClasses: number;
  /** Longest time outside the chord, in beats; null where that is the point of the style. */
  longestOutside: number | null;
  /** Least share of time on chord tones. */
  chordTime: number;
  /** Share of the section that is silent, at least and at most. */
  silence?: [number, number];
  /** Largest share of notes away from the kick, where there is a kick on most beats. */
  offKick?: number;
  /** Least share of moves that are steps or repeats. */
  stepwise?: number;
}

/** A way of playing bass: one file each in styles/. */
export interface BassStyle extends LineStyle<BassSettings> {
  targets: BassTargets;
  costs: ToneCosts;
  /** Every place where it may sound. Beginnings of chords and the kicks it must meet are added to these. */
  places(ctx: BassContext): RhythmPlace[];
  /** How long a note is held at most, in ticks; it always ends where the next one or its chord does. */
  hold(ctx: BassContext, start: Ticks, use: SlotUse): Ticks;
  /** Notes that are held under all chords, where the style has one: each gives a line of its own. */
  pedals?(ctx: BassContext): PitchClass[];
  /** Anchors may take any tone of the chord: the bass chooses the inversion. */
  inverts?: boolean;
  /** Notes sound on into the next chord where they belong to it. */
  sustains?: boolean;
}
