import { z } from "zod";
import { CompSettings } from "../settings";
import type { CompKind } from "../kind";
import { arpeggio } from "./arpeggio";
import { block } from "./block";
import { chords } from "./chords";
import { fills } from "./fills";
import { high } from "./high";
import { octave } from "./octave";
import { pad } from "./pad";
import { reversed } from "./reversed";

/** All ways of playing the chords; a new one is one file and one line here. */
export const COMP_KINDS: readonly CompKind[] = [chords, pad, high, octave, arpeggio, fills, reversed, block];

/** How a part plays the chords in time. */
export const CompPlaying = CompSettings.extend({
  /**
   * How it plays them here, where that is not the part's own way; chords under every note of a tune stay what they are.
   */
  kind: z.enum(COMP_KINDS.flatMap((k) => (k.id === "block" ? [] : [k.id]))).optional(),
});

export type CompPlaying = z.infer<typeof CompPlaying>;
