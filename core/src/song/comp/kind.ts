import type { Midi, PitchName } from "../../theory/pitch/pitch";
import type { Meter, Ticks } from "../../theory/time/meter";
import type { CompSettings } from "./settings";

/** A chord as one part voices it. */
export interface CompChord {
  id: string;
  start: Ticks;
  duration: Ticks;
  /** Low to high. */
  pitches: { midi: Midi; name: PitchName }[];
}

export interface CompContext {
  /** Chords with a voicing, in order. */
  chords: readonly CompChord[];
  meter: Meter;
  length: Ticks;
  /** The section repeats: what anticipates its end is the first chord. */
  loop: boolean;
  /** Drum hits by lane. */
  hits(drum: string): readonly { start: Ticks; velocity: number }[];
  /** Attacks and lengths of the tunes that are sung or played. */
  melody(): readonly { start: Ticks; duration: Ticks }[];
  playing: Readonly<CompSettings>;
}

/** A note of a part that is derived from the chords. */
export interface CompNote {
  chord: string;
  start: Ticks;
  duration: Ticks;
  midi: Midi;
  name: PitchName;
  velocity: number;
  /** Ticks by which it sounds later (or earlier) than it is notated. */
  offset?: number;
  /** Rises out of silence over its whole length. */
  swell?: boolean;
  /** The stroke it belongs to, where that was changed by hand. */
  stroke?: Ticks;
}

/** Settings a kind of part offers, in the order they are shown. */
export type SettingName = Extract<
  keyof CompSettings,
  "rhythm" | "lift" | "notes" | "step" | "way" | "octaves" | "gap" | "strum" | "human"
>;

/** One way of playing the chords, one file each in kinds/. */
export interface CompKind {
  id: string;
  title: string;
  /** One paragraph, shown in the interface. */
  explanation: string;
  source: string;
  /** Has voicings of its own; other kinds play those of another part. */
  voices: boolean;
  /** Name and instrument of a new part of this kind. */
  fresh: { name: string; instrument: string };
  settings: readonly SettingName[];
  notes(ctx: CompContext): CompNote[];
}

/** The name of a pitch some octaves higher. */
export const octaveUp = (name: PitchName, octaves: number): PitchName =>
  name.replace(/-?\d+$/, (digits) => String(Number(digits) + octaves));

/** The pitch of a voicing, octaves added. */
export const raised = (pitch: CompChord["pitches"][number], octaves: number): CompChord["pitches"][number] => ({
  midi: pitch.midi + 12 * octaves,
  name: octaveUp(pitch.name, octaves),
});
