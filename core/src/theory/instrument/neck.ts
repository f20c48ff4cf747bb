import { pitchMidi, type PitchName } from "../pitch/pitch";
import type { Neck } from "./fretboard";
import type { Instrument } from "./instruments";

/**
 * The neck of a fretted instrument under a capo, in a tuning of its own where one is given; none where it has no frets.
 */
export const neckOf = (instrument: Instrument, capo = 0, tuning?: readonly PitchName[]): Neck | undefined =>
  instrument.held.by === "frets"
    ? {
        strings: (tuning?.length ? tuning : instrument.held.strings).map(pitchMidi),
        frets: instrument.held.frets,
        scale: instrument.held.scale,
        capo,
      }
    : undefined;
