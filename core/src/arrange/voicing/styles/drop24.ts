import type { VoicingStyle } from "../style";
import { dropping } from "./drop2";

export const drop24: VoicingStyle = {
  id: "drop24",
  title: "Drop 2 and 4",
  explanation: "A close position with its second and lowest note an octave lower: wide in all voices.",
  source: "any jazz arranging handbook",
  fixed: true,
  candidates: dropping(2, 4),
};
