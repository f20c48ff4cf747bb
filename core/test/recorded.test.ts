import { createMemory, type Fact } from "../src/facts/memory";
import type { Song } from "../src/song/schema";
import { songWith } from "./helpers";

const reads = (id: string): Fact<[], number> => ({
  id,
  of: ({ song }) => song.form.reduce((sum, pass) => sum + pass.sectionId.length + song.parts.length, 0),
});

/** A song of many passes; frozen as an edit leaves it, or as it was read. */
function passes(count: number, frozen: boolean): Song {
  const song = songWith({ line: "| C |" });
  const [pass] = song.form;
  const form = Array.from({ length: count }, (_, i) => ({ ...pass, id: `p${i}` })) as Song["form"];
  if (frozen) for (const x of [form, ...form]) Object.freeze(x);
  return { ...song, form };
}

/** How often the fields of an object were looked through while facts were worked out. */
function looks(song: Song): number[] {
  const spy = jest.spyOn(Object, "getOwnPropertyDescriptors");
  const memory = createMemory();
  const counts = ["one", "two"].map((id) => {
    spy.mockClear();
    memory.at(song).get(reads(id));
    return spy.mock.calls.length;
  });
  spy.mockRestore();
  return counts;
}

test("what facts read of a song is not looked through again at each reading, whether an edit froze it or not", () => {
  // The song itself is what an edit made: it is frozen.
  expect(looks(passes(40, false))).toEqual([Number(Object.isFrozen(passes(1, false).parts)), 0]);
  const [first, second] = looks(passes(40, true));
  // Frozen, each object is copied once, whichever facts come after; what is not frozen is recorded itself.
  expect([first && first <= 2 * 41 + 4, second]).toEqual([true, 0]);
});

test("a song that is frozen later is read as before", () => {
  const song = passes(3, false);
  const memory = createMemory();
  const before = memory.at(song).get(reads("one"));
  for (const x of [song, song.form, ...song.form]) Object.freeze(x);
  expect(memory.at(song).get(reads("two"))).toBe(before);
  expect(memory.at({ ...song, form: song.form.slice(1) }).get(reads("one"))).toBeLessThan(before);
});
