import type { Key } from "../../theory/pitch/key";
import type { Meter, Ticks } from "../../theory/time/meter";
import type { Chord } from "../../theory/chord/chord";
import type { Lines } from "./fit";
import type { ChordEvent, Reason } from "../../song/schema";

/** A chord in its place, with the key it is heard in. */
export interface ChordSlot {
  event: ChordEvent;
  chord: Chord;
  key: Key;
}

/** A chord that may be changed, seen with its surroundings. */
export interface Spot {
  slots: readonly ChordSlot[];
  index: number;
  here: ChordSlot;
  prev?: ChordSlot;
  next?: ChordSlot;
  /** First and last index of the selection the spot lies in. */
  selection: readonly [number, number];
  home: Key;
  meter: Meter;
  /** The tune over it and the bass under it. */
  lines: Lines;
  /** It is the last chord of the section. */
  last: boolean;
}

export interface Proposal {
  /** Chords that take the place, with their lengths; together they last as long as what they replace. */
  chords: { symbol: string; duration: Ticks }[];
  /** How many chords from this one on are replaced (1 when absent). */
  span?: number;
  /** Only right while the root of the chord after (before) stays. */
  needsNext?: boolean;
  needsPrev?: boolean;
  /** Key of the technique's words, and what fills them. */
  reason: string;
  params: Record<string, string>;
}

/** A way to reharmonize: one file each in techniques/. */
export interface Technique {
  id: string;
  title: string;
  /** One paragraph, shown in the interface. */
  explanation: string;
  source: string;
  /** 0 stays close to what is written, 1 goes far. */
  adventure: number;
  /** "less" makes simpler, "more" makes richer. */
  aim: "more" | "less";
  /** Reasons in words; {name} stands for a parameter. */
  words: Record<string, string>;
  propose(spot: Spot): Proposal[];
}

/** A reason as it is stored with a chord: "technique.variant" and its parameters. */
export const techniqueReason = (technique: Technique, proposal: Proposal): Reason => ({
  id: `${technique.id}.${proposal.reason}`,
  params: proposal.params,
});
