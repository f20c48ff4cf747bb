import { lastBefore, nth } from "../../base/list";
import { onceFor } from "../../base/once";
import { ok, type Result } from "../../base/result";
import { notesAt, onwardAt } from "../../hear/sounding";
import { kicksAt } from "../../hear/slice/facts";
import type { Reader } from "../../facts/memory";
import { type Midi } from "../../theory/pitch/pitch";
import { beatAt, type Ticks } from "../../theory/time/meter";
import type { FirstNote } from "../../song/onward";
import { lastBegun, type RealizedChord, type RealizedNote } from "../../song/realize";
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

/** A stretch that is heard as one figure. */
export interface Figure {
  from: Ticks;
  to: Ticks;
}

/**
 * Lengths of the figures the pitch-class target looks at: two bars, or one where the chords change more than once a bar
 * (common practice).
 */
export function figures({ meter, bars, chords }: Pick<BassContext, "meter" | "bars" | "chords">): Figure[] {
  const { bar } = meter;
  const out: Figure[] = [];
  const begun = (tick: Ticks) => lastBegun(chords, tick - 1);
  for (let b = 0; b < bars;) {
    const busy = begun((b + 2) * bar) - begun(b * bar) > 2;
    const step = busy || b + 1 >= bars ? 1 : 2;
    out.push({ from: b * bar, to: (b + step) * bar });
    b += step;
  }
  return out;
}

/** The index of the figure in which something begins, of figures that follow each other; −1 outside of them. */
export function figureAt(figures: readonly Figure[], tick: Ticks): number {
  const at = lastBefore(figures, ({ from }) => from <= tick);
  return at >= 0 && tick < nth(figures, at).to ? at : -1;
}

/** What begins in each figure. */
export function inFigures<T extends { start: Ticks }>(figures: readonly Figure[], list: readonly T[]): T[][] {
  const out = figures.map((): T[] => []);
  for (const item of list) out[figureAt(figures, item.start)]?.push(item);
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
  const next = ctx.tune.starts[lastBefore(ctx.tune.starts, (start) => start <= tick - beat) + 1];
  return next === undefined || next >= tick + beat / 2;
}

/** From each place at which the tune changes, its lowest note that sounds; null where it rests. */
function lowestOf(notes: Tune["notes"]): { start: Ticks; lowest: Midi | null }[] {
  const changes = [...new Set(notes.flatMap((n) => [n.start, n.start + n.duration]))].sort((a, b) => a - b);
  let sounding: Tune["notes"] = [];
  let next = 0;
  return changes.map((start) => {
    const first = next;
    while (next < notes.length && nth(notes, next).start <= start) next++;
    sounding = [...sounding, ...notes.slice(first, next)].filter((n) => n.start + n.duration > start);
    return { start, lowest: sounding.length ? Math.min(...sounding.map((n) => n.midi)) : null };
  });
}

/** Lowest note of the tune that sounds at a tick; null where it rests. */
export function lowestTuneAt({ tune: { notes } }: Pick<BassContext, "tune">, tick: Ticks): Midi | null {
  const lowest = onceFor([notes], "lowest", () => lowestOf(notes));
  return lowest[lastBegun(lowest, tick)]?.lowest ?? null;
}
