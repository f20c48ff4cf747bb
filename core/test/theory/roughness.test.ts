import { firstOf, nth } from "../../src/base/list";
import {
  criticalBand,
  pairRoughness,
  roughness,
  roughnessOfPartials,
  roughnessOfTones,
} from "../../src/theory/motion/roughness";
import { LOW_INTERVAL_LIMITS } from "../../src/theory/motion/motion";
import { threads } from "../../src/theory/motion/threads";

/** Where a function of the second frequency is largest. */
const peak = (f: number): number => {
  let best = { at: 0, value: -1 };
  for (let apart = 1; apart < f; apart += 0.25) {
    const value = roughnessOfPartials(f, f + apart);
    if (value > best.value) best = { at: apart, value };
  }
  return best.at;
};

test(
  "pure tones are roughest near a quarter of the critical band (Plomp & Levelt 1965; band after Zwicker & " +
    "Terhardt 1980)",
  () => {
    for (const f of [110, 220, 440, 660, 1000]) {
      const share = peak(f) / criticalBand(f);
      expect([f, share > 0.18 && share < 0.25]).toEqual([f, true]);
    }
    // 100 Hz at low frequencies, about 160 Hz at 1 kHz (Zwicker & Terhardt 1980, values from memory).
    expect(criticalBand(100)).toBeCloseTo(100.7, 0);
    expect(criticalBand(1000)).toBeGreaterThan(155);
    expect(criticalBand(1000)).toBeLessThan(170);
  },
);

test("tones of six partials are smoothest at the octave and the fifth (Sethares 1993), and rough at the semitone", () => {
  const at = (cents: number) => roughnessOfTones(262, 262 * 2 ** (cents / 1200));
  for (const pure of [702, 1200]) {
    expect(at(pure)).toBeLessThan(at(pure - 25));
    expect(at(pure)).toBeLessThan(at(pure + 25));
  }
  const semitones = Array.from({ length: 12 }, (_, i) => pairRoughness(60, 61 + i));
  expect(semitones.indexOf(Math.min(...semitones))).toBe(11);
  expect(semitones.indexOf(Math.max(...semitones))).toBe(0);
  expect(semitones.indexOf(Math.min(...semitones.slice(0, 11)))).toBe(6);
});

test("the same chord is rougher the lower it lies (Huron 2001), and a cluster rougher than a triad", () => {
  const triad = (root: number) => roughness([root, root + 4, root + 7]);
  const low = [36, 43, 48, 55, 60, 67].map(triad);
  expect([...low].sort((a, b) => b - a)).toEqual(low);
  expect(roughness([60, 61, 62])).toBeGreaterThan(triad(60));
});

test("threads: the smallest ways that do not cross, each with its kind and its parallels", () => {
  expect(threads([60, 64, 67], [60, 65, 69]).map((t) => [t.semitones, t.kind, t.parallel])).toEqual([
    [0, "common", null],
    [1, "step", null],
    [2, "step", null],
  ]);
  const planed = threads([48, 55, 64], [53, 60, 65]);
  expect(planed.map((t) => t.parallel)).toEqual(["fifth", "fifth", null]);
  expect(firstOf(planed).kind).toBe("leap");
  // Unequal numbers: every note takes part.
  const merged = threads([57, 60, 64, 67], [57, 62, 65]);
  expect(new Set(merged.map((t) => t.from)).size).toBe(4);
  expect(new Set(merged.map((t) => t.to)).size).toBe(3);
  expect(merged.every((t, i) => i === 0 || (t.from >= nth(merged, i - 1).from && t.to >= nth(merged, i - 1).to))).toBe(
    true,
  );
});

test(
  "the table of low interval limits and roughness agree: at its limit every interval is about as rough as the " +
    "others, rougher below, smoother an octave above",
  () => {
    const at = Object.entries(LOW_INTERVAL_LIMITS).map(([size, low]) => ({ size: Number(size), low }));
    for (const { size, low } of at) {
      const rough = (bottom: number) => pairRoughness(bottom, bottom + size);
      expect([size, rough(low) > 0.5, rough(low) < 0.9]).toEqual([size, true, true]);
      for (let down = 1; down <= 12; down++)
        expect([size, down, rough(low - down) > rough(low - down + 1)]).toEqual([size, down, true]);
      // A semitone rubs anywhere.
      expect([size, rough(low + 12) < rough(low) || size === 1]).toEqual([size, true]);
    }
  },
);
