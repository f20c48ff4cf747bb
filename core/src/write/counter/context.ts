import { firstOf } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import { chordsAt, hitsAt, notesAt } from "../../hear/sounding";
import { rolesAt } from "../../hear/slice/facts";
import { tuneAt } from "../../hear/line/facts";
import type { Reader } from "../../facts/memory";
import type { Key } from "../../theory/pitch/key";
import { parsePitch, type Midi } from "../../theory/pitch/pitch";
import type { Meter, Ticks } from "../../theory/time/meter";
import { isWritten, partOf, sectionKey, sectionMeter, sectionOf, sectionTempo } from "../../song/document";
import { chordAtTick, type RealizedChord, type RealizedNote } from "../../song/realize";
import type { Drum, Note, Part, Section, Song } from "../../song/schema";
import { sectionPlace } from "../../song/place";
import type { RoleSpan } from "../../hear/slice/roles";
import { instrumentOf, midiRange } from "../../theory/instrument/instruments";
import { gapsOf, meanPitch, phrasesOf, type Gap, type Phrase } from "../../hear/line/tune";
import { soundingIn } from "../../hear/slice/soundingIn";
import type { CounterSettings } from "./settings";

/** What a counter melody is written against, all in ticks of one section. */
export interface CounterContext {
  read: Reader;
  song: Song;
  section: Section;
  part: Part;
  meter: Meter;
  key: Key;
  bars: number;
  length: Ticks;
  chords: RealizedChord[];
  /** The line it answers, by the name of its part; no note where there is none. */
  against: string;
  tune: readonly RealizedNote[];
  phrases: readonly Phrase[];
  /** Silences of the tune of a beat or more; the one at the end reaches to the first note of the repetition. */
  gaps: readonly Gap[];
  tuneAt: (tick: Ticks) => RealizedNote | null;
  tuneWithin: (from: Ticks, to: Ticks) => readonly RealizedNote[];
  /** Pitches of the parts that lay out the chords, sounding at a tick. */
  harmonyAt: (tick: Ticks) => readonly Midi[];
  /** Hits of the drum it doubles. */
  drum: Drum;
  hits: readonly Ticks[];
  /** The line as it stands, or a candidate for it, with the roles of its notes. */
  notes: readonly RealizedNote[];
  roles: ReadonlyMap<RealizedNote, RoleSpan[]>;
  pinned: Note[];
  range: [Midi, Midi];
  /** Where it is at home against the tune. */
  home: Midi;
  side: "below" | "above";
  settings: CounterSettings;
}

/** Drums a line likes to double, best first. */
const DOUBLED: readonly Drum[] = ["clap", "rim", "clave", "conga", "tom", "snare", "shaker", "kick"];

const ROOM_BELOW = 9;
/** Semitones around its home within which a line keeps: not quite an octave each way (common practice). */
export const REACH = 10;

/** Where a line is at home: a sixth below the tune, or above it, as the range has room. */
function homeOf(
  tune: readonly RealizedNote[],
  [low, high]: [Midi, Midi],
  wanted: CounterSettings["side"],
): Pick<CounterContext, "home" | "side"> {
  const inside = (x: number) =>
    Math.round(
      Math.min(high - Math.min(REACH, (high - low) / 2), Math.max(low + Math.min(REACH, (high - low) / 2), x)),
    );
  if (!tune.length) return { home: inside((low + high) / 2), side: "below" };
  const mean = meanPitch(tune);
  const [below, above] = [inside(mean - ROOM_BELOW), inside(mean + ROOM_BELOW)];
  let side: "below" | "above";
  if (wanted !== "either") side = wanted;
  else if (Math.abs(below - (mean - ROOM_BELOW)) <= Math.abs(above - (mean + ROOM_BELOW))) side = "below";
  else side = "above";
  return { home: side === "below" ? below : above, side };
}

/** Parts whose line a counter melody can be written against: voices and tunes first. */
export const leadsOf = (song: Song, part: string): Part[] =>
  (["melody", "vocal", "counter"] as const).flatMap((role) =>
    song.parts.filter((p) => p.role === role && p.id !== part && isWritten(p)),
  );

export interface CounterPlace {
  section: string;
  part: string;
  /** The part it answers; the first tune where it is absent. */
  against?: string;
}

/**
 * What a part's counter melody in a section is written against. Errors: `counter.section`, `counter.part`,
 * `counter.against`.
 */
export function counterContext(
  read: Reader,
  { section: sectionId, part: partId, against }: CounterPlace,
  settings: CounterSettings,
): Result<CounterContext> {
  const { song } = read;
  const section = sectionOf(song, sectionId);
  const part = partOf(song, partId);
  if (!section) return fail("counter.section", `No section has the id "${sectionId}"`);
  if (!part || !isWritten(part))
    return fail("counter.part", `"${partId}" is not a part that notes can be written into`);
  const lead = against === undefined ? leadsOf(song, partId)[0] : partOf(song, against);
  if (against !== undefined && (!lead || lead.id === partId || lead.role === "drums"))
    return fail("counter.against", `"${against}" is not a line that ${part.name} could answer`);
  const meter = sectionMeter(song, section);
  const place = sectionPlace(sectionId);
  const length = section.bars * meter.bar;
  const tune = (lead && read.get(tuneAt, sectionId, lead.id)?.notes) ?? [];
  const sung = soundingIn(tune, meter.bar);
  const harmony = soundingIn(
    song.parts
      .filter((p) => p.id !== partId && (p.link !== undefined || p.role === "chords"))
      .flatMap((p) => read.get(notesAt, place, p.id, "held")),
    meter.bar,
  );
  const struck = read.get(hitsAt, place);
  const drum = settings.drum ?? DOUBLED.find((d) => struck.some((h) => h.drum === d)) ?? firstOf(DOUBLED);
  const [low, high] = midiRange(part.range ?? instrumentOf(part.instrument, song).comfortable);
  const end = (text: string, usual: Midi) => {
    const pitch = text ? parsePitch(text) : null;
    return pitch?.ok ? pitch.value : usual;
  };
  const range: [Midi, Midi] = [end(settings.low, low), end(settings.high, high)];
  return ok({
    read,
    song,
    section,
    part,
    meter,
    key: sectionKey(song, section),
    bars: section.bars,
    length,
    chords: read.get(chordsAt, place),
    against: lead?.name ?? "",
    tune,
    phrases: phrasesOf({ notes: tune, meter, tempo: sectionTempo(song, section), length }),
    gaps: gapsOf(tune, meter, length),
    // Where two notes sound, the newer one is the tune.
    tuneAt: (tick) => sung.at(tick).at(-1) ?? null,
    tuneWithin: sung.within,
    harmonyAt: (tick) => harmony.at(tick).map((n) => n.midi),
    drum,
    hits: [
      ...new Set(struck.filter((h) => h.drum === drum && h.start >= 0 && h.start < length).map((h) => h.start)),
    ].sort((a, b) => a - b),
    notes: read.get(notesAt, place, partId, "held"),
    roles: read.get(rolesAt, place, partId, "held"),
    pinned: (section.notes[partId] ?? []).filter((n) => n.pinned),
    range,
    ...homeOf(tune, range, settings.side),
    settings,
  });
}

export const chordAt = (ctx: Pick<CounterContext, "chords">, tick: Ticks): RealizedChord | null =>
  chordAtTick(ctx.chords, tick);

/** Beats within a stretch, its beginning among them where it is one. */
export function beatsWithin(meter: Meter, from: Ticks, to: Ticks): Ticks[] {
  const out: Ticks[] = [];
  for (let bar = Math.floor(from / meter.bar); bar * meter.bar < to; bar++)
    for (const b of meter.beats) {
      const at = bar * meter.bar + b.start;
      if (at >= from && at < to) out.push(at);
    }
  return out;
}
