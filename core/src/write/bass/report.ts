import { ok, type Result } from "../../base/result";
import { factsOf } from "../../facts/memory";
import type { Song } from "../../song/schema";
import { bassContext } from "./context";
import { reportOf, type BassReport } from "./measures";
import type { BassSettings } from "./settings";

/** Measures a bass line of one section, written or drawn. Errors: `bass.section`, `bass.part`. */
export function reportBass(
  song: Song,
  { section, part, settings }: { section: string; part: string; settings?: BassSettings },
): Result<BassReport> {
  const context = bassContext(factsOf(song), section, part, settings);
  return context.ok ? ok(reportOf(context.value)) : context;
}
