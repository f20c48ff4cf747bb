import { fail, ok, type Result } from "../../base/result";
import { notesAt } from "../../hear/sounding";
import { tuneAt } from "../../hear/line/facts";
import type { Reader } from "../../facts/memory";
import { type Midi } from "../../theory/pitch/pitch";
import type { Ticks } from "../../theory/time/meter";
import { isWritten, partOf } from "../../song/document";
import { chordAtTick, type RealizedChord, type RealizedNote } from "../../song/realize";
import type { Note, Part } from "../../song/schema";
import { sectionPlace } from "../../song/place";
import { meanPitch, phrasesOf, type Phrase } from "../../hear/line/tune";
import { byVoice } from "../../hear/line/doubles";
import { soundingIn } from "../../hear/slice/soundingIn";
import { midiRange } from "../../theory/instrument/instruments";
import { isSung, rangeOfPart, voiceAround, VOICES, type VoiceRange } from "../../hear/singer/range";
import { groundOf, harmonyOf, tunesFor, type Ground } from "../lines/ground";
import type { LineRequest } from "../lines/kind";
import type { VocalSettings } from "./settings";

/** A voice that is written: of a part, or of one that is still to be added. */
export interface VocalVoice extends VoiceRange {
  part: Part | null;
  name: string;
  /** Its type, where it has no part yet. */
  type?: string;
  pinned: readonly Note[];
}

/** What voices are written against, all in ticks of one section. */
export interface VocalContext extends Ground {
  lead: Part | null;
  tune: readonly RealizedNote[];
  phrases: readonly Phrase[];
  leadAt: (tick: Ticks) => RealizedNote | null;
  leadWithin: (from: Ticks, to: Ticks) => readonly RealizedNote[];
  /** Pitches of the parts that lay out the chords, sounding at a tick. */
  harmonyAt: (tick: Ticks) => readonly Midi[];
  /** Voices beside the tune and those that are written, takes of one line once. */
  others: readonly { part: Part; at(tick: Ticks): readonly RealizedNote[] }[];
  chordsWithin: (from: Ticks, to: Ticks) => readonly RealizedChord[];
  /** Voices that are written, high to low. */
  voices: readonly VocalVoice[];
  settings: VocalSettings;
}

export interface VocalRequest extends LineRequest<VocalSettings> {
  /** A school's id; what the part has stored for the section, or the first, where it is absent. */
  school?: string;
  /** How many sing in all, the tune among them; over what is stored. */
  voices?: number;
  /** The tune; the first one where it is absent. */
  lead?: string;
  /** Parts of the further voices; those that are not named are still to be added. */
  others?: readonly string[];
}

const middle = ({ comfortable: [low, high] }: VoiceRange): number => (low + high) / 2;

/** Where a voice that is still to be added would sing: below the tune, lower with each. */
function freshVoice(tune: readonly RealizedNote[], k: number, type: string | undefined): VocalVoice {
  const voice = VOICES.find((v) => v.id === type) ?? voiceAround((tune.length ? meanPitch(tune) : 64) - 4 - 5 * k);
  return {
    part: null,
    name: voice.title,
    type: voice.id,
    extremes: midiRange(voice.range),
    comfortable: midiRange(voice.comfortable),
    pinned: [],
  };
}

/** The parts that voices are written into. Errors: `vocal.part`. */
function partsOf({ song }: Reader, ids: readonly string[]): Result<Part[]> {
  const parts: Part[] = [];
  for (const id of ids) {
    const part = partOf(song, id);
    if (!part || !isWritten(part) || parts.includes(part))
      return fail("vocal.part", `"${id}" is not a part that a voice can be written into`);
    parts.push(part);
  }
  return ok(parts);
}

/** Voices that sing beside the tune and those that are written, takes of one line once. */
function besides(
  { read, song, section, meter }: Ground,
  { lead, tune, parts }: { lead: Part | null; tune: readonly RealizedNote[]; parts: readonly Part[] },
): VocalContext["others"] {
  const beside = song.parts.filter((p) => isSung(song, p) && p !== lead && !parts.includes(p) && !p.muted);
  const place = sectionPlace(section.id);
  const takes = [
    { part: lead, notes: tune },
    ...beside.map((part) => ({ part, notes: read.get(notesAt, place, part.id, "played") })),
  ];
  return byVoice(takes, { meter }).flatMap(([first]) =>
    first?.part && first.part !== lead && first.notes.length
      ? [{ part: first.part, at: soundingIn(first.notes, meter.bar).at }]
      : [],
  );
}

/** What the voices of a section are written against. Errors: `vocal.section`, `vocal.part`, `vocal.lead`. */
export function vocalContext(
  read: Reader,
  { section: sectionId, part: partId, lead: leadId, others = [] }: VocalRequest,
  settings: VocalSettings,
  { count, types }: { count: number; types?: readonly string[] | undefined },
): Result<VocalContext> {
  const { song } = read;
  const grounded = groundOf("vocal", read, sectionId);
  if (!grounded.ok) return grounded;
  const ground = grounded.value;
  const { section, meter, tempo, length, chords } = ground;
  const found = partsOf(read, [partId, ...others].slice(0, count));
  if (!found.ok) return found;
  const parts = found.value;
  const lead =
    (leadId === undefined ? tunesFor(song, partId).find((p) => !parts.includes(p)) : partOf(song, leadId)) ?? null;
  if (leadId !== undefined && (!lead || !isWritten(lead) || parts.includes(lead)))
    return fail("vocal.lead", `"${leadId}" is not a tune that voices could join`);
  const tune = (lead && read.get(tuneAt, sectionId, lead.id)?.notes) ?? [];
  const sung = soundingIn(tune, meter.bar);
  const own = parts.map((part): VocalVoice => ({
    part,
    name: part.name,
    ...rangeOfPart(song, part),
    pinned: (section.notes[part.id] ?? []).filter((n) => n.pinned),
  }));
  const voices = [
    ...own.sort((a, b) => middle(b) - middle(a)),
    ...Array.from({ length: count - own.length }, (_, k) => freshVoice(tune, own.length + k, types?.[own.length + k])),
  ];
  return ok({
    ...ground,
    lead,
    tune,
    phrases: phrasesOf({ notes: tune, meter, tempo, length }),
    leadAt: (tick) => sung.at(tick).at(-1) ?? null,
    leadWithin: sung.within,
    harmonyAt: harmonyOf(ground, [...parts, lead]),
    others: besides(ground, { lead, tune, parts }),
    chordsWithin: soundingIn(chords, meter.bar).within,
    voices,
    settings,
  });
}

/** The chord at a tick; a pickup stands under the first one. */
export const chordUnder = (ctx: Pick<VocalContext, "chords">, tick: Ticks): RealizedChord | null =>
  chordAtTick(ctx.chords, Math.max(0, tick));
