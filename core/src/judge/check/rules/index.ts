import type { Rule } from "../rule";
import { loopEnd } from "./form/loopEnd";
import { passAgain } from "./form/passAgain";
import { seamApproach } from "./form/seamApproach";
import { seamHeld } from "./form/seamHeld";
import { seamMotion } from "./form/seamMotion";
import { seamParallels } from "./form/seamParallels";
import { seamPickup } from "./form/seamPickup";
import { sectionsAlike } from "./form/sectionsAlike";
import { accentsMiss } from "./groove/accentsMiss";
import { bassLayersRule } from "./groove/bassLayers";
import { pushed } from "./groove/pushed";
import { repeated } from "./groove/repeated";
import { sameAgain } from "./groove/sameAgain";
import { uncoveredAccent } from "./groove/uncoveredAccent";
import { capoWrong } from "./handover/capoWrong";
import { keyContradicted } from "./handover/keyContradicted";
import { oldKey } from "./handover/oldKey";
import { breath } from "./range/breath";
import { dwelling } from "./range/dwelling";
import { highVoice } from "./range/highVoice";
import { outOfRange } from "./range/outOfRange";
import { polyphony } from "./range/polyphony";
import { reach } from "./range/reach";
import { noReason } from "./reason/noReason";
import { writtenAs } from "./reason/writtenAs";
import { covered } from "./room/covered";
import { crowded } from "./room/crowded";
import { masking } from "./room/masking";
import { nobodyRests } from "./room/nobodyRests";
import { allTogether } from "./room/allTogether";
import { bassAboveChords } from "./vertical/bassAboveChords";
import { clash } from "./vertical/clash";
import { longOutside } from "./vertical/longOutside";
import { lowIntervals } from "./vertical/lowIntervals";
import { missingTone } from "./vertical/missingTone";
import { otherChord } from "./vertical/otherChord";
import { writtenBass } from "./vertical/writtenBass";
import { againstResolution } from "./voices/againstResolution";
import { augmentedSecond } from "./voices/augmentedSecond";
import { breathsApart } from "./voices/breathsApart";
import { voiceClash } from "./voices/clash";
import { contraryPerfects } from "./voices/contrary";
import { voiceCrossing } from "./voices/crossing";
import { directPerfects } from "./voices/direct";
import { doubledLeadingTone } from "./voices/doubled";
import { doubledTension } from "./voices/doubledTension";
import { doubledThird } from "./voices/doubledThird";
import { falseRelation } from "./voices/falseRelation";
import { leadingTone } from "./voices/leadingTone";
import { outerParallels } from "./voices/outerParallels";
import { voiceOverlap } from "./voices/overlap";
import { voiceParallels } from "./voices/parallel";
import { seventh } from "./voices/seventh";
import { sixFour } from "./voices/sixFour";
import { sixFourFourth } from "./voices/sixFourFourth";
import { voiceSpacing } from "./voices/spacing";
import { suspension } from "./voices/suspension";
import { syllable } from "./voices/syllable";
import { unequalFifths } from "./voices/unequal";
import { voiceUnison } from "./voices/unison";
import { unrecovered } from "./voices/unrecovered";
import { wideLeap } from "./voices/wideLeap";

/** All checks by family; a new one is one file and one line here. */
export const RULES: readonly Rule[] = [
  outerParallels,
  directPerfects,
  voiceParallels,
  contraryPerfects,
  unequalFifths,
  voiceCrossing,
  voiceOverlap,
  voiceClash,
  voiceUnison,
  voiceSpacing,
  leadingTone,
  seventh,
  suspension,
  againstResolution,
  doubledLeadingTone,
  doubledTension,
  doubledThird,
  falseRelation,
  sixFour,
  sixFourFourth,
  wideLeap,
  augmentedSecond,
  unrecovered,
  syllable,
  breathsApart,
  outOfRange,
  dwelling,
  polyphony,
  reach,
  breath,
  highVoice,
  lowIntervals,
  clash,
  longOutside,
  otherChord,
  missingTone,
  writtenBass,
  bassAboveChords,
  masking,
  covered,
  crowded,
  nobodyRests,
  allTogether,
  uncoveredAccent,
  bassLayersRule,
  accentsMiss,
  pushed,
  sameAgain,
  repeated,
  loopEnd,
  passAgain,
  seamMotion,
  seamParallels,
  seamHeld,
  seamPickup,
  seamApproach,
  sectionsAlike,
  oldKey,
  capoWrong,
  keyContradicted,
  noReason,
  writtenAs,
];
