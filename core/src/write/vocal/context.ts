import { fail, ok, type Result } from "../../base/result";
import { chordsAt, notesAt } from "../../hear/sounding";
import { tuneAt } from "../../hear/line/facts";
import type { Reader } from "../../facts/memory";
import type { Key } from "../../theory/pitch/key";
import { type Midi } from "../../theory/pitch/pitch";
import type { Meter, Ticks } from "../../theory/time/meter";
import { isWritten, partOf, sectionKey, sectionMeter, sectionOf, sectionTempo } from "../../song/document";
import { chordAtTick, type RealizedChord, type RealizedNote } from "../../song/realize";
import type { Note, Part, Section, Song } from "../../song/schema";
import { sectionPlace } from "../../song/place";
import { meanPitch, phrasesOf, type Phrase } from "../../hear/line/tune";
import { byVoice } from "../../hear/line/between";
import { soundingIn } from "../../hear/slice/soundingIn";
import { midiRange } from "../../theory/instrument/instruments";
import { isSung, rangeOfPart, voiceAround, VOICES, type VoiceRange } from "../../hear/singer/range";
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
export interface VocalContext {
  read: Reader;
  song: Song;
  section: Section;
  meter: Meter;
  key: Key;
  bars: number;
  length: Ticks;
  tempo: number;
  chords: readonly RealizedChord[];
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

export interface VocalPlace {
  section: string;
  part: string;
  /** The tune; the first one where it is absent. */
  lead?: string;
  /** Parts of the further voices; those that are not named are still to be added. */
  others?: readonly string[];
}

/** Tunes that voices can be written beside: melodies and voices first. */
export const tunesFor = (song: Song, part: string): Part[] =>
  (["melody", "vocal", "counter"] as const).flatMap((role) =>
    song.parts.filter((p) => p.role === role && p.id !== part && isWritten(p)),
  );

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

/** What the voices of a section are written against. Errors: `vocal.section`, `vocal.part`, `vocal.lead`. */
export function vocalContext(
  read: Reader,
  { section: sectionId, part: partId, lead: leadId, others = [] }: VocalPlace,
  settings: VocalSettings,
  { count, types }: { count: number; types?: readonly string[] | undefined },
): Result<VocalContext> {
  const { song } = read;
  const section = sectionOf(song, sectionId);
  if (!section) return fail("vocal.section", `No section has the id "${sectionId}"`);
  const parts: Part[] = [];
  for (const id of [partId, ...others].slice(0, count)) {
    const part = partOf(song, id);
    if (!part || !isWritten(part) || parts.includes(part))
      return fail("vocal.part", `"${id}" is not a part that a voice can be written into`);
    parts.push(part);
  }
  const lead = leadId === undefined ? tunesFor(song, partId).find((p) => !parts.includes(p)) : partOf(song, leadId);
  if (leadId !== undefined && (!lead || !isWritten(lead) || parts.includes(lead)))
    return fail("vocal.lead", `"${leadId}" is not a tune that voices could join`);
  const meter = sectionMeter(song, section);
  const place = sectionPlace(sectionId);
  const tune = (lead && read.get(tuneAt, sectionId, lead.id)?.notes) ?? [];
  const sung = soundingIn(tune, meter.bar);
  const harmony = soundingIn(
    song.parts
      .filter((p) => !parts.includes(p) && p !== lead && (p.link !== undefined || p.role === "chords"))
      .flatMap((p) => read.get(notesAt, place, p.id, "held")),
    meter.bar,
  );
  const chords = read.get(chordsAt, place);
  const length = section.bars * meter.bar;
  const tempo = sectionTempo(song, section);
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
  const beside = song.parts.filter((p) => isSung(song, p) && p !== lead && !parts.includes(p) && !p.muted);
  const takes = [
    { part: lead ?? null, notes: tune },
    ...beside.map((part) => ({ part, notes: read.get(notesAt, place, part.id, "played") })),
  ];
  return ok({
    read,
    song,
    section,
    meter,
    key: sectionKey(song, section),
    bars: section.bars,
    length,
    tempo,
    chords,
    lead: lead ?? null,
    tune,
    phrases: phrasesOf({ notes: tune, meter, tempo, length }),
    leadAt: (tick) => sung.at(tick).at(-1) ?? null,
    leadWithin: sung.within,
    harmonyAt: (tick) => harmony.at(tick).map((n) => n.midi),
    others: byVoice(takes, { meter }).flatMap(([first]) =>
      first?.part && first.part !== lead && first.notes.length
        ? [{ part: first.part, at: soundingIn(first.notes, meter.bar).at }]
        : [],
    ),
    chordsWithin: soundingIn(chords, meter.bar).within,
    voices,
    settings,
  });
}

export const chordAt = (ctx: Pick<VocalContext, "chords">, tick: Ticks): RealizedChord | null =>
  chordAtTick(ctx.chords, Math.max(0, tick));
