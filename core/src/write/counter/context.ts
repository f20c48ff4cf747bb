import { firstOf } from "../../base/list";
import { fail, ok, type Result } from "../../base/result";
import { hitsAt } from "../../hear/sounding";
import { tuneAt } from "../../hear/line/facts";
import type { Reader } from "../../facts/memory";
import { type Midi } from "../../theory/pitch/pitch";
import type { Meter, Ticks } from "../../theory/time/meter";
import { partOf } from "../../song/document";
import type { RealizedNote } from "../../song/realize";
import type { Drum } from "../../song/schema";
import { sectionPlace } from "../../song/place";
import { gapsOf, meanPitch, phrasesOf, type Gap, type Phrase } from "../../hear/line/tune";
import { soundingIn } from "../../hear/slice/soundingIn";
import { harmonyOf, partGround, tunesFor, type PartGround } from "../lines/ground";
import type { LineRequest } from "../lines/kind";
import type { CounterSettings } from "./settings";

/** What a counter melody is written against, all in ticks of one section. */
export interface CounterContext extends PartGround {
  /** The line it answers, by the name of its part; no note where there is none. */
  against: string;
  tune: readonly RealizedNote[];
  phrases: readonly Phrase[];
  /** Silences of the tune of a beat or more; the one at the end reaches to the first note of the repetition. */
  gaps: readonly Gap[];
  tuneAt: (tick: Ticks) => RealizedNote | null;
  tuneWithin: (from: Ticks, to: Ticks) => readonly RealizedNote[];
  /** The part's own note at a tick, as it stands before it is written anew; the newer one where two sound. */
  oldAt: (tick: Ticks) => RealizedNote | null;
  /** Pitches of the parts that lay out the chords, sounding at a tick. */
  harmonyAt: (tick: Ticks) => readonly Midi[];
  /** Hits of the drum it doubles. */
  drum: Drum;
  hits: readonly Ticks[];
  /** Where it is at home against the tune. */
  home: Midi;
  side: "below" | "above";
  settings: CounterSettings;
}

export interface CounterRequest extends LineRequest<CounterSettings> {
  /** A style's id; what the part has stored for the section, or the answer, where it is absent. */
  style?: string;
  /** The part it answers; the first tune where it is absent. */
  against?: string;
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

/**
 * What a part's counter melody in a section is written against. Errors: `counter.section`, `counter.part`,
 * `counter.against`.
 */
export function counterContext(
  read: Reader,
  request: CounterRequest,
  settings: CounterSettings,
): Result<CounterContext> {
  const { song } = read;
  const { section, part: partId, against } = request;
  const grounded = partGround("counter", read, request, settings);
  if (!grounded.ok) return grounded;
  const ground = grounded.value;
  const { meter, tempo, length, part } = ground;
  const lead = against === undefined ? tunesFor(song, partId)[0] : partOf(song, against);
  if (against !== undefined && (!lead || lead.id === partId || lead.role === "drums"))
    return fail("counter.against", `"${against}" is not a line that ${part.name} could answer`);
  const tune = (lead && read.get(tuneAt, section, lead.id)?.notes) ?? [];
  const sung = soundingIn(tune, meter.bar);
  const old = soundingIn(ground.notes, meter.bar);
  const struck = read.get(hitsAt, sectionPlace(section));
  const drum = settings.drum ?? DOUBLED.find((d) => struck.some((h) => h.drum === d)) ?? firstOf(DOUBLED);
  return ok({
    ...ground,
    against: lead?.name ?? "",
    tune,
    phrases: phrasesOf({ notes: tune, meter, tempo, length }),
    gaps: gapsOf(tune, meter, length),
    // Where two notes sound, the newer one is the tune.
    tuneAt: (tick) => sung.at(tick).at(-1) ?? null,
    tuneWithin: sung.within,
    oldAt: (tick) => old.at(tick).at(-1) ?? null,
    harmonyAt: harmonyOf(ground, [part]),
    drum,
    hits: [
      ...new Set(struck.filter((h) => h.drum === drum && h.start >= 0 && h.start < length).map((h) => h.start)),
    ].sort((a, b) => a - b),
    ...homeOf(tune, ground.range, settings.side),
    settings,
  });
}

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

export { chordAt } from "../lines/ground";
