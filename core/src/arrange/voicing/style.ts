import type { Midi, PitchClass, Semitones } from "../../theory/pitch/pitch";
import type { Chord } from "../../theory/chord/chord";
import type { Neck, Shape } from "../../theory/instrument/fretboard";
import type { VOICING_TERMS } from "../../song/schema";

export interface VoicingLimits {
  /** Lowest and highest note. */
  low: Midi;
  high: Midi;
  voices: number;
  /** Widest span of one hand. */
  span: Semitones;
  /** A bass part plays the root or slash bass. */
  bassCovered: boolean;
  /** The note of a tune that lies on top, for styles that are built under one. */
  top?: Midi;
  /** Pitch classes of the key, from which colors are taken that the symbol does not name. */
  scale?: readonly PitchClass[];
  /** The neck, for shapes under the fingers. */
  neck?: Neck;
}

export interface RawVoicing {
  /** Low to high. */
  pitches: Midi[];
  missing: number;
  doubling: number;
  /** How it lies on a neck. */
  shape?: Shape;
  /** Voices, from the lowest, whose tone wants to go somewhere: a seventh down, a leading tone up; written in parts. */
  tends?: readonly { voice: number; way: "down" | "up" }[];
  /** The tonic of a minor key, in which an augmented second can be sung; written in parts. */
  minorOn?: PitchClass;
  /** What it is made of, where that has a name: "D major over the shell". */
  says?: string;
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
  /** How many voices are usual, where it is not as many as the instrument suggests. */
  voices?: number;
  /** Not mixed into the style that tries all keyboard styles at once. */
  alone?: boolean;
  /** Only for instruments held like this. */
  held?: "hands" | "frets";
  /** How much each term of a path counts in this style, where it is not as much as elsewhere (common practice). */
  weights?: Partial<Record<(typeof VOICING_TERMS)[number], number>>;
  /** Layouts of the chord; empty where the style does not suit it. */
  candidates(chord: Chord, limits: VoicingLimits): RawVoicing[];
}
