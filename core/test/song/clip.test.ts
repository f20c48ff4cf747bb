import { clipOf, clipStart } from "../../src/song/clip";
import { must } from "../../src/base/result";
import { parseMeter } from "../../src/theory/time/meter";

const note = (start: number, duration: number) => ({ id: "n", start, duration, pitch: "C4", velocity: 80 });

/** What is half a bar or shorter is copied by its beats, what is longer by its bars. */
test.each([
  ["4/4", 2500, 860, 2400, 960],
  ["4/4", 2400, 960, 2400, 960],
  ["4/4", 2400, 961, 1920, 1920],
  ["6/8", 2200, 680, 2160, 720],
  ["6/8", 2160, 720, 2160, 720],
  ["6/8", 2160, 721, 1440, 2880],
] as const)("in %s a note at %i for %i is a clip from %i, %i long", (...row) => {
  const [name, start, duration, from, length] = row;
  const meter = must(parseMeter(name));
  expect(clipStart([note(start, duration)], meter)).toBe(from);
  const clip = clipOf([note(start, duration)], meter);
  expect([clip.length, clip.notes.map((n) => n.start)]).toEqual([length, [start - from]]);
});
