import { midiFrequency, type Hertz, type Midi } from "../pitch/pitch";

/** Critical bandwidth around a frequency (Zwicker & Terhardt 1980, value from memory). */
export const criticalBand = (f: Hertz): Hertz => 25 + 75 * (1 + 1.4 * (f / 1000) ** 2) ** 0.69;

/** Roughness of two pure tones (Plomp & Levelt 1965 in the form of Sethares 1993, value from memory). */
export function roughnessOfPartials(f1: Hertz, f2: Hertz, a1 = 1, a2 = 1): number {
  const low = Math.min(f1, f2);
  const apart = Math.abs(f2 - f1);
  const s = 0.24 / (0.021 * low + 19);
  return Math.min(a1, a2) * (Math.exp(-3.5 * s * apart) - Math.exp(-5.75 * s * apart));
}

/** A tone of six partials, each 0.88 times as strong as the one below (Sethares 1993). */
const PARTIALS = Array.from({ length: 6 }, (_, k) => ({ multiple: k + 1, amplitude: 0.88 ** k }));

/** Roughness of two complex tones: what their partials make with each other, without what each makes alone. */
export function roughnessOfTones(f1: Hertz, f2: Hertz): number {
  let sum = 0;
  for (const a of PARTIALS)
    for (const b of PARTIALS) sum += roughnessOfPartials(f1 * a.multiple, f2 * b.multiple, a.amplitude, b.amplitude);
  return sum;
}

const table = new Float64Array(128 * 128).fill(-1);

/** Roughness between two notes in equal temperament, A4 = 440 Hz. */
export function pairRoughness(a: Midi, b: Midi): number {
  const at = Math.min(a, b) * 128 + Math.max(a, b);
  const known = table[at] ?? -1;
  if (known >= 0) return known;
  const found = roughnessOfTones(midiFrequency(a), midiFrequency(b));
  table[at] = found;
  return found;
}

/** Roughness of a chord: the sum over all pairs of its notes. */
export function roughness(pitches: readonly Midi[]): number {
  let sum = 0;
  for (let i = 0; i < pitches.length; i++)
    for (let j = i + 1; j < pitches.length; j++) sum += pairRoughness(pitches[i]!, pitches[j]!);
  return sum;
}
