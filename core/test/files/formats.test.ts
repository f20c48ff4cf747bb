import { firstOf, sure } from "../../src/base/list";
import { must } from "../../src/base/result";
import { FORMATS, formatOf, pickerText, READABLE, readFile } from "../../src/files/formats";
import { demoSongs } from "../demos";

const song = firstOf(demoSongs());

test("every format says what it is, has endings of its own, and can be read or written", () => {
  const endings = FORMATS.flatMap((f) => [...f.extensions]);
  expect(new Set(endings).size).toBe(endings.length);
  expect(new Set(FORMATS.map((f) => f.id)).size).toBe(FORMATS.length);
  for (const f of FORMATS) {
    expect([f.id, f.explanation.length > 40, f.media.includes("/")]).toEqual([f.id, true, true]);
    expect([f.id, Boolean(f.read) || f.ways.length > 0]).toEqual([f.id, true]);
    for (const ending of f.extensions) expect(formatOf(`Some.Song.${ending.toUpperCase()}`)).toBe(f);
  }
});

test.each(READABLE.filter((f) => f.ways.length).flatMap((f) => f.ways.map((w) => [f.id, w.id, f, w] as const)))(
  "what %s writes (%s), it reads: as many parts that play, and the same tempo",
  (...[, , format, way]) => {
    const { song: back, mended } = must(readFile(`windfall.${firstOf(format.extensions)}`, way.write(song)));
    expect(mended).toEqual([]);
    expect(back.tempo).toBeCloseTo(song.tempo, 1);
    expect(back.parts.length).toBeGreaterThanOrEqual(song.parts.length);
    if (format.id === "song") expect(back).toEqual(song);
  },
);

test("what cannot be opened is refused with what can: no ending, an unknown one, a format that is only written", () => {
  const codeOf = (name: string) => {
    const read = readFile(name, new Uint8Array([1, 2]));
    return read.ok ? "ok" : `${read.error.code} ${read.error.hint}`;
  };
  for (const name of ["windfall", "windfall.", "notes.txt", "score.musicxml", "a.mid/readme"])
    expect(codeOf(name)).toBe("format.unknown Files that can: .mid, .midi, .json.");
  expect(codeOf("a.mid")).toMatch(/^midi\.file/);
  expect(pickerText(READABLE)).toBe(".mid,.midi,audio/midi,.json,application/json");
  expect(sure(formatOf("x.xml")).id).toBe("musicxml");
});
