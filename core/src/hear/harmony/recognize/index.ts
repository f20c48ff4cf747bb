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
import { chromatic, lineCliche, pedal, planing, slidingTwoFive, thirdCycle } from "./lines";
import { alteredDominant, blues, cadentialSixFour, picardy, raisedSixth } from "./idioms";
import { borrowed, chromaticMediant, diatonic, neapolitan } from "./mixture";
import type { Recognizer } from "./types";

/** In the order in which they are tried: the first match names the chord. */
export const RECOGNIZERS: readonly Recognizer[] = [
  suspension,
  blues,
  cadentialSixFour,
  picardy,
  rootlessDominant,
  augmentedSixth,
  backdoor,
  tritoneSubstitute,
  passingDiminished,
  commonToneDiminished,
  appliedDiminished,
  dominantTwo,
  raisedSixth,
  appliedDominant,
  thirdCycle,
  slidingTwoFive,
  planing,
  neapolitan,
  lineCliche,
  diatonic,
  alteredDominant,
  appliedTwo,
  borrowed,
  chromaticMediant,
  pedal,
  chromatic,
];
