import type { Fact } from "../../facts/memory";
import { analyzeSection, type HarmonyReport } from "./analyze";

/** The harmony of a section, chord by chord. */
export const harmonyAt: Fact<[section: string], HarmonyReport> = {
  id: "harmony",
  of: (read, section) => analyzeSection(read.song, section),
};
