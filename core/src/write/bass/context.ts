import { nth } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import { chordsAt, notesAt, onwardAt } from "../../hear/sounding";
import { kicksAt, rolesAt } from "../../hear/slice/facts";
import type { Reader } from "../../facts/memory";
import type { Key } from "../../theory/pitch/key";
import { parsePitch, type Midi } from "../../theory/pitch/pitch";
import { beatAt, type Meter, type Ticks } from "../../theory/time/meter";
import { isWritten, partOf, sectionKey, sectionMeter, sectionOf } from "../../song/document";
import type { FirstNote } from "../../song/onward";
import { chordAtTick, type RealizedChord, type RealizedNote } from "../../song/realize";
import type { Drum, Note, Part, Section, Song } from "../../song/schema";
import { sectionPlace } from "../../song/place";
import type { KickHit } from "../../hear/slice/accents";
import type { RoleSpan } from "../../hear/slice/roles";
import { instrumentOf, midiRange } from "../../theory/instrument/instruments";
import { bassSettings, type BassSettings } from "./settings";

/** A tune above the bass: its notes, and whether somebody sings it. */
export interface Tune {
  starts: Ticks[];
  notes: Pick<RealizedNote, "start" | "duration" | "midi">[];
  sung: boolean;
}

/** What a bass line is written against, all in ticks of one section. */
export interface BassContext {
  /** Where facts of the song are read. */
  read: Reader;
  song: Song;
  section: Section;
  part: Part;
  /** The line as it stands, or a candidate for it, with the roles of its notes. */
  notes: readonly RealizedNote[];
  roles: ReadonlyMap<RealizedNote, RoleSpan[]>;
  /**
   * What follows in the form, with the chord and, where it is written, the first note of this part; absent where the
   * line leads back to its own beginning.
   */
  onward?: { chord: RealizedChord; first: FirstNote | null; into: string };
  /** Notes of other bass sounds that are heard with it. */
  layers: readonly RealizedNote[];
  meter: Meter;
  key: Key;
  bars: number;
  length: Ticks;
  chords: RealizedChord[];
  kicks: KickHit[];
  /** Starts of snares and claps. */
  backbeats: Ticks[];
  tune: Tune;
  pinned: Note[];
  range: [Midi, Midi];
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
  sectionId: string,
  partId: string,
  settings?: BassSettings,
): Result<BassContext> {
  const { song } = read;
  const section = sectionOf(song, sectionId);
  const part = partOf(song, partId);
  if (!section) return fail("bass.section", `No section has the id "${sectionId}"`);
  if (!part || !isWritten(part)) return fail("bass.part", `"${partId}" is not a part that notes can be written into`);
  const meter = sectionMeter(song, section);
  const place = sectionPlace(sectionId);
  const length = section.bars * meter.bar;
  const wanted = settings ?? bassSettings(part, section);
  const heard = (id: string) => read.get(notesAt, place, id, "held");
  const starts = (drums: Drum[]) =>
    section.groove.lanes
      .filter((l) => drums.includes(l.drum))
      .flatMap((l) => l.hits.map((h) => h.start))
      .filter((start) => start < length)
      .sort((a, b) => a - b);
  const [low, high] = midiRange(part.range ?? instrumentOf(part.instrument, song).comfortable);
  const end = (text: string, usual: Midi) => {
    const pitch = text ? parsePitch(text) : null;
    return pitch?.ok ? pitch.value : usual;
  };
  const others = song.parts.filter((p) => p.id !== partId);
  const onward = read.get(onwardAt, sectionId, partId);
  const lines = others.filter((p) => p.role === "melody" || p.role === "vocal");
  const tune = lines.flatMap((p) => heard(p.id)).sort((a, b) => a.start - b.start);
  return ok({
    read,
    song,
    section,
    part,
    notes: heard(partId),
    roles: read.get(rolesAt, place, partId, "held"),
    ...(onward ? { onward } : {}),
    layers: others.filter((p) => p.role === "bass").flatMap((p) => heard(p.id)),
    meter,
    key: sectionKey(song, section),
    bars: section.bars,
    length,
    chords: read.get(chordsAt, place),
    kicks: read.get(kicksAt, place),
    backbeats: starts(["snare", "clap"]),
    tune: {
      starts: [...new Set(tune.map((n) => n.start))],
      notes: tune,
      sung: lines.some((p) => p.role === "vocal" || heard(p.id).some((n) => n.lyric)),
    },
    pinned: (section.notes[partId] ?? []).filter((n) => n.pinned),
    range: [end(wanted.low, low), end(wanted.high, high)],
    settings: wanted,
  });
}

export const chordAt = (ctx: Pick<BassContext, "chords">, tick: Ticks): RealizedChord | null =>
  chordAtTick(ctx.chords, tick);

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
export function tuneAt(ctx: Pick<BassContext, "tune">, tick: Ticks): Midi | null {
  let lowest: Midi | null = null;
  for (const n of ctx.tune.notes) {
    if (n.start > tick) break;
    if (n.start + n.duration > tick && (lowest === null || n.midi < lowest)) lowest = n.midi;
  }
  return lowest;
}
