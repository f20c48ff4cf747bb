import { ok, type Result } from "../../base/result";
import type { PitchName } from "../../theory/pitch/pitch";
import type { Ticks } from "../../theory/time/meter";
import type { Reason, Song } from "../../song/schema";
import { factsOf, type Fact, type Reader } from "../../facts/memory";
import { rootsIn, type ImpliedRoot } from "./implied";
import type { Measure } from "../lines/measure";
import { measuresOf, reportOf, type BassReport } from "./measures";
import { justified } from "./shape";
import { bassRequest } from "./write";

/** A note of the line with why it is there; the least justified first. */
export interface JustifiedNote {
  id: string;
  tick: Ticks;
  pitch: PitchName;
  reason: Reason | null;
  /** 0 without a reason, 1 where it must sound, 2 where the user wants it. */
  weight: number;
}

/** All that the Bass workspace shows of a line as it stands. */
export interface BassVerdict {
  part: string;
  style: string;
  report: BassReport;
  measures: Measure[];
  notes: JustifiedNote[];
  /** Roots the line implies by itself, where no chord is written. */
  implied: ImpliedRoot[];
}

/** The verdict on a line as it stands. Errors: as `bassRequest`. */
export const bassVerdictAt: Fact<[section: string, part: string], Result<BassVerdict>> = {
  id: "bass verdict",
  of: (read, section, part) => judge(read, section, part),
};

/** Measures a line of one section against the style and settings of its part. Errors: as `bassRequest`. */
export const judgeBass = (song: Song, { section, part }: { section: string; part: string }): Result<BassVerdict> =>
  factsOf(song).get(bassVerdictAt, section, part);

function judge(read: Reader, section: string, part: string): Result<BassVerdict> {
  const resolved = bassRequest(read, { section, part });
  if (!resolved.ok) return resolved;
  const { ctx, style } = resolved.value;
  const report = reportOf(ctx);
  const bare = !ctx.chords.some((c) => c.chord);
  const implied = bare && report.notes ? rootsIn(ctx) : [];
  return ok({
    part,
    style: style.id,
    report,
    measures: measuresOf(report, { style, settings: ctx.settings, meter: ctx.meter }),
    notes: justified(ctx).map(({ note, reason, weight }) => ({
      id: note.id,
      tick: note.start,
      pitch: note.pitch,
      reason,
      weight,
    })),
    implied,
  });
}
