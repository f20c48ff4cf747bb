import {
  appliedDiminished,
  appliedDominant,
  appliedTwo,
  augmentedSixth,
  backdoor,
  dominantTwo,
  rootlessDominant,
  suspension,
  tritoneSubstitute,
} from "./dominants";
import { commonToneDiminished, passingDiminished } from "./diminished";
import { chromatic, lineCliche, pedal, planing } from "./lines";
import { borrowed, chromaticMediant, diatonic, neapolitan } from "./mixture";
import type { Recognizer } from "./types";

/** In the order in which they are tried: the first match names the chord. */
export const RECOGNIZERS: readonly Recognizer[] = [
  suspension,
  rootlessDominant,
  augmentedSixth,
  backdoor,
  tritoneSubstitute,
  passingDiminished,
  commonToneDiminished,
  appliedDiminished,
  dominantTwo,
  appliedDominant,
  neapolitan,
  lineCliche,
  diatonic,
  appliedTwo,
  planing,
  borrowed,
  chromaticMediant,
  pedal,
  chromatic,
];
