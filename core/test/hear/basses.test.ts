import { sure } from "../../src/base/list";
import { namesOver } from "../../src/hear/slice/slices";
import { realize, type RealizedNote } from "../../src/song/realize";
import { songWith } from "../helpers";

test("a bass that sounds half of the chord, or a quarter of a beat from its beginning, names it", () => {
  const [chord] = realize(songWith({ line: "| C | F |" }), { section: "s1" }).chords;
  const named = (start: number, duration: number) => {
    const note = { midi: 40, pitch: "E2", start, duration } as RealizedNote;
    return namesOver([sure(chord)], [note]).size === 1;
  };
  expect([named(0, 120), named(0, 119), named(960, 960), named(961, 959), named(1, 120)]).toEqual([
    true,
    false,
    true,
    false,
    false,
  ]);
});
