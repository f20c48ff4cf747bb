import { parseChord, pitchMidi, voiceSection, type ChordEvent, type Edit, type Midi, type Song } from "../../../core/src/index";
import { soundNote } from "../../audio/sound";
import type { ScoreData } from "../../score/data";
import { useSong } from "../../store/song";
import { useView } from "../../store/view";
import { chosenPart } from "../voicings/act";

export type Where = "instead" | "after";

/** The chords as they are stored now: what is drawn may be a moment behind. */
export const chordsNow = (sectionId: string): ChordEvent[] =>
  useSong.getState().song?.sections.find((s) => s.id === sectionId)?.chords ?? [];

/** What "after" means where the chord in focus stands. */
export function afterText(data: ScoreData): string {
  const { chord } = useView.getState();
  const chords = data.section.chords;
  const event = chords.find((c) => c.id === chord);
  if (!event || event === chords.at(-1)) return chords.length ? "in a new bar at the end" : "in bar 1";
  return `in the second half of ${event.symbol}`;
}

/** The edit that puts a chord into the section. */
export function putEdit(data: ScoreData, symbol: string, where: Where, readings?: string[]): Edit {
  const section = data.section.id;
  const chords = chordsNow(section);
  const event = chords.find((c) => c.id === useView.getState().chord);
  const more = readings?.length ? { readings } : {};
  if (event && where === "instead")
    return {
      do: "all",
      label: "chord",
      edits: [
        { do: "setChord", section, chord: event.id, symbol },
        ...(readings?.length ? [{ do: "setReadings" as const, section, chord: event.id, readings }] : []),
      ],
    };
  if (event && event !== chords.at(-1)) {
    const half = Math.round(event.duration / 2 / 120) * 120;
    const start = event.start + half;
    const to = event.start + event.duration;
    return { do: "setChords", section, from: start, to, chords: [{ start, duration: to - start, symbol, ...more }] };
  }
  // At the end: the first bar that has no chord yet.
  const end = chords.length ? Math.max(...chords.map((c) => c.start + c.duration)) : 0;
  const start = Math.ceil(end / data.meter.bar) * data.meter.bar;
  return {
    do: "setChords",
    section,
    from: start,
    to: start + data.meter.bar,
    chords: [{ start, duration: data.meter.bar, symbol, ...more }],
  };
}

/** Puts a chord into the section, moves the focus to it, and lets it sound. */
export function put(data: ScoreData, symbol: string, where: Where, readings?: string[]): boolean {
  const before = new Set(chordsNow(data.section.id).map((c) => c.id));
  const done = useSong.getState().edit(putEdit(data, symbol, where, readings));
  if (!done) return false;
  const song = useSong.getState().song!;
  const fresh = chordsNow(data.section.id).find((c) => !before.has(c.id));
  if (fresh) useView.getState().set({ chord: fresh.id, chords: [fresh.id] });
  sound(song, symbol);
  return true;
}

/** Lets a chord sound alone in the chord part's sound. */
export function sound(song: Song, symbol: string): void {
  const part = chosenPart(song);
  const pitches = part && pitchesOf(song, symbol);
  if (part && pitches) for (const midi of pitches) void soundNote(part.id, midi);
}

const cache = new Map<string, Midi[]>();
function pitchesOf(song: Song, symbol: string): Midi[] {
  const known = cache.get(symbol);
  if (known) return known;
  if (!parseChord(symbol).ok) return [];
  // The voicing the chord would get on its own.
  const section = { ...song.sections[0]!, id: "alone", bars: 1, notes: {}, chords: [{ id: "c0", start: 0, duration: 480, symbol }] };
  const part = chosenPart(song)!;
  const voiced = voiceSection({ ...song, sections: [section] }, "alone", part.id);
  const pitches = voiced.ok ? (voiced.value.chords[0]?.pitches ?? []).map(pitchMidi) : [];
  cache.set(symbol, pitches);
  return pitches;
}
