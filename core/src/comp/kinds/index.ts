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
