import { nth } from "./orchard";

/** Loudness as the ear weighs it: the A-curve of IEC 61672-1, applied to the spectrum of a stretch of samples. */

/** Gain of the A-curve at a frequency, as a factor of the amplitude; 1 at 1 kHz. */
export function aWeight(f: number): number {
  const f2 = f * f;
  const ra =
    (12194 ** 2 * f2 * f2) / ((f2 + 20.6 ** 2) * Math.sqrt((f2 + 107.7 ** 2) * (f2 + 737.9 ** 2)) * (f2 + 12194 ** 2));
  return ra * 10 ** (2 / 20);
}

/** Real and imaginary part of the spectrum of samples whose number is a power of two, in place. */
function transform(re: Float64Array, im: Float64Array): void {
  const n = re.length;
  for (let i = 1, j = 0; i < n; i++) {
    let bit = n >> 1;
    for (; j & bit; bit >>= 1) j ^= bit;
    j ^= bit;
    if (i < j) {
      [re[i], re[j]] = [nth(re, j), nth(re, i)];
      [im[i], im[j]] = [nth(im, j), nth(im, i)];
    }
  }
  for (let size = 2; size <= n; size *= 2) {
    const angle = (-2 * Math.PI) / size;
    for (let start = 0; start < n; start += size)
      for (let k = 0; k < size / 2; k++) {
        const [c, s] = [Math.cos(angle * k), Math.sin(angle * k)];
        const [a, b] = [start + k, start + k + size / 2];
        const [x, y] = [nth(re, b) * c - nth(im, b) * s, nth(re, b) * s + nth(im, b) * c];
        [re[b], im[b]] = [nth(re, a) - x, nth(im, a) - y];
        [re[a], im[a]] = [nth(re, a) + x, nth(im, a) + y];
      }
  }
}

/** Samples to either side within which a loud one keeps the others. */
const NEAR = 200;

/** A-weighted level of samples while they sound, in decibels below full scale: silence is left out. */
export function loudness(samples: readonly number[], rate: number): number {
  const most = peak(samples);
  // A sample counts while something near it is loud enough.
  const loud = samples.map((x) => Math.abs(x) > most / 100);
  let left = 0;
  const sounding = samples.filter((_, i) => {
    if (loud[i + NEAR]) left = 2 * NEAR;
    return left-- > 0;
  });
  let n = 1;
  while (n < sounding.length) n *= 2;
  const re = new Float64Array(n);
  const im = new Float64Array(n);
  sounding.forEach((x, i) => (re[i] = x));
  transform(re, im);
  let power = 0;
  for (let k = 1; k < n / 2; k++) power += 2 * (nth(re, k) ** 2 + nth(im, k) ** 2) * aWeight((k * rate) / n) ** 2;
  return 10 * Math.log10(power / n / sounding.length);
}

export const peak = (samples: readonly number[]): number => samples.reduce((most, x) => Math.max(most, Math.abs(x)), 0);
