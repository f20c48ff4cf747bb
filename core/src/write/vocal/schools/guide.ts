import { mod, type Midi } from "../../../theory/pitch/pitch";
import { rootPc } from "../../../theory/chord/chord";
import type { VocalSlot } from "../school";

/** What leaving out the tones that tell a chord costs: its third (or what stands for it) first, then its seventh. */
export function guideCost({ chord }: VocalSlot, pitches: readonly Midi[]): number {
  if (!chord?.chord) return 0;
  const { tones } = chord.chord;
  const base = rootPc(chord.chord);
  const has = (semitones: number) => pitches.some((p) => mod(p - base - semitones, 12) === 0);
  return tones.reduce((sum, t) => {
    let weight: 1 | 0.4 | 0 | 0.7 | 0.2;
    if (t.degree === 3 || t.degree === 4 || t.degree === 2) weight = 1;
    else if (t.degree === 7) weight = 0.7;
    else if (t.degree === 1) weight = 0.2;
    else if (t.degree === 6) weight = 0.4;
    else weight = 0;
    return sum + (has(t.semitones) ? 0 : weight);
  }, 0);
}
