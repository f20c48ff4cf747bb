import { alteredDominant } from "./alteredDominant";
import { appliedDominant } from "./appliedDominant";
import { backdoor } from "./backdoor";
import { borrowed } from "./borrowed";
import { chromaticDominant } from "./chromaticDominant";
import { chromaticMediant } from "./chromaticMediant";
import { color } from "./color";
import { commonToneDiminished } from "./commonToneDiminished";
import { deceptive } from "./deceptive";
import { delayed } from "./delayed";
import { dominantTwo } from "./dominantTwo";
import { heldTune } from "./heldTune";
import { homeward } from "./homeward";
import { inversion } from "./inversion";
import { lineCliche } from "./lineCliche";
import { neapolitan } from "./neapolitan";
import { otherBass } from "./otherBass";
import { passingDiminished } from "./passingDiminished";
import { pedal } from "./pedal";
import { planing } from "./planing";
import { quartal } from "./quartal";
import { raisedThird } from "./raisedThird";
import { relative } from "./relative";
import { rhythmDouble } from "./rhythmDouble";
import { rhythmHalf } from "./rhythmHalf";
import { rootlessDominant } from "./rootlessDominant";
import { suspension } from "./suspension";
import { thinning } from "./thinning";
import { thirdCycle } from "./thirdCycle";
import { tritone } from "./tritone";
import { turnaround } from "./turnaround";
import { twoFive } from "./twoFive";
import type { Technique } from "../technique";

/** All techniques; a new one is one file and one line here. */
export const TECHNIQUES: readonly Technique[] = [
  color,
  suspension,
  inversion,
  relative,
  rhythmDouble,
  deceptive,
  pedal,
  delayed,
  otherBass,
  raisedThird,
  twoFive,
  appliedDominant,
  alteredDominant,
  rootlessDominant,
  lineCliche,
  turnaround,
  passingDiminished,
  commonToneDiminished,
  quartal,
  borrowed,
  dominantTwo,
  backdoor,
  chromaticDominant,
  tritone,
  neapolitan,
  planing,
  chromaticMediant,
  heldTune,
  thirdCycle,
  homeward,
  rhythmHalf,
  thinning,
];
