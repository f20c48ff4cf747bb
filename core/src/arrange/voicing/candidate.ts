import type { PitchName } from "../../theory/pitch/pitch";
import type { Chord } from "../../theory/chord/chord";
import type { Terms } from "./cost";
import type { RawVoicing } from "./style";

/** Whether a wanted top note was met, by a tone of the chord or laid over it; if not, why. */
export interface TopReport {
  wanted: PitchName;
  met: "chord" | "over" | "no";
  why?: string;
}

export interface Candidate extends RawVoicing {
  terms: Terms;
  cost: number;
}

export interface Column {
  chord: Chord;
  candidates: Candidate[];
  /** The style had nothing for this chord; the free one was used. */
  fallback: boolean;
  top?: TopReport;
  /** A wanted lowest note that could not be had. */
  bottomMissed?: PitchName;
}
