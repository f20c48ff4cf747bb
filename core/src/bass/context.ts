import { fail, ok, type Result } from "../result";
import type { Key } from "../pitch/key";
import { parsePitch, type Midi } from "../pitch/pitch";
import { beatAt, type Meter, type Ticks } from "../time/meter";
import { partOf, sectionKey, sectionMeter, sectionOf } from "../song/document";
import { chordAtTick, type RealChord, type RealNote } from "../song/realize";
import type { Note, Part, Section, Song } from "../song/schema";
import { kicks, type KickHit } from "../slice/accents";
import { sliceSong, type Sliced } from "../slice/slices";
import { instrumentOf, midiRange } from "../instrument/instruments";
import { settingsOf, type BassSettings } from "./settings";

/** A tune above the bass: its notes, and whether somebody sings it. */
export interface Tune {
  starts: Ticks[];
  notes: Pick<RealNote, "start" | "duration" | "midi">[];
  sung: boolean;
}

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
  tune: Tune;
  pinned: Note[];
  range: [Midi, Midi];
  settings: BassSettings;
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

export function bassContext(
  song: Song,
  sectionId: string,
  partId: string,
  { sliced, settings }: { sliced?: Sliced | undefined; settings?: BassSettings | undefined } = {},
): Result<BassContext> {
  const section = sectionOf(song, sectionId);
  const part = partOf(song, partId);
  if (!section) return fail("bass.section", `No section has the id "${sectionId}"`);
  if (!part || part.link || part.role === "drums") return fail("bass.part", `"${partId}" is no part that notes can be written into`);
  const meter = sectionMeter(song, section);
  const data = sliced ?? sliceSong(song, { section: sectionId });
  const length = section.bars * meter.bar;
  const wanted = settings ?? settingsOf(part, sectionId);
  const starts = (drums: string[]) =>
    section.groove.lanes
      .filter((l) => drums.includes(l.drum))
      .flatMap((l) => l.hits.map((h) => h.start))
      .sort((a, b) => a - b);
  const [low, high] = midiRange(part.range ?? instrumentOf(part.instrument, song).comfortable);
  const end = (text: string, usual: Midi) => {
    const read = text ? parsePitch(text) : null;
    return read?.ok ? read.value : usual;
  };
  const range: [Midi, Midi] = [end(wanted.low, low), end(wanted.high, high)];
  const lines = data.real.parts.filter((p) => (p.role === "melody" || p.role === "vocal") && !p.muted && p.id !== partId);
  const notes = lines.flatMap((p) => p.notes).sort((a, b) => a.start - b.start);
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
    tune: {
      notes,
      starts: [...new Set(notes.map((n) => n.start))],
      sung: lines.some((p) => p.role === "vocal" || p.notes.some((n) => n.lyric)),
    },
    pinned: (section.notes[partId] ?? []).filter((n) => n.pinned),
    range,
    settings: wanted,
  });
}

export const chordAt = (ctx: Pick<BassContext, "chords">, tick: Ticks): RealChord | null => chordAtTick(ctx.chords, tick);

/** Length of the beat a position lies in. */
export const beatLength = (ctx: Pick<BassContext, "meter">, tick: Ticks): Ticks =>
  ctx.meter.beats[beatAt(ctx.meter, ((tick % ctx.meter.bar) + ctx.meter.bar) % ctx.meter.bar)]!.duration;

/** Whether the tune is silent, or holds a note it struck at least a beat ago, over a whole half-beat from here: the bass may move. */
export function inGap(ctx: Pick<BassContext, "meter" | "tune">, tick: Ticks): boolean {
  if (!ctx.tune.notes.length) return false;
  const beat = beatLength(ctx, tick);
  return !ctx.tune.starts.some((s) => s > tick - beat && s < tick + beat / 2);
}

/** Lowest note of the tune that sounds at a tick; null where it rests. */
export function tuneAt(ctx: Pick<BassContext, "tune">, tick: Ticks): Midi | null {
  let lowest: Midi | null = null;
  for (const n of ctx.tune.notes) {
    if (n.start > tick) break;
    if (n.start + n.duration > tick && (lowest === null || n.midi < lowest)) lowest = n.midi;
  }
  return lowest;
}
