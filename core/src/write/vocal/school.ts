import type { Midi } from "../../theory/pitch/pitch";
import type { Ticks } from "../../theory/time/meter";
import type { RealizedChord, RealizedNote } from "../../song/realize";
import type { Reason } from "../../song/schema";
import type { LineStyle } from "../lines/kind";
import type { VocalContext } from "./context";
import type { VocalSettings } from "./settings";

/** A place of the rhythm of all voices. */
export interface VocalSlot {
  start: Ticks;
  duration: Ticks;
  /** The note of the tune it goes with; null where voices go by themselves. */
  lead: RealizedNote | null;
  chord: RealizedChord | null;
  /** Where the tune stands as the place ends, where it moves within it. */
  leadEnd?: Midi;
  /** A rest lies before it, or it is the first: nothing leads here. */
  fresh: boolean;
  /** Goes on from the place before: one note where the pitch stays. */
  joins: boolean;
}

/** One way of setting all voices at a place, high to low, and what it costs by itself. */
export interface Stack {
  pitches: readonly Midi[];
  cost: number;
}

/** One plan of a school for a section. */
export interface VocalWay {
  title: string;
  slots: readonly VocalSlot[];
  /** Ways of setting the voices there; none: they rest. */
  stacks(slot: VocalSlot): Stack[];
  /** What a move costs beside the common costs; Infinity forbids it. */
  step?(from: Stack, to: Stack, a: VocalSlot, b: VocalSlot): number;
  /** The voices copy or stand by design: moving costs nothing. */
  free?: boolean;
  /** Different settings of one plan are offered. */
  several?: boolean;
  /** Why a note of the finished voice is there; `kept`: it is the note before once more, with no rest between. */
  reason(note: { voice: number; slot: VocalSlot; midi: Midi; kept: boolean }): Reason;
}

export interface VocalTargets {
  /** Least share of time on chord tones. */
  chordTime?: number;
  /** Its pitches are given: how they go with tune, key and chords is told, not aimed at. */
  given?: boolean;
  /** Independent voices: parallels, spacing and tendency tones count. */
  strict?: boolean;
  /** Moves like the tune, so parallels are its nature. */
  parallel?: boolean;
}

/** A way of writing voices beside a tune, and what it assumes: one file each in schools/. */
export interface VocalSchool extends LineStyle<VocalSettings> {
  /** How many voices it can write, the tune not counted. */
  voices: readonly [least: number, most: number];
  /**
   * Types of voice for parts that are still to be added, high to low; where the tune lies decides where it is absent.
   */
  types?: readonly string[];
  /** What must be there. */
  needs: readonly ("tune" | "chords")[];
  targets: VocalTargets;
  /** Settings that mean something for it. */
  uses: readonly (keyof VocalSettings)[];
  /** Sings a syllable of its own, not the words of the tune. */
  behind?: boolean;
  /** Its plans, the wanted one first. */
  ways(ctx: VocalContext): VocalWay[];
}
