import type { Rule } from "../rule";
import { breath } from "./breath";
import { clash } from "./clash";
import { polyphony } from "./polyphony";
import { sameAgain } from "./sameAgain";
import { directPerfects } from "./voices/direct";
import { doubledLeadingTone } from "./voices/doubled";
import { falseRelation } from "./voices/falseRelation";
import { sixFour } from "./voices/sixFour";
import { voiceSpacing } from "./voices/spacing";
import { leadingTone } from "./voices/leadingTone";
import { seventh } from "./voices/seventh";
import { unrecovered } from "./voices/unrecovered";
import { wideLeap } from "./voices/wideLeap";
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
  clash,
  parallels,
  directPerfects,
  voiceParallels,
  voiceCrossing,
  voiceOverlap,
  voiceClash,
  voiceUnison,
  voiceSpacing,
  leadingTone,
  seventh,
  doubledLeadingTone,
  falseRelation,
  sixFour,
  wideLeap,
  unrecovered,
  lowIntervals,
  outOfRange,
  polyphony,
  breath,
  highVoice,
  sameAgain,
  keyContradicted,
];
