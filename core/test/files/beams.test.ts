import { must } from "../../src/base/result";
import { beamsOf } from "../../src/files/musicxml/notes";
import type { EngravedChord } from "../../src/files/notation/staff";
import { parseMeter } from "../../src/theory/time/meter";

const TICKS = { h: 960, q: 480, "8": 240, "16": 120, "32": 60 } as const;
type Value = keyof typeof TICKS;

/** A bar of notes, "r" before the value for a rest. */
function bar(text: string): EngravedChord[] {
  let start = 0;
  return text.split(" ").map((word) => {
    const value = word.replace("r", "") as Value;
    const chord = {
      start,
      ticks: TICKS[value],
      value,
      dots: 0,
      triplet: false,
      notes: word.startsWith("r") ? [] : [{}],
      articulation: null,
    } as unknown as EngravedChord;
    start += TICKS[value];
    return chord;
  });
}
const beams = (text: string, meter = "4/4") => beamsOf(bar(text), must(parseMeter(meter)));

/** Beams as the format has them (MusicXML 4.0, element `beam`): one for each flag, joined within a beat. */
test("eighths and shorter notes of one beat are joined, flag by flag", () => {
  expect(beams("8 8 q h")).toEqual([["begin"], ["end"], [], []]);
  expect(beams("16 16 16 16 q h").slice(0, 4)).toEqual([
    ["begin", "begin"],
    ["continue", "continue"],
    ["continue", "continue"],
    ["end", "end"],
  ]);
  expect(beams("8 16 16 q h").slice(0, 3)).toEqual([["begin"], ["continue", "begin"], ["end", "end"]]);
});

test("a flag that nobody shares is a hook, toward the note before where there is one", () => {
  expect(beams("16 8 16 q h").slice(0, 3)).toEqual([["begin", "forward hook"], ["continue"], ["end", "backward hook"]]);
});

test("a rest, a beat and a note by itself end a beam", () => {
  expect(beams("8 r8 8 8 h")).toEqual([[], [], ["begin"], ["end"], []]);
  expect(beams("8 8 8 8 h").slice(0, 4)).toEqual([["begin"], ["end"], ["begin"], ["end"]]);
  expect(beams("8 8 8 8 8 8", "6/8").map((b) => b[0])).toEqual([
    "begin",
    "continue",
    "end",
    "begin",
    "continue",
    "end",
  ]);
});
