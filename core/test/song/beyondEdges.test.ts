import { firstOf, sure } from "../../src/base/list";
import { cutAt, joined } from "../../src/song/beyond";
import { edit, songWith } from "../helpers";

test("what begins where a section ends is kept behind it, what begins a tick before stays; accents as well", () => {
  const song = edit(songWith({ line: "| C | F |", melody: ["3.99 E4 1", "4 F4 1"], kicks: [[4, 90]] }), {
    do: "setAccents",
    section: "s1",
    accents: [1800, 1920],
  });
  const section = firstOf(song.sections);
  const cut = cutAt(section, 1920);
  expect(sure(cut.notes.melody).map((n) => n.pitch)).toEqual(["E4"]);
  expect(cut.groove.accents).toEqual([1800]);
  expect(cut.beyond?.groove?.accents).toEqual([1920]);
  expect(sure(cut.beyond?.notes?.melody).map((n) => n.start)).toEqual([1920]);
  expect(joined(cut, () => "x")).toEqual({ ...section, groove: joined(cut, () => "x").groove });
  expect(joined(cut, () => "x").groove.accents).toEqual([1800, 1920]);
});
