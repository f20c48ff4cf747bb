import type { Ticks } from "../time/meter";
import type { BassContext, BassTargets } from "./context";

/**
 * What a slot of the rhythm is for: an anchor states the chord, a kick slot doubles the kick, a hook stands off the kick, an octave lifts,
 * an approach leads into the next anchor, a turn makes the last bar differ.
 */
export type SlotUse = "anchor" | "kick" | "hook" | "octave" | "approach" | "turn";

export interface Slot {
  start: Ticks;
  duration: Ticks;
  use: SlotUse;
}

/** Cost of each chord tone in slots that are not anchors; lower is liked better. */
export interface Taste {
  root: number;
  fifth: number;
  /** Over major chords the fifth is the safer colour, over minor chords the third is welcome (common practice). */
  majorThird: number;
  minorThird: number;
  seventh: number;
  other: number;
  octave: number;
  repeat: number;
}

/** A way of playing bass: one file each in styles/. */
export interface BassStyle {
  id: string;
  title: string;
  /** One paragraph, shown in the interface. */
  explanation: string;
  source: string;
  targets: BassTargets;
  taste: Taste;
  /** Glides where the setting does not say otherwise. */
  glides: boolean;
  /** The rhythm; every main accent inside a chord must be among the slots. */
  rhythm(ctx: BassContext, chance: () => number): Slot[];
}
