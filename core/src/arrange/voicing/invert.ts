import { sure } from "../../base/list";
import { mod, noteOf, pitchMidi, pitchName, type PitchName } from "../../theory/pitch/pitch";

/**
 * The next inversion of a layout: every voice goes to the next tone of the chord above (or below), so that close stays
 * close and drop 2 stays drop 2, and the turn back is exact. In close position this is the lowest note an octave
 * higher. Low to high, spelled as before.
 */
export function invert(pitches: readonly PitchName[], direction: 1 | -1): PitchName[] {
  const names = new Map(pitches.map((p) => [mod(pitchMidi(p), 12), noteOf(p)]));
  return pitches
    .map((p) => {
      let midi = pitchMidi(p) + direction;
      while (!names.has(mod(midi, 12))) midi += direction;
      return pitchName(midi, sure(names.get(mod(midi, 12))));
    })
    .sort((a, b) => pitchMidi(a) - pitchMidi(b));
}
