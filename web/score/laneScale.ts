import {
  Instrument,
  type Midi,
  type RealizedNote,
  type RealizedPart,
  type WithInstruments,
} from "../../core/src/index";
import { laneRange } from "./geometry";
import { RADIUS } from "./layout";

/** Heights of pitches in a lane. */
export interface LaneScale {
  low: Midi;
  high: Midi;
  /** Height that is left for notes: words take lines of their own. */
  foot: number;
  y(midi: number): number;
  midiAt(y: number): number;
  /** Semitones for so many pixels downwards. */
  semitones(dy: number): number;
}

const PAD = RADIUS + 3;
/** Two lines of words. */
const WORDS = 30;

export const laneFoot = (notes: readonly RealizedNote[], height: number): number =>
  notes.some((n) => n.lyrics) ? height - WORDS : height;

export function laneScale([low, high]: readonly [Midi, Midi], foot: number): LaneScale {
  const span = high - low;
  const room = foot - 2 * PAD;
  return {
    low,
    high,
    foot,
    y: (midi) => PAD + ((high - midi) / span) * room,
    midiAt: (y) => high - ((y - PAD) / room) * span,
    semitones: (dy) => (-dy / room) * span,
  };
}

/** What an empty lane shows: where the instrument lies well, within where its role is mostly played. */
const USUAL_BASS: readonly [Midi, Midi] = [28, 46];
const USUAL: readonly [Midi, Midi] = [55, 76];

/** Lowest and highest pitch a part's lane shows. */
export function partRange(part: RealizedPart, song: WithInstruments): [Midi, Midi] {
  const comfortable = Instrument.range(Instrument.of(part.instrument, song).comfortable);
  const usual = part.role === "bass" ? USUAL_BASS : USUAL;
  return laneRange(
    part.notes.map((n) => n.midi),
    [Math.max(comfortable[0], usual[0]), Math.min(comfortable[1], usual[1])],
  );
}

/** The range a lane keeps while it is worked in: it grows where a note would fall out of it, and never shrinks. */
export const keptRange = (kept: readonly [Midi, Midi], part: RealizedPart): readonly [Midi, Midi] => {
  const midis = part.notes.map((n) => n.midi);
  const [low, high] = [Math.min(kept[0], ...midis), Math.max(kept[1], ...midis)];
  return low === kept[0] && high === kept[1] ? kept : [low, high];
};

/** Octave marks between two pitches. */
export function octaves(low: Midi, high: Midi): Midi[] {
  const marks = [];
  for (let m = Math.ceil(low / 12) * 12; m <= high; m += 12) marks.push(m);
  return marks;
}
