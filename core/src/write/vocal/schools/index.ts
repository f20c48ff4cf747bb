import type { VocalSchool } from "../school";
import { behind } from "./behind";
import { chordTone } from "./chordTone";
import { chorale } from "./chorale";
import { close } from "./close";
import { drone } from "./drone";
import { fixed } from "./fixed";
import { inScale } from "./inScale";
import { octave } from "./octave";
import { open } from "./open";

/** All schools of vocal harmony; a new one is one file and one line here. */
export const VOCAL_SCHOOLS: readonly VocalSchool[] = [
  inScale,
  chordTone,
  fixed,
  octave,
  behind,
  drone,
  close,
  open,
  chorale,
];
