import { firstOf, sure } from "../../src/base/list";
import { must } from "../../src/base/result";
import { namesOver } from "../../src/hear/slice/slices";
import { realize, type RealizedNote } from "../../src/song/realize";
import { cutAt, joined } from "../../src/song/beyond";
import { edit, songWith } from "../helpers";
import { withVariation } from "../../src/arrange/groove/patterns";
import { parseMeter } from "../../src/theory/time/meter";

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

test("hats are louder off the beat and softer on it in every second pass, and their sum stays in MIDI's range", () => {
  const hits = Array.from({ length: 32 }, (_, i) => ({ start: i * 240, velocity: i < 16 ? 80 : 124 }));
  const meter = must(parseMeter("4/4"));
  const [lane] = withVariation([{ drum: "closedHat", hits }], meter, 1, { length: 2 * 1920, seed: 1 });
  const at = (start: number) => sure(sure(lane).hits.find((h) => h.start === start)).velocity;
  expect([at(0), at(240), at(1680)]).toEqual([80, 80, 80]);
  expect([at(1920), at(1920 + 240)]).toEqual([72, 90]);
});
