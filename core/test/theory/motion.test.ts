import { nth } from "../../src/base/list";
import fc from "fast-check";
import { belowLimit, motionKind, parallelPerfect, voiceLeadingDistance } from "../../src/theory/motion/motion";
import { chordPitchClasses } from "../../src/theory/chord/chord";
import { must } from "../../src/base/result";
import { parseChord } from "../../src/theory/chord/parse";
import { pitchMidi } from "../../src/theory/pitch/pitch";

const chord = (symbol: string) => must(parseChord(symbol));

describe("motion against published values", () => {
  // Cohn 1996, Tymoczko 2006; values from memory, computed again by the test itself through brute force below.
  test.each([
    ["C", "Cm", 1],
    ["C", "Em", 1],
    ["C", "Am", 2],
    ["C", "Ab", 2],
    ["C", "E", 2],
    ["C", "F", 3],
    ["C", "G", 3],
    ["C", "D", 6],
    ["C", "F#", 6],
  ])("smallest voice leading %s–%s is %i", (a, b, distance) => {
    expect(voiceLeadingDistance(chordPitchClasses(chord(a)), chordPitchClasses(chord(b)))).toBe(distance);
  });
  test("the hexatonic cycle is six steps of 1; Cdim7 lies 1 from four dominants (Cohn 1996, 2012)", () => {
    const cycle = ["C", "Cm", "Ab", "G#m", "E", "Em", "C"].map((s) => chordPitchClasses(chord(s)));
    expect(cycle.slice(1).map((c, i) => voiceLeadingDistance(nth(cycle, i), c))).toEqual([1, 1, 1, 1, 1, 1]);
    for (const symbol of ["B7", "D7", "F7", "Ab7"])
      expect(voiceLeadingDistance(chordPitchClasses(chord("Cdim7")), chordPitchClasses(chord(symbol)))).toBe(1);
  });
  test("voice leading equals brute force over all matchings", () => {
    const permutations = (list: number[]): number[][] =>
      list.length < 2
        ? [list]
        : list.flatMap((x, i) => permutations([...list.slice(0, i), ...list.slice(i + 1)]).map((p) => [x, ...p]));
    const ring = (a: number, b: number) => Math.min((a - b + 12) % 12, (b - a + 12) % 12);
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 0, max: 11 }), { minLength: 3, maxLength: 4 }),
        fc.uniqueArray(fc.integer({ min: 0, max: 11 }), { minLength: 4, maxLength: 4 }),
        (a, longer) => {
          const b = longer.slice(0, a.length);
          expect(voiceLeadingDistance(a, b)).toBe(
            Math.min(...permutations(b).map((p) => a.reduce((sum, x, i) => sum + ring(x, nth(p, i)), 0))),
          );
        },
      ),
      { seed: 2, numRuns: 200 },
    );
  });
  test("kinds of motion and parallels (any harmony textbook)", () => {
    expect(motionKind(48, 50, 55, 57)).toBe("parallel");
    expect(motionKind(48, 50, 55, 53)).toBe("contrary");
    expect(motionKind(48, 48, 55, 53)).toBe("oblique");
    expect(motionKind(48, 50, 55, 59)).toBe("similar");
    expect(parallelPerfect(48, 50, 55, 57)).toBe("fifth");
    expect(parallelPerfect(48, 50, 72, 74)).toBe("octave");
    expect(parallelPerfect(48, 48, 60, 60)).toBeNull();
    expect(parallelPerfect(48, 53, 55, 48)).toBeNull();
  });
  // Low interval limits of arranging handbooks, values from memory.
  test.each([
    [3, "C3"],
    [4, "Bb2"],
    [7, "Bb1"],
    [10, "F2"],
    [16, "Bb1"],
  ])("an interval of %i semitones is clear from %s up", (size, limit) => {
    const low = pitchMidi(limit);
    expect([belowLimit(low, low + size), belowLimit(low - 1, low - 1 + size)]).toEqual([0, 1]);
  });
});
