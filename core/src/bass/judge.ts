import { ok, type Result } from "../result";
import type { PitchName } from "../pitch/pitch";
import type { Ticks } from "../time/meter";
import type { Reason, Song } from "../song/schema";
import type { Sliced } from "../slice/slices";
import { impliedRoots, type ImpliedRoot } from "./implied";
import { measuresOf, type Measure } from "./measures";
import { reportOf, type BassReport } from "./report";
import { justified } from "./shape";
import { bassRequest } from "./write";

/** A note of the line with why it is there; the least justified first. */
export interface JustifiedNote {
  id: string;
  tick: Ticks;
  pitch: PitchName;
  reason: Reason | null;
  /** 0 without a reason, 1 where it must sound, 2 where the user wants it. */
  worth: number;
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

/** Measures a line of one section against the style and settings of its part. Errors: as `bassRequest`. */
export function judgeBass(song: Song, { section, part, sliced }: { section: string; part: string; sliced?: Sliced }): Result<BassVerdict> {
  const resolved = bassRequest(song, { section, part }, sliced);
  if (!resolved.ok) return resolved;
  const { ctx, style } = resolved.value;
  const report = reportOf(ctx);
  const bare = !ctx.chords.some((c) => c.chord);
  const implied = bare && report.notes ? impliedRoots(song, section, part) : null;
  return ok({
    part,
    style: style.id,
    report,
    measures: measuresOf(report, ctx.meter, style, ctx.settings),
    notes: justified(ctx).map(({ note, reason, worth }) => ({ id: note.id, tick: note.start, pitch: note.pitch, reason, worth })),
    implied: implied?.ok ? implied.value : [],
  });
}
