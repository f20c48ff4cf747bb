import { must } from "../../src/base/result";
import { nameChords } from "../../src/files/midiChords";
import { writeMidi } from "../../src/files/midi";
import { readMidi } from "../../src/files/midiRead";
import { parseKey } from "../../src/theory/pitch/key";
import { parseMeter } from "../../src/theory/time/meter";

import { edit, songWith } from "../helpers";

const [C, G, E] = [48, 55, 64];
const named = (...notes: [midi: number, start: number, duration: number][]): string[] =>
  nameChords(
    notes.map(([midi, start, duration]) => ({ midi, start, duration, velocity: 80 })),
    1920,
    { meter: must(parseMeter("4/4")), unit: "bar", key: must(parseKey("C major")), file: "a.mid" },
  ).map((c) => c.symbol);

/** A tone counts from 12 % of the stretch, and from 30 % of the longest one's time. */
test("a tone must sound long enough to be in the chord", () => {
  expect(named([C, 0, 1920], [G, 0, 1920], [E, 0, 576])).toEqual(["C"]);
  expect(named([C, 0, 1920], [G, 0, 1920], [E, 0, 575])).toEqual(["C5"]);
  expect(named([C, 0, 700], [G, 0, 700], [E, 0, 231])).toEqual(["C"]);
  expect(named([C, 0, 700], [G, 0, 700], [E, 0, 230])).toEqual(["C5"]);
});

test("players who double a tone add nothing to it: a third in one part is a third against six roots", () => {
  const roots = [0, 12, 24, 36, 0, 12].map((up): [number, number, number] => [C - 12 + up, 0, 1920]);
  expect(named(...roots, [G, 0, 1920], [E, 0, 576])).toEqual(["C"]);
  expect(named(...roots, [G, 0, 1920], [E, 0, 575])).toEqual(["C5"]);
  // Two after another are as long as they sound together, where they overlap once.
  expect(named([C, 0, 1920], [G, 0, 1920], [E, 0, 400], [E + 12, 300, 276])).toEqual(["C"]);
  expect(named([C, 0, 1920], [G, 0, 1920], [E, 0, 400], [E + 12, 300, 275])).toEqual(["C5"]);
});

test("the bass is the lowest note of the beginning; a moment late is still the beginning", () => {
  const low = E - 24;
  expect(named([C, 0, 1920], [G, 0, 1920], [low, 60, 1860])).toEqual(["C/E"]);
  expect(named([C, 0, 1920], [G, 0, 1920], [low, 61, 1859])).toEqual(["C"]);
  // What ends at once does not stand there either.
  expect(named([low, 0, 60], [low + 12, 480, 1440], [C, 0, 1920], [G, 0, 1920])).toEqual(["C"]);
  expect(named([low, 0, 61], [low + 12, 480, 1440], [C, 0, 1920], [G, 0, 1920])).toEqual(["C/E"]);
});

test("one tone alone names nothing; a stretch without a chord holds the one before", () => {
  expect(named([C, 0, 1920])).toEqual(["N.C."]);
  expect(named([C, 0, 1920], [C + 12, 0, 1920])).toEqual(["N.C."]);
  expect(named([C, 0, 1920], [G, 0, 1920])).toEqual(["C5"]);
});

/** A key cannot be held twice: a pitch that is struck again while it sounds ends there. */
test.each([
  [479, 479],
  [480, 480],
  [900, 480],
])("a note of %i ticks before the same pitch at 480 lasts %i in a file", (duration, lasts) => {
  const note = (start: number, length: number) => ({ start, duration: length, pitch: "C2", velocity: 80 });
  const notes = [note(0, duration), note(480, 480)];
  const song = edit(songWith({}), { do: "setNotes", section: "s1", part: "bass", notes });
  const { tracks } = must(readMidi(writeMidi(song, { swing: "straight" })));
  const bass = tracks.find((t) => t.highest === 36 && t.lowest === 36);
  expect(bass?.notes.map((n) => [n.start, n.duration])).toEqual([
    [0, lasts],
    [480, 480],
  ]);
});
