import { playingOf } from "../../song/playing";
import type { Part, PlayingOf, Section } from "../../song/schema";

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

/**
 * Settings of a part in a section: what is set for the section, else for the part, else what is usual for the style.
 */
export function bassSettings(
  part: Part,
  section: Section | undefined,
  usual: Partial<BassSettings> = {},
): BassSettings {
  const { style: _, ...own } = playingOf(part, "bass", { section });
  return { ...USUAL_SETTINGS, ...usual, ...(own as Partial<BassSettings>) };
}
