import type { PlayingOf } from "../../song/schema";

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
