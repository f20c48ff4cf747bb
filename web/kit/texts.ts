import {
  type Bpm,
  Meter,
  type Pass,
  Pitch,
  type PitchName,
  type Problem,
  type Song,
  sure,
  type Ticks,
} from "../../core/src/index";

/** Typed text with the letters that stand for real accidentals. */
export const plainSigns = (text: string): string => text.replaceAll("♭", "b").replaceAll("♯", "#");

/** A key with real accidentals: "E♭ major". */
export const keyText = (key: string): string => {
  const [tonic, ...mode] = key.split(" ");
  return [Pitch.typeset(sure(tonic)), ...mode].join(" ");
};

/**
 * A pitch as it is typed: small letters and real accidentals are taken as well. Null when it is none, which `say` is
 * told.
 */
export function typedPitch(text: string, say: (problem: Problem) => void): PitchName | null {
  const name = plainSigns(text.trim()).replace(/^[a-g]/, (letter) => letter.toUpperCase());
  const pitch = Pitch.parse(name);
  if (pitch.ok) return name;
  say(pitch.error);
  return null;
}

/** A cost with one decimal. */
export const oneDecimal = (n: number): string => (Math.round(n * 10) / 10).toFixed(1);

/** A share as a whole percentage. */
export const percent = (share: number): string => `${Math.round(share * 100)}\u00a0%`;

const MINUTE = 60_000;

/** Ticks as milliseconds at a tempo, and back. */
export const milliseconds = (ticks: Ticks, tempo: Bpm): number =>
  Math.round((ticks / Meter.QUARTER) * (MINUTE / tempo));
export const ticksOf = (ms: number, tempo: Bpm): Ticks => Math.round((ms * tempo * Meter.QUARTER) / MINUTE);

/** From so many characters on a line of music stands bar by bar: that reads better, and is drawn many times faster. */
const LONG = 1000;

/** A line of music as it stands in a field. */
export const inBars = (line: string): string => (line.length > LONG ? line.replace(/ \| /g, " |\n") : line);

type Own = NonNullable<Pass["own"]>[number];

/** What of its bars a pass has for itself: "chords, drums, Bass". */
export const ownText = (song: Pick<Song, "parts">, { chords, groove, notes }: Own): string =>
  [
    ...(chords ? ["chords"] : []),
    ...(groove ? ["drums"] : []),
    ...Object.keys(notes ?? {}).map((id) => song.parts.find((p) => p.id === id)?.name ?? id),
  ].join(", ");
