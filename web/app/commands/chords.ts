import {
  Chord,
  type ChordEvent,
  type Edit,
  firstOf,
  type HeldShape,
  Meter,
  type Midi,
  type Part,
  Pitch,
  type Section,
  type Song,
  type Ticks,
  Voicing,
} from "../../../core/src/index";
import { soundNote } from "../audio/sound";
import type { SectionData } from "../store/sectionData";
import { chooseChord, useSelection } from "../store/selection";
import { edit, sectionNow, songNow } from "../store/song";
import { soundPitches, voicePartOf } from "./voicings";

/** In place of the chord in focus, or after it. */
export type Where = "instead" | "after";

/** The chords as they are stored now: what is drawn may be a moment behind. */
export const chordsNow = (sectionId: string): ChordEvent[] => sectionNow(sectionId)?.chords ?? [];

/** What "after" means where the chord in focus stands. */
export function afterText({ section: { chords } }: SectionData, focus: string | null): string {
  const event = chords.find((c) => c.id === focus);
  if (!event || event === chords.at(-1)) return chords.length ? "in a new bar at the end" : "in bar 1";
  return `in the second half of ${event.symbol}`;
}

/** Where chords are put: a section and its meter. */
type Placed = Pick<SectionData, "meter"> & { section: Pick<SectionData["section"], "id"> };

/** What is put beside a symbol: other readings, how long it lasts, and how hands played it for a part. */
export interface PutWith {
  readings?: string[] | undefined;
  length?: Ticks | undefined;
  played?: { part: string; pitches: string[]; shape?: HeldShape } | undefined;
}

/** The edit that puts a chord into the section. */
export function putEdit(data: Placed, symbol: string, where: Where, more: PutWith = {}): Edit {
  const { readings, length = data.meter.bar, played } = more;
  const section = data.section.id;
  const chords = chordsNow(section);
  const event = chords.find((c) => c.id === useSelection.getState().chord);
  if (event && where === "instead") {
    const chord = { section, chord: event.id };
    const edits: Edit[] = [
      { do: "setChord", ...chord, symbol },
      ...(readings?.length ? [{ do: "setReadings" as const, ...chord, readings }] : []),
      ...(played ? [{ do: "pinVoicing" as const, ...chord, ...played }] : []),
    ];
    return edits.length === 1 ? firstOf(edits) : { do: "all", label: "chord", edits };
  }
  const layout = played && {
    pitches: played.pitches,
    pinned: true,
    ...(played.shape ? { shape: played.shape } : {}),
  };
  const into = (from: number, to: number): Edit => ({
    do: "setChords",
    section,
    from,
    to,
    chords: [
      {
        start: from,
        duration: to - from,
        symbol,
        ...(readings?.length ? { readings } : {}),
        ...(played && layout ? { voicings: { [played.part]: layout } } : {}),
      },
    ],
  });
  if (event && event !== chords.at(-1)) {
    const half = Math.round(event.duration / 2 / Meter.SIXTEENTH) * Meter.SIXTEENTH;
    return into(event.start + half, event.start + event.duration);
  }
  // At the end: the first bar that has no chord yet.
  const end = chords.length ? Math.max(...chords.map((c) => c.start + c.duration)) : 0;
  const start = length < data.meter.bar ? end : Math.ceil(end / data.meter.bar) * data.meter.bar;
  return into(start, start + length);
}

/** Puts a chord into the section, moves the focus to it, and lets it sound. */
export function put(data: SectionData, symbol: string, where: Where, more: PutWith = {}): boolean {
  const before = new Set(chordsNow(data.section.id).map((c) => c.id));
  if (!edit(putEdit(data, symbol, where, more))) return false;
  const fresh = chordsNow(data.section.id).find((c) => !before.has(c.id));
  if (fresh) chooseChord(fresh.id);
  if (more.played) soundPitches(more.played.part, more.played.pitches);
  else soundChord(symbol);
  return true;
}

/** Renames a chord, and lets it sound; false where it cannot be read. */
export function rename(section: string, chord: string, symbol: string): boolean {
  if (!edit({ do: "setChord", section, chord, symbol })) return false;
  soundChord(symbol);
  return true;
}

/** Lets a chord sound alone in the sound of the part whose voicings are worked on. */
export function soundChord(symbol: string): void {
  const song = songNow();
  const part = voicePartOf(song);
  if (part) for (const midi of alone(song, part, symbol)) void soundNote(part.id, midi);
}

const known = new WeakMap<Part, Map<string, Midi[]>>();

/** The layout a chord would get on its own. */
function alone(song: Song, part: Part, symbol: string): Midi[] {
  const layouts = known.get(part) ?? new Map<string, Midi[]>();
  known.set(part, layouts);
  const found = layouts.get(symbol);
  if (found || symbol === Chord.NONE || !Chord.of(symbol)) return found ?? [];
  const section: Section = {
    ...firstOf(song.sections),
    id: "alone",
    bars: 1,
    notes: {},
    chords: [{ id: "c0", start: 0, duration: Meter.SIXTEENTH, symbol }],
  };
  const voiced = Voicing.section({ ...song, sections: [section] }, section.id, part.id);
  const pitches = voiced.ok ? (voiced.value.chords[0]?.pitches ?? []).map(Pitch.midi) : [];
  layouts.set(symbol, pitches);
  return pitches;
}
