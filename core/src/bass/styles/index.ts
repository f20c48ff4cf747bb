import type { BassStyle } from "../style";
import { kickLocked } from "./kickLocked";
import { rootAnchored } from "./rootAnchored";
import { rootFifthOctave } from "./rootFifthOctave";

/** All bass styles; a new one is one file and one line here. */
export const BASS_STYLES: readonly BassStyle[] = [rootAnchored, kickLocked, rootFifthOctave];
