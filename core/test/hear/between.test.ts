import { firstOf, sure } from "../../src/base/list";
import fc from "fast-check";
import { pairReport } from "../../src/hear/line/between";
import { byVoice, doubles, sameVoice } from "../../src/hear/line/doubles";
import { checkSong } from "../../src/judge/check/check";
import { must } from "../../src/base/result";
import { parseMeter } from "../../src/theory/time/meter";
import { pitchMidi } from "../../src/theory/pitch/pitch";
import type { RealizedNote } from "../../src/song/realized";
import type { Song } from "../../src/song/schema/song";
import { edit, songWith } from "../helpers";

const METER = must(parseMeter("4/4"));
const GROUND = { meter: METER, chords: [] };
const NAMES = ["C", "Db", "D", "Eb", "E", "F", "Gb", "G", "Ab", "A", "Bb", "B"];

/** Notes as [beat, midi, beats]. */
const line = (part: string, notes: readonly (readonly [number, number, number])[]): RealizedNote[] =>
  notes.map(([beat, midi, beats], i) => ({
    id: `${part}${i}`,
    part,
    section: "s1",
    pass: "s1",
    start: beat * 480,
    duration: beats * 480,
    midi,
    pitch: `${NAMES[midi % 12]}${Math.floor(midi / 12) - 1}`,
    velocity: 80,
    played: beat * 480,
    playedEnd: (beat + beats) * 480,
  }));

/** Lines of one note a beat, some beats silent. */
const anyLine = (part: string) =>
  fc.array(fc.option(fc.integer({ min: 55, max: 76 }), { freq: 4 }), { minLength: 8, maxLength: 8 }).map((midis) =>
    line(
      part,
      midis.flatMap((m, beat) => (m === null ? [] : [[beat, m, 1] as const])),
    ),
  );

type Two = readonly [number, number];

/** What two pitches do to each other. */
function standing([x, y]: Two, above: boolean): string[] {
  const out: string[] = [];
  if (x === y) out.push("unison");
  else if (x > y !== above) out.push("crossing");
  return [1, 13].includes(Math.abs(x - y)) ? [...out, "clash"] : out;
}

/** What a move makes, seen from the voice that was lower. */
function moving([wasX, wasY]: Two, [x, y]: Two): string[] {
  const turned = wasX >= wasY;
  const [low, high] = turned ? [wasY, wasX] : [wasX, wasY];
  const [lowNow, highNow] = turned ? [y, x] : [x, y];
  const [from, to] = [high - low, highNow - lowNow];
  const way = Math.sign(lowNow - low) * Math.sign(highNow - high);
  const [was, is] = [from % 12, (to + 120) % 12];
  const again = was === is && [0, 7].includes(is);
  if (way < 0) return again && to >= 0 ? ["contrary"] : [];
  if (!way) return [];
  // Voices that change places in the move make no parallel.
  if (again) return to < 0 || (from === 0 && to !== 0) ? [] : ["parallel"];
  return highNow > high && was === 6 && is === 7 ? ["unequal"] : [];
}

test("crossings, unisons, parallels and rubs are those that are counted beat by beat from the pitches alone", () => {
  fc.assert(
    fc.property(anyLine("a"), anyLine("b"), (a, b) => {
      const at = (l: RealizedNote[], beat: number) => l.find((n) => n.start === beat * 480)?.midi;
      const both = [0, 1, 2, 3, 4, 5, 6, 7].filter((beat) => at(a, beat) !== undefined && at(b, beat) !== undefined);
      const mean = (l: RealizedNote[]) => l.reduce((sum, n) => sum + n.midi, 0) / Math.max(1, l.length);
      const signs = both.reduce((sum, beat) => sum + Math.sign(sure(at(a, beat)) - sure(at(b, beat))), 0);
      const above = signs === 0 ? mean(a) >= mean(b) : signs > 0;
      const want: string[] = [];
      for (const beat of both) {
        const here = [sure(at(a, beat)), sure(at(b, beat))] as const;
        want.push(...standing(here, above).map((kind) => `${kind} ${beat}`));
        if (!both.includes(beat - 1)) continue;
        const was = [sure(at(a, beat - 1)), sure(at(b, beat - 1))] as const;
        want.push(...moving(was, here).map((kind) => `${kind} ${beat}`));
      }
      const report = pairReport(a, b, GROUND);
      const octaves =
        both.length > 3 &&
        both.filter((beat) => (sure(at(a, beat)) - sure(at(b, beat))) % 12 === 0).length >= 0.85 * both.length;
      const got = report.places
        .filter((p) => p.kind !== "overlap")
        .map((p) => `${p.kind} ${p.tick / 480}`)
        // A pair that turns over in a move of an octave or fifth is judged from the voice that was lower.
        .filter((g) => !g.startsWith("parallel") || want.includes(g) || !turnedAt(a, b, Number(g.split(" ")[1])));
      if (!octaves) expect(got.sort()).toEqual(want.sort());
      expect(report.together).toBe(both.length * 480);
      const attacks = new Set([...a, ...b].map((n) => n.start)).size;
      expect(report.sameRhythm).toBeCloseTo(attacks ? both.length / attacks : 0);
    }),
    { numRuns: 300, seed: 11 },
  );
});
const turnedAt = (a: RealizedNote[], b: RealizedNote[], beat: number): boolean => {
  const at = (l: RealizedNote[], t: number) => sure(l.find((n) => n.start === t * 480)).midi;
  return (at(a, beat - 1) - at(b, beat - 1)) * (at(a, beat) - at(b, beat)) < 0;
};

test("an overlap is a voice past where its neighbor just was, without crossing", () => {
  const places = (a: [number, number, number][], b: [number, number, number][]) =>
    pairReport(line("a", a), line("b", b), GROUND).places.map((p) => p.kind);
  expect(
    places(
      [
        [0, 64, 1],
        [1, 71, 1],
      ],
      [
        [0, 60, 1],
        [1, 67, 1],
      ],
    ),
  ).toContain("overlap");
  expect(
    places(
      [
        [0, 64, 1],
        [1, 67, 1],
      ],
      [
        [0, 60, 1],
        [1, 64, 1],
      ],
    ),
  ).not.toContain("overlap");
  expect(
    places(
      [
        [0, 64, 1],
        [1, 67, 1],
      ],
      [
        [0, 60, 1],
        [1, 68, 1],
      ],
    ),
  ).toEqual(expect.not.arrayContaining(["overlap"]));
});

test("octave doubling throughout is orchestration; a single octave after another is a parallel", () => {
  const tune = [60, 62, 64, 65, 67, 65, 64, 62].map((m, i): [number, number, number] => [i, m, 1]);
  const double = tune.map(([beat, m, beats]): [number, number, number] => [beat, m + 12, beats]);
  expect(pairReport(line("a", double), line("b", tune), GROUND).places).toEqual([]);
  const once = tune.map(([beat, m, beats], i): [number, number, number] => [beat, m + (i < 2 ? 12 : 9), beats]);
  expect(pairReport(line("a", once), line("b", tune), GROUND).places.map((p) => [p.kind, p.interval])).toEqual([
    ["parallel", "octave"],
  ]);
});

test("who leads: the line that strikes by itself more, bar by bar; alike, neither does", () => {
  const moving = line(
    "a",
    [0, 1, 2, 3].map((b) => [b, 64, 1] as const),
  );
  const held = line("b", [
    [0, 60, 4],
    [4, 60, 1],
    [5, 62, 1],
    [6, 64, 1],
    [7, 65, 1],
  ]);
  const later = line("a", [
    [0, 64, 1],
    [1, 64, 1],
    [2, 64, 1],
    [3, 64, 1],
    [4, 64, 4],
  ]);
  expect(pairReport(moving, line("b", [[0, 60, 4]]), GROUND).leads).toEqual([{ from: 0, to: 1920, who: "first" }]);
  expect(pairReport(later, held, GROUND).leads).toEqual([
    { from: 0, to: 1920, who: "first" },
    { from: 1920, to: 3840, who: "second" },
  ]);
  expect(pairReport(moving, moving, GROUND).leads).toEqual([{ from: 0, to: 1920, who: "together" }]);
});

describe("takes of one line", () => {
  const tune = ["0 C4 1", "1 D4 1", "2 E4 2"];
  const second = (notes: string[]): Song => {
    const song = edit(songWith({ line: "| C |", melody: tune }), {
      do: "addPart",
      name: "Take two",
      role: "vocal",
      instrument: "mezzo",
    });
    const part = sure(song.parts.find((p) => p.name === "Take two")).id;
    return edit(song, {
      do: "setNotes",
      section: "s1",
      part,
      notes: sure(firstOf(songWith({ melody: notes }).sections).notes.melody).map(({ id: _, ...n }) => n),
    });
  };

  test("count as one voice: nothing is found between them, and they stand together", () => {
    expect(checkSong(second(tune)).filter((f) => f.rule.startsWith("voice-"))).toEqual([]);
    // A line that only begins alike is another voice.
    expect(checkSong(second(["0 C4 1", "1 D4 1", "2 C4 2"])).map((f) => f.rule)).toContain("voice-unison");
    const a = line("a", [
      [0, 60, 2],
      [2, 62, 2],
    ]);
    const b = line("b", [
      [0.25, 60, 1.75],
      [2, 62, 2],
    ]);
    expect(sameVoice(a, b, GROUND)).toBe(true);
    const c = line("c", [[0, 64, 4]]);
    expect(byVoice([{ notes: a }, { notes: c }, { notes: b }], GROUND).map((g) => g.length)).toEqual([2, 1]);
  });
});

test("a finding between two voices is one, with its places, and its fixes mend it", () => {
  const song = edit(songWith({ line: "| C | F | G | C |", melody: ["0 G4 4", "4 A4 4", "8 B4 4", "12 C5 4"] }), {
    do: "addPart",
    name: "Second",
    role: "vocal",
    instrument: "alto",
  });
  const part = sure(song.parts.find((p) => p.name === "Second")).id;
  const low = ["C4", "D4", "E4", "F4"].map((pitch, i) => ({ start: i * 1920, duration: 1920, pitch, velocity: 80 }));
  const both = edit(
    song,
    { do: "setNotes", section: "s1", part, notes: low },
    { do: "setProfile", profile: "chorale" },
  );
  const found = checkSong(both).filter((f) => f.rule === "voice-parallels");
  expect(found).toHaveLength(1);
  expect(firstOf(found).amount).toBe("3 places");
  expect(firstOf(found).where.notes.length).toBe(8);
  const [one] = firstOf(found).fixes;
  const [all] = firstOf(found).forAll;
  const left = (s: Song) =>
    checkSong(s)
      .filter((f) => f.rule === "voice-parallels")
      .map((f) => f.amount);
  expect(left(edit(both, sure(one).edit))[0]).not.toBe("3 places");
  expect(left(edit(both, sure(all).edit))).toEqual([]);
  const before = sure(firstOf(both.sections).notes[part]).map((n) => pitchMidi(n.pitch));
  expect(before).toEqual([60, 62, 64, 65]);
});

test("four moves in a row in octaves are one voice for that long, three are parallels", () => {
  const moved = (moves: number) => {
    // A step up each time, and a third apart before and after: what lies between goes along in octaves.
    const high = [60, ...Array.from({ length: moves + 1 }, (_, i) => 72 + 2 * (i % 2)), 71];
    const low = [56, ...Array.from({ length: moves + 1 }, (_, i) => 60 + 2 * (i % 2)), 62, 64, 65, 64, 62];
    const at = (part: string, midis: number[]) =>
      line(
        part,
        midis.map((m, i) => [i, m, 1] as const),
      );
    return pairReport(at("a", high), at("b", low), GROUND).places.filter((p) => p.kind === "parallel").length;
  };
  expect([moved(3), moved(4)]).toEqual([3, 0]);
});

test("the upper of two lines is that above in two thirds of the moments, else the one above in the song", () => {
  const steady = line(
    "b",
    [0, 1, 2, 3, 4, 5].map((b) => [b, 64, 1] as const),
  );
  const over = (times: number) =>
    line(
      "a",
      [0, 1, 2, 3, 4, 5].map((b) => [b, b < times ? 67 : 60, 1] as const),
    );
  const above = (times: number) => pairReport(over(times), steady, { ...GROUND, leaning: -5 }).above;
  expect([above(4), above(3)]).toEqual([true, false]);
});

test("a line of four notes that goes along in octaves doubles another one; of three notes it may be chance", () => {
  const notes = (part: string, by: number, n: number) =>
    line(
      part,
      [60, 62, 64, 65].slice(0, n).map((m, i) => [i, m + by, 1] as const),
    );
  const one = (n: number) => doubles(notes("a", 0, n), notes("b", 12, n), GROUND);
  expect([one(3), one(4)]).toEqual([false, true]);
});
