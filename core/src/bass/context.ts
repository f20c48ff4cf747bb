import { fail, ok, type Result } from "../result";
import type { Key } from "../pitch/key";
import type { Midi } from "../pitch/pitch";
import { beatAt, type Meter, type Ticks } from "../time/meter";
import { partOf, sectionKey, sectionMeter, sectionOf } from "../song/document";
import { chordAtTick, type RealChord } from "../song/realize";
import type { Note, Part, Section, Song } from "../song/schema";
import { kicks, type KickHit } from "../slice/accents";
import { sliceSong, type Sliced } from "../slice/slices";
import { instrumentOf, midiRange } from "../instrument/instruments";

/** What a bass line is written against, all in ticks of one section. */
export interface BassContext {
  song: Song;
  section: Section;
  part: Part;
  sliced: Sliced;
  meter: Meter;
  key: Key;
  bars: number;
  length: Ticks;
  chords: RealChord[];
  kicks: KickHit[];
  /** Starts of snares and claps. */
  backbeats: Ticks[];
  /** Starts of melody and sung notes. */
  melody: Ticks[];
  pinned: Note[];
  range: [Midi, Midi];
}

export interface BassTargets {
  /** Largest number of different pitch classes in a figure. */
  pitchClasses: number;
  /** Longest time outside the chord, in beats. */
  longestOutside: number;
  /** Least share of time on chord tones. */
  chordTime: number;
}

/** Lengths of the figures the pitch-class target looks at: two bars, or one where the chords change more than once a bar (common practice). */
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

export function bassContext(song: Song, sectionId: string, partId: string, sliced?: Sliced): Result<BassContext> {
  const section = sectionOf(song, sectionId);
  const part = partOf(song, partId);
  if (!section) return fail("bass.section", `No section has the id "${sectionId}"`);
  if (!part || part.link || part.role === "drums") return fail("bass.part", `"${partId}" is no part that notes can be written into`);
  const meter = sectionMeter(song, section);
  const data = sliced ?? sliceSong(song, { section: sectionId });
  const length = section.bars * meter.bar;
  const starts = (drums: string[]) =>
    section.groove.lanes
      .filter((l) => drums.includes(l.drum))
      .flatMap((l) => l.hits.map((h) => h.start))
      .sort((a, b) => a - b);
  const [low, high] = midiRange(part.range ?? instrumentOf(part.instrument, song).comfortable);
  return ok({
    song,
    section,
    part,
    sliced: data,
    meter,
    key: sectionKey(song, section),
    bars: section.bars,
    length,
    chords: data.real.chords,
    kicks: kicks(section.groove, meter).filter((k) => k.start < length),
    backbeats: starts(["snare", "clap"]),
    melody: song.parts
      .filter((p) => p.role === "melody" || p.role === "vocal")
      .flatMap((p) => (section.notes[p.id] ?? []).map((n) => n.start))
      .sort((a, b) => a - b),
    pinned: (section.notes[partId] ?? []).filter((n) => n.pinned),
    range: [low, high],
  });
}

export const chordAt = (ctx: BassContext, tick: Ticks): RealChord | null => chordAtTick(ctx.chords, tick);

/** Length of the beat a position lies in. */
export const beatLength = (ctx: BassContext, tick: Ticks): Ticks =>
  ctx.meter.beats[beatAt(ctx.meter, ((tick % ctx.meter.bar) + ctx.meter.bar) % ctx.meter.bar)]!.duration;
