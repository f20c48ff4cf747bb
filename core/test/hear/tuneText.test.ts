import { sure } from "../../src/base/list";
import fc from "fast-check";
import { must } from "../../src/base/result";
import { parseMeter } from "../../src/theory/time/meter";
import { parseTune, tuneText } from "../../src/hear/line/text";
import type { NewNote } from "../../src/song/schema/material";

const meter = must(parseMeter("4/4"));
const read = (text: string, more = {}) =>
  must(parseTune(text, { meter, ...more })).map((n) => `${n.start}:${n.pitch}:${n.duration}`);
const refused = (text: string) => {
  const result = parseTune(text, { meter });
  return result.ok ? null : [result.error.code, result.error.position];
};

test("notes and lengths: a length holds, a note without an octave is the nearest, dots, triplets, rests and ties", () => {
  expect(read("E4 q F e G e r h | A w")).toEqual(["0:E4:480", "480:F4:240", "720:G4:240", "1920:A4:1920"]);
  expect(read("B4 q. C e Db q Bb3 q")).toEqual(["0:B4:720", "720:C5:240", "960:Db5:480", "1440:Bb3:480"]);
  expect(read("C5 e3 D E F q")).toEqual(["0:C5:160", "160:D5:160", "320:E5:160", "480:F5:480"]);
  expect(read("G4 h _ q r | G w")).toEqual(["0:G4:1440", "1920:G4:1920"]);
  expect(read("F♯4 q B♭4")).toEqual(["0:F#4:480", "480:Bb4:480"]);
});

test("what stands before the first bar line and is short is a pickup", () => {
  expect(read("Bb3 e Eb4 | G4 w")).toEqual(["-480:Bb3:240", "-240:Eb4:240", "0:G4:1920"]);
});

test("what cannot be read is refused with its column, and what a bar lacks is said", () => {
  expect(refused("E4 q H4 q")).toEqual(["tune.token", 6]);
  expect(refused("E4 w | D4 h | C4 w")).toEqual(["tune.bar", 12 + 1]);
  expect(refused("_ q")).toEqual(["tune.hold", 1]);
  expect(refused("E4 q r q _ q")).toEqual(["tune.hold", 10]);
  expect(refused("E44 q")).toEqual(["tune.token", 1]);
  const short = parseTune("E4 w | D4 h. | C4 w", { meter });
  expect(short.ok ? "" : short.error.message).toBe(
    "The bar before this bar line has 3 beats; a bar of 4/4 has 4 beats",
  );
});

test("every tune on the grid reads back as it is written", () => {
  const lengths = [60, 120, 240, 360, 480, 720, 960, 1440, 1920, 600];
  const step = fc.record({
    length: fc.constantFrom(...lengths),
    rest: fc.boolean(),
    midi: fc.constantFrom("C4", "F#4", "Bb3", "E5", "Ab4"),
  });
  fc.assert(
    fc.property(
      fc.array(step, { minLength: 1, maxLength: 14 }),
      fc.constantFrom("4/4", "3/4", "6/8", "7/8"),
      (steps, text) => {
        const here = must(parseMeter(text));
        let at = 0;
        const notes: NewNote[] = steps.flatMap(({ length, rest, midi }) => {
          const start = at;
          at += length;
          return rest ? [] : [{ start, duration: length, pitch: midi, velocity: 90 }];
        });
        const typed = tuneText(notes, here);
        expect(typed).not.toBeNull();
        expect(must(parseTune(sure(typed), { meter: here }))).toEqual(notes);
      },
    ),
    { seed: 8, numRuns: 300 },
  );
});

test("two notes at once and places between the grid are not written", () => {
  const note = (start: number, duration: number): NewNote => ({ start, duration, pitch: "C4", velocity: 90 });
  expect(tuneText([note(0, 480), note(0, 480)], meter)).toBeNull();
  expect(tuneText([note(7, 480)], meter)).toBeNull();
  expect(tuneText([], meter)).toBe("");
});
