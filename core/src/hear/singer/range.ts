import type { Midi } from "../../theory/pitch/pitch";
import type { Part, Singer, Song } from "../../song/schema";
import { instrumentOf, INSTRUMENTS, midiRange, type Instrument } from "../../theory/instrument/instruments";

/** Where a voice sings: at ease, and at its ends. Sounding pitches. */
export interface VoiceRange {
  comfortable: [Midi, Midi];
  extremes: [Midi, Midi];
}

/** The types of voice a singer can have, high to low. */
export const VOICES: readonly Instrument[] = INSTRUMENTS.filter((i) => i.sound === "voice" && i.id !== "choir");

/** One breath at ease, in seconds, where none was measured (common practice: a phrase of four slow bars is long). */
export const USUAL_BREATH = 8;

const within = ([low, high]: [Midi, Midi], [least, most]: [Midi, Midi]): [Midi, Midi] => [
  Math.min(Math.max(low, least), most),
  Math.max(Math.min(high, most), least),
];

/** The ranges of a singer: as they were measured, else those of the type of voice. */
export function singerRange(song: Song, singer: Singer): VoiceRange {
  const voice = instrumentOf(singer.voice, song);
  const extremes = singer.extremes ? midiRange(singer.extremes) : midiRange(voice.range);
  if (singer.comfortable) {
    const own = midiRange(singer.comfortable);
    // What is easy is possible, whatever the type of voice says.
    return {
      comfortable: own,
      extremes: singer.extremes ? extremes : [Math.min(extremes[0], own[0]), Math.max(extremes[1], own[1])],
    };
  }
  return { comfortable: within(midiRange(voice.comfortable), extremes), extremes };
}

export const singerOf = (song: Song, part: string): Singer | undefined => song.singers.find((s) => s.partId === part);

/** The ranges of a part: those of its singer, else its own, else those of its instrument. */
export function rangeOfPart(song: Song, part: Part): VoiceRange {
  const singer = singerOf(song, part.id);
  if (singer) return singerRange(song, singer);
  const instrument = instrumentOf(part.instrument, song);
  const extremes = midiRange(part.range ?? instrument.range);
  return { comfortable: within(midiRange(instrument.comfortable), extremes), extremes };
}

/** Whether a part is sung. */
export const isSung = (song: Song, part: Part): boolean =>
  part.role === "vocal" ||
  ((part.role === "melody" || part.role === "counter") && instrumentOf(part.instrument, song).sound === "voice");

/** The type of voice that sits best around a pitch. */
export const voiceAround = (pitch: number): Instrument =>
  VOICES.reduce((best, v) => {
    const away = (i: Instrument) => Math.abs(midiRange(i.comfortable).reduce((a, b) => a + b, 0) / 2 - pitch);
    return away(v) < away(best) ? v : best;
  });
