import { nth } from "../../src/base/list";
import { checkSong } from "../../src/judge/check/check";
import type { Profile } from "../../src/song/schema/playing";
import { BAND_INJECTORS } from "./bandInjectors";
import { BAND_KEYS, cleanBand, tallyBandFaults } from "./putBandFaults";
import { cleanSong, counts, FORMS, INJECTORS, shiftsOf, tallyFaults } from "./putFaults";

/**
 * Faults put into clean four-part music. The whole of it, thousands of faults, is run with the benchmarks; here a fixed
 * sample.
 */
test(
  "four-part forms as the writer sets them have nothing at warning or above in any key that suits a soprano, " +
    "whoever judges",
  () => {
    for (let form = 0; form < FORMS.length; form++)
      for (const by of shiftsOf(form).filter((_, i) => i % 11 === form % 11))
        for (const profile of ["chorale", "band"] as Profile[])
          expect([
            nth(FORMS, form)[1],
            by,
            profile,
            checkSong(cleanSong(form, by).song, { profile })
              .filter(counts)
              .map((f) => f.message),
          ]).toEqual([nth(FORMS, form)[1], by, profile, []]);
  },
);

test("of faults that are put in at random each is found, and nothing is reported that does not touch what was changed", () => {
  const told: string[] = [];
  const tallies = tallyFaults(60, 17, "chorale", (text) => told.push(text));
  expect(told).toEqual([]);
  expect([...tallies.keys()].sort()).toEqual(Object.keys(INJECTORS).sort());
  for (const [rule, { put, found, right }] of tallies)
    expect([rule, put > 0, found, right >= put]).toEqual([rule, true, put, true]);
});

test(
  "a band that plays without a fault has nothing at warning or above, whichever school judges; what is put into " +
    "it is found, and nothing else",
  () => {
    // The schools by turns, in every other key: with the benchmarks every key is judged by each.
    BAND_KEYS.filter((_, i) => i % 2 === 0).forEach((by, i) => {
      const profile = nth(["band", "jazz", "loop"] as const, i % 3);
      expect([
        by,
        profile,
        checkSong(cleanBand(by, profile))
          .filter(counts)
          .map((f) => f.message),
      ]).toEqual([by, profile, []]);
    });
    const told: string[] = [];
    const tallies = tallyBandFaults(2 * Object.keys(BAND_INJECTORS).length, 11, (text) => told.push(text));
    expect(told).toEqual([]);
    for (const [rule, { put, found }] of tallies) expect([rule, put > 0, found]).toEqual([rule, true, put]);
  },
);
