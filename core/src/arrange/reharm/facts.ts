import { sharing } from "../../base/plain";
import { type Fact } from "../../facts/memory";
import { judgeProgression, type Verdict } from "./verdict";

/** Whether the progression of a section needs anything. */
export const verdictAt: Fact<[section: string], Verdict> = {
  id: "verdict",
  of: (read, section) => judgeProgression(read.song, section),
  keep: sharing,
};
