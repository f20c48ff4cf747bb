import type { Drum, PlayingOf } from "../../song/schema";

/** How a counter melody is written, in plain terms (see `CounterPlaying`), with every value decided. */
export type CounterSettings = {
  [K in Exclude<keyof PlayingOf<"counter">, "style" | "drum">]-?: Exclude<PlayingOf<"counter">[K], undefined>;
} & {
  /** Whose hits it takes; the first of those a line likes to double where none is named. */
  drum?: Drum;
};

export const USUAL_COUNTER: CounterSettings = {
  density: 0.5,
  side: "either",
  low: "",
  high: "",
  hits: "few",
  cell: "refit",
  under: "sixths",
};
