import { checkSong, type Profile } from "../src/index";
import { cleanSong, counts, FORMS, INJECTORS, shiftsOf, tallyFaults } from "./putFaults";

/** Faults put into clean four-part music. The whole of it, thousands of faults, is run with the benchmarks; here a fixed sample. */
test("four-part forms as the writer sets them have nothing at warning or above in any key that suits a soprano, whoever judges", () => {
  for (let form = 0; form < FORMS.length; form++)
    for (const by of shiftsOf(form).filter((_, i) => i % 3 === form % 3))
      for (const profile of ["chorale", "band"] as Profile[])
        expect([
          FORMS[form]![1],
          by,
          profile,
          checkSong(cleanSong(form, by).song, { profile })
            .filter(counts)
            .map((f) => f.message),
        ]).toEqual([FORMS[form]![1], by, profile, []]);
});

test("of faults that are put in at random each is found, and nothing is reported that does not touch what was changed", () => {
  const told: string[] = [];
  const tallies = tallyFaults(70, 17, "chorale", (text) => told.push(text));
  expect(told).toEqual([]);
  expect([...tallies.keys()].sort()).toEqual(Object.keys(INJECTORS).sort());
  for (const [rule, { put, found, right }] of tallies) expect([rule, put > 0, found, right >= put]).toEqual([rule, true, put, true]);
});
