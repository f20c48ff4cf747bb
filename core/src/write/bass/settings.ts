import type { PlayingOf } from "../../song/schema";

/**
 * How a bass line is played, in plain terms (see `BassPlaying`), with every value decided. Every style has its own
 * usual ones.
 */
export type BassSettings = {
  [K in Exclude<keyof PlayingOf<"bass">, "style">]-?: Exclude<PlayingOf<"bass">[K], undefined>;
};

export const USUAL_SETTINGS: BassSettings = {
  density: 0.5,
  length: "usual",
  gate: "ring",
  rests: false,
  pitches: 4,
  octaves: "some",
  slides: "none",
  lock: "main",
  overMajor: "fifth",
  overMinor: "third",
  melody: true,
  ownFigure: false,
  variation: 0.3,
  ending: true,
  low: "",
  high: "",
};
