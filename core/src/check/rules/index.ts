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
import { voiceClash } from "./voices/clash";
import { voiceCrossing } from "./voices/crossing";
import { voiceOverlap } from "./voices/overlap";
import { voiceParallels } from "./voices/parallel";
import { voiceUnison } from "./voices/unison";

/** All checks; a new one is one file and one line here. */
export const RULES: readonly Rule[] = [
  longOutside,
  uncoveredAccent,
  bassLayersRule,
  bassAboveChords,
  parallels,
  voiceParallels,
  voiceCrossing,
  voiceOverlap,
  voiceClash,
  voiceUnison,
  lowIntervals,
  outOfRange,
  highVoice,
  keyContradicted,
];
