import { firstOf, nth, sure } from "../../src/base/list";
import fc from "fast-check";
import { applyEdit } from "../../src/song/edits";
import { must } from "../../src/base/result";
import { parseSong } from "../../src/song/document";
import { writeLine } from "../../src/theory/chord/progression";
import { parseMeter } from "../../src/theory/time/meter";
import type { Edit } from "../../src/song/edits/list";
import type { Song } from "../../src/song/schema/song";
import { edit, songWith } from "../helpers";

const meter = must(parseMeter("4/4"));
const line = (song: Song) => writeLine(firstOf(song.sections).chords, meter, firstOf(song.sections).bars);
const ids = (song: Song, ...at: number[]) => at.map((i) => nth(firstOf(song.sections).chords, i).id);
const song = songWith({ line: "| C | Am F | G7 | C |" });
const section = "s1";

test.each<[string, (s: Song) => Edit, string]>([
  [
    "reverse",
    (s) => ({ do: "arrangeChords", section, chords: ids(s, 0, 1, 2), how: "reverse" }),
    "| F . Am . | C | G7 | C |",
  ],
  ["swap", (s) => ({ do: "arrangeChords", section, chords: ids(s, 0, 3), how: "swap" }), "| G7 | Am F | C | C |"],
  [
    "twice as fast",
    (s) => ({ do: "arrangeChords", section, chords: ids(s, 0, 1, 2), how: "double" }),
    "| C . Am F | % | G7 | C |",
  ],
  [
    "half as fast",
    (s) => ({ do: "arrangeChords", section, chords: ids(s, 0, 1, 2), how: "halve" }),
    "| C . . . | . . F . | G7 | C |",
  ],
  [
    "delete: the chord before holds on",
    (s) => ({ do: "arrangeChords", section, chords: ids(s, 2, 3), how: "remove" }),
    "| C | Am | . | C |",
  ],
  ["copy to the end", (s) => ({ do: "copyChords", section, chords: ids(s, 1, 2) }), "| C | Am F | G7 | C | Am F |"],
  [
    "repeat over what follows",
    (s) => ({ do: "copyChords", section, chords: ids(s, 0), to: 1920 }),
    "| C | % | G7 | C |",
  ],
  [
    "along the scale",
    (s) => ({ do: "moveChords", section, chords: ids(s, 0, 1), by: "scale", steps: 1 }),
    "| Dm | Bdim F | G7 | C |",
  ],
  [
    "by semitones",
    (s) => ({ do: "moveChords", section, chords: ids(s, 3), by: "semitone", steps: -1 }),
    "| C | Am F | Gb7 | C |",
  ],
  [
    "a border dragged",
    (s) => ({ do: "setBorder", section, chord: firstOf(ids(s, 2)), start: 3360 }),
    "| C | Am . . F | G7 | C |",
  ],
])("%s", (_, make, expected) => {
  const result = edit(song, make(song));
  expect(line(result)).toBe(line(songWith({ line: expected })));
  expect(must(parseSong(result))).toEqual(result);
});

test.each<[string, (s: Song) => Edit, string]>([
  [
    "a border past its chord",
    (s) => ({ do: "setBorder", section, chord: firstOf(ids(s, 2)), start: 3840 }),
    "edit.border",
  ],
  [
    "reversing chords that are apart",
    (s) => ({ do: "arrangeChords", section, chords: ids(s, 0, 3), how: "reverse" }),
    "edit.chords",
  ],
  ["swapping three", (s) => ({ do: "arrangeChords", section, chords: ids(s, 0, 1, 2), how: "swap" }), "edit.swap"],
  ["no chord", () => ({ do: "pinChords", section, chords: ["x"], pinned: true }), "edit.chord"],
  [
    "a chord outside its stretch",
    () => ({ do: "setChords", section, from: 0, to: 960, chords: [{ start: 0, duration: 1920, symbol: "C" }] }),
    "edit.chords",
  ],
  [
    "a symbol that is none",
    () => ({ do: "setChords", section, from: 0, to: 960, chords: [{ start: 0, duration: 960, symbol: "Cjj" }] }),
    "chord.quality",
  ],
])("%s is refused and nothing changes", (_, make, code) => {
  expect(applyEdit(song, make(song))).toMatchObject({ ok: false, error: { code } });
});

test("replaced chords: the rest keeps ids and voicings, what reaches in is cut, an unsure chord keeps its readings", () => {
  const voiced = edit(song, {
    do: "pinVoicing",
    section,
    part: "keys",
    chord: firstOf(ids(song, 0)),
    pitches: ["E3", "G3", "C4"],
  });
  const next = edit(voiced, {
    do: "setChords",
    section,
    from: 960,
    to: 2880,
    chords: [{ start: 960, duration: 1920, symbol: "Am7", readings: ["Am7", "C6"] }],
  });
  expect(line(next)).toBe("| C Am7 | . . F | G7 | C |");
  const [first, second] = firstOf(next.sections).chords;
  expect(first).toMatchObject({ id: ids(song, 0)[0], voicings: { keys: { pinned: true } } });
  expect(sure(second).readings).toEqual(["Am7", "C6"]);
  expect(
    firstOf(edit(next, { do: "setReadings", section, chord: sure(second).id, readings: null }).sections).chords[1],
  ).not.toHaveProperty("readings");
  expect(
    firstOf(edit(next, { do: "setChord", section, chord: sure(second).id, symbol: "C6" }).sections).chords[1],
  ).not.toHaveProperty("readings");
});

test("any row of group edits leaves a song that can be stored, with chords in order that do not overlap", () => {
  const how = fc.constantFrom("reverse", "double", "halve", "remove", "swap");
  const pick = fc.subarray([0, 1, 2, 3, 4], { minLength: 1 });
  fc.assert(
    fc.property(fc.array(fc.tuple(how, pick, fc.integer({ min: -3, max: 3 })), { maxLength: 6 }), (steps) => {
      let current = song;
      for (const [name, at, move] of steps) {
        const chords = at.flatMap((i) => firstOf(current.sections).chords[i]?.id ?? []);
        for (const e of [
          { do: "arrangeChords", section, chords, how: name },
          { do: "moveChords", section, chords, by: move % 2 ? "scale" : "semitone", steps: move },
          { do: "copyChords", section, chords },
        ] as Edit[]) {
          const result = applyEdit(current, e);
          if (result.ok) current = result.value.song;
        }
      }
      const list = firstOf(current.sections).chords;
      expect(parseSong(current).ok).toBe(true);
      expect(new Set(list.map((c) => c.id)).size).toBe(list.length);
      list.forEach(
        (c, i) => i > 0 && expect(c.start).toBeGreaterThanOrEqual(nth(list, i - 1).start + nth(list, i - 1).duration),
      );
    }),
    { seed: 3, numRuns: 60 },
  );
});

test("a song respelled sounds the same: D sharp minor as E flat minor and back", () => {
  const sharp = songWith({
    key: "D# minor",
    line: "| D#m9 | G#m7 | A#7 | D#m/A# |",
    bass: ["0 D#2 4", "4 G#1 4"],
    melody: ["0 E#4 2", "2 C##5 2"],
  });
  const flat = edit(sharp, { do: "respell", key: "Eb minor" });
  expect(flat.key).toBe("Eb minor");
  expect(line(flat)).toBe("| Ebm9 | Abm7 | Bb7 | Ebm/Bb |");
  expect(sure(firstOf(flat.sections).notes.melody).map((n) => n.pitch)).toEqual(["F4", "D5"]);
  expect(sure(firstOf(flat.sections).notes.bass).map((n) => n.pitch)).toEqual(["Eb2", "Ab1"]);
  expect(line(edit(flat, { do: "respell", key: "D# minor" }))).toBe(line(sharp));
  expect(applyEdit(sharp, { do: "respell", key: "E minor" })).toMatchObject({
    ok: false,
    error: { code: "edit.respell" },
  });
});
