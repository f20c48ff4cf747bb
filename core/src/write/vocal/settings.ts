import { playingOf } from "../../song/playing";
import type { Part, PlayingOf, Section } from "../../song/schema";

/** How voices are written beside a tune, with every value decided. */
export type VocalSettings = {
  [K in Exclude<keyof PlayingOf<"vocal">, "school">]-?: Exclude<PlayingOf<"vocal">[K], undefined>;
};

export const USUAL_VOCAL: VocalSettings = {
  voices: 2,
  side: "below",
  interval: "third",
  semitones: 4,
  manner: "held",
  syllable: "oo",
  tone: "tonic",
  lead: "top",
};

/**
 * Settings of a part in a section: what is set for the section, else for the part, else what is usual for the school.
 */
export function vocalSettings(
  part: Part,
  section: Section | undefined,
  usual: Partial<VocalSettings> = {},
): VocalSettings {
  const { school: _, ...own } = playingOf(part, "vocal", { section });
  return { ...USUAL_VOCAL, ...usual, ...(own as Partial<VocalSettings>) };
}
