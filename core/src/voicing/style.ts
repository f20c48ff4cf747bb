import type { Midi, Semitones } from "../pitch/pitch";
import type { Chord } from "../chord/chord";

export interface VoicingLimits {
  /** Lowest and highest note. */
  low: Midi;
  high: Midi;
  voices: number;
  /** Widest span of one hand. */
  span: Semitones;
  /** A bass part plays the root or slash bass. */
  bassCovered: boolean;
}

export interface RawVoicing {
  /** Low to high. */
  pitches: Midi[];
  missing: number;
  doubling: number;
}

/** A way of laying out a chord: one file each in styles/. */
export interface VoicingStyle {
  id: string;
  title: string;
  /** One paragraph, shown in the interface. */
  explanation: string;
  source: string;
  /** The number of voices belongs to the style. */
  fixed?: boolean;
  /** Layouts of the chord; empty where the style does not suit it. */
  candidates(chord: Chord, limits: VoicingLimits): RawVoicing[];
}
