import type { VoicingStyle } from "../style";
import { dropping } from "./drop2";

export const drop3: VoicingStyle = {
  id: "drop3",
  title: "Drop 3",
  explanation:
    "A close position with its third note from the top an octave lower: a gap above the lowest note, close above it.",
  source: "any jazz arranging handbook",
  fixed: true,
  candidates: dropping(3),
};
