import { nth } from "../../base/list";
import { ok, type Result } from "../../base/result";
import { notesAt, onwardAt } from "../../hear/sounding";
import { kicksAt } from "../../hear/slice/facts";
import type { Reader } from "../../facts/memory";
import { type Midi } from "../../theory/pitch/pitch";
import { beatAt, type Ticks } from "../../theory/time/meter";
import type { FirstNote } from "../../song/onward";
import type { RealizedChord, RealizedNote } from "../../song/realize";
import type { Drum } from "../../song/schema";
import { sectionPlace } from "../../song/place";
import type { KickHit } from "../../hear/slice/accents";
import { partGround, type PartGround } from "../lines/ground";
import type { BassSettings } from "./settings";

/** A tune above the bass: its notes, and whether somebody sings it. */
export interface Tune {
  starts: Ticks[];
  notes: Pick<RealizedNote, "start" | "duration" | "midi">[];
  sung: boolean;
}

/** What a bass line is written against, all in ticks of one section. */
export interface BassContext extends PartGround {
  /**
   * What follows in the form, with the chord and, where it is written, the first note of this part; absent where the
   * line leads back to its own beginning.
   */
  onward?: { chord: RealizedChord; first: FirstNote | null; into: string };
  /** Notes of other bass sounds that are heard with it. */
  layers: readonly RealizedNote[];
  kicks: KickHit[];
  /** Starts of snares and claps. */
  backbeats: Ticks[];
  tune: Tune;
  settings: BassSettings;
}

/**
 * Lengths of the figures the pitch-class target looks at: two bars, or one where the chords change more than once a bar
 * (common practice).
 */
export function figures(ctx: Pick<BassContext, "meter" | "bars" | "chords">): { from: Ticks; to: Ticks }[] {
  const { bar } = ctx.meter;
  const out: { from: Ticks; to: Ticks }[] = [];
  for (let b = 0; b < ctx.bars;) {
    const busy = ctx.chords.filter((c) => c.start >= b * bar && c.start < (b + 2) * bar).length > 2;
    const step = busy || b + 1 >= ctx.bars ? 1 : 2;
    out.push({ from: b * bar, to: (b + step) * bar });
    b += step;
  }
  return out;
}

/** What a part's line in a section is written against. Errors: `bass.section`, `bass.part`. */
export function bassContext(
  read: Reader,
  place: { section: string; part: string },
  settings: BassSettings,
): Result<BassContext> {
  const { song } = read;
  const grounded = partGround("bass", read, place, settings);
  if (!grounded.ok) return grounded;
  const ground = grounded.value;
  const at = sectionPlace(place.section);
  const heard = (id: string) => read.get(notesAt, at, id, "held");
  const starts = (drums: Drum[]) =>
    ground.section.groove.lanes
      .filter((l) => drums.includes(l.drum))
      .flatMap((l) => l.hits.map((h) => h.start))
      .filter((start) => start < ground.length)
      .sort((a, b) => a - b);
  const others = song.parts.filter((p) => p.id !== place.part);
  const onward = read.get(onwardAt, place.section, place.part);
  const lines = others.filter((p) => p.role === "melody" || p.role === "vocal");
  const tune = lines.flatMap((p) => heard(p.id)).sort((a, b) => a.start - b.start);
  return ok({
    ...ground,
    ...(onward ? { onward } : {}),
    layers: others.filter((p) => p.role === "bass").flatMap((p) => heard(p.id)),
    kicks: read.get(kicksAt, at),
    backbeats: starts(["snare", "clap"]),
    tune: {
      starts: [...new Set(tune.map((n) => n.start))],
      notes: tune,
      sung: lines.some((p) => p.role === "vocal" || heard(p.id).some((n) => n.lyric)),
    },
    settings,
  });
}

export { chordAt } from "../lines/ground";

/** Length of the beat a position lies in. */
export const beatLength = (ctx: Pick<BassContext, "meter">, tick: Ticks): Ticks =>
  nth(ctx.meter.beats, beatAt(ctx.meter, ((tick % ctx.meter.bar) + ctx.meter.bar) % ctx.meter.bar)).duration;

/**
 * Whether the tune is silent, or holds a note it struck at least a beat ago, over a whole half-beat from here: the bass
 * may move.
 */
export function inGap(ctx: Pick<BassContext, "meter" | "tune">, tick: Ticks): boolean {
  if (!ctx.tune.notes.length) return false;
  const beat = beatLength(ctx, tick);
  return !ctx.tune.starts.some((s) => s > tick - beat && s < tick + beat / 2);
}

/** Lowest note of the tune that sounds at a tick; null where it rests. */
export function lowestTuneAt(ctx: Pick<BassContext, "tune">, tick: Ticks): Midi | null {
  let lowest: Midi | null = null;
  for (const n of ctx.tune.notes) {
    if (n.start > tick) break;
    if (n.start + n.duration > tick && (lowest === null || n.midi < lowest)) lowest = n.midi;
  }
  return lowest;
}
