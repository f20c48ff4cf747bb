import { Chord as TonalChord, Note as TonalNote } from "tonal";
import { nth, sure } from "../../src/base/list";
import { must } from "../../src/base/result";
import { alongScale, refit, type Ground } from "../../src/arrange/figure/refit";
import { FIGURE_SHAPES, restruck, shaped } from "../../src/arrange/figure/shape";
import { chordOf } from "../../src/theory/chord/progression";
import { parseKey } from "../../src/theory/pitch/key";
import { mod, noteOf, pitchMidi } from "../../src/theory/pitch/pitch";
import { parseMeter } from "../../src/theory/time/meter";

/** Quarters of one chord each, or one chord throughout. */
const ground = (key: string, ...symbols: string[]): Ground => ({
  key: must(parseKey(key)),
  chordAt: (tick) => chordOf(nth(symbols, Math.min(symbols.length - 1, Math.max(0, Math.floor(tick / 480))))),
});
const line = (...pitches: string[]) =>
  pitches.map((pitch, i) => ({ start: i * 480, duration: 480, pitch, velocity: 80 }));
const refitted = (pitches: string[], from: Ground, to: Ground) =>
  refit(line(...pitches), from, to).notes.map((n) => n.pitch);

describe("figures refitted", () => {
  test.each([
    // As it was asked for: the sixth of the key stays a sixth.
    ["C major", "C", "F", ["C4", "E4", "G4", "A4"], ["F4", "A4", "C5", "D5"]],
    ["C major", "C", "Am", ["C4", "E4", "G4"], ["A3", "C4", "E4"]],
    // Minor third for major, flat seventh for major seventh: the degree, not the size.
    ["C major", "Cmaj7", "Dm7", ["C4", "E4", "G4", "B4"], ["D4", "F4", "A4", "C5"]],
    ["C major", "C", "G7", ["G4", "E4", "C4"], ["D4", "B3", "G3"]],
    ["Eb major", "Eb", "Ab", ["Eb4", "G4", "Bb4", "C5"], ["Ab4", "C5", "Eb5", "F5"]],
    ["A minor", "Am", "E7", ["A3", "C4", "E4"], ["E3", "G#3", "B3"]],
  ])("in %s over %s, refitted over %s", (...row) => {
    const [key, from, to, pitches, wanted] = row;
    expect(refitted(pitches, ground(key, from), ground(key, to))).toEqual(wanted);
  });

  test("in twelve keys every tone of a chord becomes the tone tonal calls by the same degree (tonal, MIT)", () => {
    const roots = ["C", "Db", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"];
    let compared = 0;
    for (const root of roots)
      for (const [quality, other] of [
        ["", "m"],
        ["maj7", "m7"],
        ["7", "maj7"],
        ["m7", "m7b5"],
      ] as const)
        for (const by of ["4P", "5P", "2M", "6M"]) {
          const away = TonalNote.transpose(root, by);
          const [from, to] = [chordOf(root + quality), chordOf(away + other)];
          if (!from || !to) continue;
          const own = TonalChord.degrees(root + quality);
          const theirs = TonalChord.degrees(away + other);
          const key = `${root} major`;
          const count = from.tones.length;
          const pitches = Array.from({ length: count }, (_, i) => `${own(i + 1)}4`);
          const got = refitted(pitches, ground(key, root + quality), ground(key, away + other));
          got.forEach((pitch, i) => {
            expect(mod(pitchMidi(pitch), 12)).toBe(sure(TonalNote.chroma(theirs(i + 1))));
            // No further than a tritone and a semitone from where it was.
            expect(Math.abs(pitchMidi(pitch) - pitchMidi(nth(pitches, i)))).toBeLessThanOrEqual(7);
            compared++;
          });
        }
    expect(compared).toBeGreaterThan(500);
  });

  test("a note that leads into another still does, a degree the chord lacks goes to its nearest tone and is told", () => {
    const from = ground("C major", "C", "F", "F", "F");
    // B natural before C is no approach from below to an F: E leads into F … and G sharp into A, by a semitone.
    expect(refitted(["G#4", "A4"], from, ground("C major", "C", "Dm", "Dm", "Dm"))).toEqual(["E4", "F4"]);
    const told = refit(line("B4", "G4"), ground("C major", "Cmaj7"), ground("C major", "F")).told;
    expect(told).toEqual([{ start: 0, from: "B4", to: "F5", why: "F has no 7: its nearest tone instead" }]);
    expect(refit(line("C4"), ground("C major", "N.C."), ground("C major", "F")).told[0]?.why).toMatch(/no chord/);
  });

  test("words stay where they are unless asked, glides go to the new goal", () => {
    const notes = [
      {
        start: 0,
        duration: 480,
        pitch: "C4",
        velocity: 80,
        lyrics: ["moon"],
        slide: { kind: "glide" as const, to: "E4" },
      },
      { start: 480, duration: 480, pitch: "E4", velocity: 80, slide: { kind: "glide" as const, to: "B4" } },
    ];
    const [from, to] = [ground("C major", "C"), ground("C major", "F")];
    const [first, second] = refit(notes, from, to).notes;
    expect(first).toEqual({ start: 0, duration: 480, pitch: "F4", velocity: 80, slide: { kind: "glide", to: "A4" } });
    expect(second?.slide).toBeUndefined();
    expect(refit(notes, from, to, { words: true }).notes[0]?.lyrics).toEqual(["moon"]);
  });

  test("along the scale: each note by as many steps, what lies between stays between", () => {
    const key = must(parseKey("C major"));
    expect(alongScale(line("C4", "E4", "F#4", "B4"), 2, key).map((n) => n.pitch)).toEqual(["E4", "G4", "A#4", "D5"]);
    expect(alongScale(line("C4", "E4"), -3, key).map((n) => noteOf(n.pitch))).toEqual(["G", "B"]);
    const there = alongScale(line("C4", "D4", "G4"), 4, key);
    expect(alongScale(there, -4, key)).toEqual(line("C4", "D4", "G4"));
  });
});

describe("values and loudness", () => {
  const notes = [
    { start: 480, duration: 240, velocity: 80 },
    { start: 960, duration: 480, velocity: 80 },
    { start: 1920, duration: 960, velocity: 120 },
  ];
  test.each([
    ["halved", [480, 720, 1200], [120, 240, 480], [80, 80, 120]],
    ["doubled", [480, 1440, 3360], [480, 960, 1920], [80, 80, 120]],
    ["louder", [480, 960, 1920], [240, 480, 960], [94, 94, 127]],
    ["softer", [480, 960, 1920], [240, 480, 960], [66, 66, 106]],
    ["legato", [480, 960, 1920], [480, 960, 960], [80, 80, 120]],
    ["staccato", [480, 960, 1920], [120, 240, 480], [80, 80, 120]],
    ["dying", [480, 960, 1920], [240, 480, 960], [80, 64, 48]],
  ] as const)("%s", (shape, starts, durations, velocities) => {
    const made = shaped(notes, shape);
    expect(made.map((n) => n.start)).toEqual(starts);
    expect(made.map((n) => n.duration)).toEqual(durations);
    expect(made.map((n) => n.velocity)).toEqual(velocities);
  });

  test("every shape keeps its notes inside what a song can hold", () => {
    const extreme = [
      { start: 0, duration: 1, velocity: 1 },
      { start: 1, duration: 1, velocity: 127 },
    ];
    for (const { id } of FIGURE_SHAPES)
      for (const n of shaped(extreme, id)) {
        expect(n.duration).toBeGreaterThanOrEqual(1);
        expect(n.velocity).toBeGreaterThanOrEqual(1);
        expect(n.velocity).toBeLessThanOrEqual(127);
      }
  });

  test("a held chord is struck again in a rhythm, from where it begins, for as long as it was", () => {
    const meter = must(parseMeter("4/4"));
    const held = [{ start: 240, duration: 1680, velocity: 80 }];
    expect(restruck(held, "beats", meter).map((n) => [n.start, n.duration])).toEqual([
      [240, 240],
      [480, 480],
      [960, 480],
      [1440, 480],
    ]);
    expect(restruck(held, "x...............", meter).map((n) => [n.start, n.duration])).toEqual([[240, 1680]]);
  });
});
