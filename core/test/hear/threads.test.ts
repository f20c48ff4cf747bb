import fc from "fast-check";
import { LEGATO, threadsOf } from "../../src/hear/voice/threads";
import { motionBetween } from "../../src/theory/motion/motion";
import { nonChordTones } from "../../src/hear/slice/nonChord";
import { sure } from "../../src/base/list";
import { partVoices } from "../../src/hear/voice/voices";
import type { RealizedNote } from "../../src/song/realized";
import { edit, notesOf, songWith } from "../helpers";

const note = (start: number, midi: number, duration = 480) => ({ start, duration, midi });
const midis = (notes: readonly ReturnType<typeof note>[]) => threadsOf(notes).map((t) => t.map((n) => n.midi));

test("notes of chords follow each other by the least motion, and none goes on from a note struck with it", () => {
  const chords = [
    [48, 55, 64, 72],
    [53, 57, 65, 72],
    [55, 59, 62, 74],
  ];
  expect(midis(chords.flatMap((c, i) => c.map((m) => note(i * 480, m))))).toEqual([
    [72, 72, 74],
    [64, 65, 62],
    [55, 57, 59],
    [48, 53, 55],
  ]);
  // A held note keeps its voice, whatever moves beside it.
  expect(midis([note(0, 60, 1920), note(0, 64), note(480, 65), note(960, 67), note(1440, 59)])).toEqual([
    [64, 65, 67, 59],
    [60],
  ]);
});

test("a third voice rests where two sound, and comes back to where it was", () => {
  const three = [
    note(0, 48),
    note(0, 64),
    note(0, 79),
    note(480, 50),
    note(480, 77),
    note(960, 48),
    note(960, 65),
    note(960, 79),
  ];
  expect(midis(three)).toEqual([
    [79, 77, 79],
    [64, 65],
    [48, 50, 48],
  ]);
});

test("notes that overlap by a thirty-second are one line, by more they are two", () => {
  const tied = (over: number) => threadsOf([note(0, 60, 480 + over), note(480, 62), note(960, 64)]).length;
  expect([tied(LEGATO), tied(LEGATO + 1), LEGATO]).toEqual([1, 2, 60]);
});

test("every note is in one voice, voices sound one note at a time, and between full chords the way is the shortest", () => {
  const chord = fc.uniqueArray(fc.integer({ min: 40, max: 80 }), { minLength: 4, maxLength: 4 });
  fc.assert(
    fc.property(fc.array(chord, { minLength: 2, maxLength: 6 }), (chords) => {
      const notes = chords.flatMap((c, i) => [...c].sort((a, b) => a - b).map((m) => note(i * 480, m)));
      const threads = threadsOf(notes);
      expect(threads.flat().sort((a, b) => a.start - b.start || a.midi - b.midi)).toEqual(notes);
      for (const t of threads)
        t.slice(1).forEach((n, i) => expect(n.start).toBeGreaterThanOrEqual((t[i]?.start ?? 0) + 480));
      const way = threads.reduce(
        (sum, t) => sum + t.slice(1).reduce((s, n, i) => s + Math.abs(n.midi - (t[i]?.midi ?? 0)), 0),
        0,
      );
      const least = chords
        .map((c) => [...c].sort((a, b) => a - b))
        .reduce((sum, c, i, all) => sum + (i ? motionBetween(all[i - 1] ?? [], c) : 0), 0);
      expect(way).toBe(least);
    }),
    { numRuns: 100, seed: 5 },
  );
});

test("a passing tone inside chords is named by its own voice, not by what is struck with it", () => {
  const song = edit(songWith({ line: "| C | F |" }), {
    do: "addPart",
    name: "Organ",
    role: "counter",
    instrument: "organ",
  });
  const part = song.parts.at(-1)?.id ?? "";
  const played = edit(song, {
    do: "setNotes",
    section: "s1",
    part,
    notes: notesOf([
      "0 C4 1",
      "0 E4 1",
      "1 C4 1",
      "1 D4 1",
      "2 C4 1",
      "2 E4 1",
      "3 C4 1",
      "3 F#4 1",
      "4 C4 4",
      "4 A4 4",
    ]),
  });
  expect(nonChordTones(played, { section: "s1", part }).map((t) => [t.note.pitch, t.kind])).toEqual([
    ["D4", "neighbor"],
  ]);
});

test("a part of which seven tenths are one voice is that voice, double stops or not", () => {
  const part = { ...sure(songWith({}).parts.find((p) => p.role === "melody")), name: "Fiddle" };
  const voice = (n: number) => Array.from({ length: n }, () => realized);
  const realized = { start: 0 } as RealizedNote;
  const names = (top: number, low: number) => partVoices(part, [voice(top), voice(low)]).map((v) => [v.name, v.main]);
  expect(names(7, 3)).toEqual([
    ["Fiddle", true],
    ["the bottom of Fiddle", false],
  ]);
  expect(names(6, 4).map(([, main]) => main)).toEqual([false, false]);
});
