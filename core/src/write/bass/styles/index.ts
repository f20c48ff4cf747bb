import type { BassStyle } from "../style";
import { arpeggio } from "./arpeggio";
import { bossa } from "./bossa";
import { drivingEighths } from "./drivingEighths";
import { kickLocked } from "./kickLocked";
import { pedal } from "./pedal";
import { rootAnchored } from "./rootAnchored";
import { rootFifthOctave } from "./rootFifthOctave";
import { scaleWalk } from "./scaleWalk";
import { slashBass } from "./slashBass";
import { stabBounce } from "./stabBounce";
import { walking } from "./walking";
import { weave } from "./weave";

/** All bass styles; a new one is one file and one line here. */
export const BASS_STYLES: readonly BassStyle[] = [
  rootAnchored,
  kickLocked,
  rootFifthOctave,
  drivingEighths,
  walking,
  scaleWalk,
  pedal,
  stabBounce,
  bossa,
  weave,
  arpeggio,
  slashBass,
];
