import { pitchMidi, type PitchName } from "../pitch/pitch";
import { octaveUp } from "../comp/kind";

/**
 * The next inversion of a layout, spelled as before: upward the lowest note rises by octaves past the others' reach, downward the highest
 * falls. Low to high.
 */
export function invert(pitches: readonly PitchName[], direction: 1 | -1): PitchName[] {
  const sorted = [...pitches].sort((a, b) => pitchMidi(a) - pitchMidi(b));
  if (sorted.length < 2) return sorted.map((p) => octaveUp(p, direction));
  const moving = direction > 0 ? sorted[0]! : sorted.at(-1)!;
  const rest = direction > 0 ? sorted.slice(1) : sorted.slice(0, -1);
  let next = octaveUp(moving, direction);
  while (rest.some((p) => pitchMidi(p) === pitchMidi(next))) next = octaveUp(next, direction);
  return [...rest, next].sort((a, b) => pitchMidi(a) - pitchMidi(b));
}
