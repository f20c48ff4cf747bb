import type { EngravedChord } from "../../src/files/notation/staff";

/** The heads of a written chord as text: "C4+E4~", a rest as "r"; a tilde where a tie goes on. */
export const headsOf = (chord: Pick<EngravedChord, "notes">): string =>
  chord.notes.map((n) => n.pitch + (n.tied ? "~" : "")).join("+") || "r";
