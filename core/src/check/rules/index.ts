import type { Rule } from "../rule";
import { bassLayersRule } from "./bassLayers";
import { bassAboveChords } from "./bassAboveChords";
import { highVoice } from "./highVoice";
import { keyContradicted } from "./keyContradicted";
import { longOutside } from "./longOutside";
import { lowIntervals } from "./lowIntervals";
import { outOfRange } from "./outOfRange";
import { parallels } from "./parallels";
import { uncoveredAccent } from "./uncoveredAccent";

/** All checks; a new one is one file and one line here. */
export const RULES: readonly Rule[] = [
  longOutside,
  uncoveredAccent,
  bassLayersRule,
  bassAboveChords,
  parallels,
  lowIntervals,
  outOfRange,
  highVoice,
  keyContradicted,
];
