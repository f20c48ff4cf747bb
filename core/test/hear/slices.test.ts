import { firstOf, nth, sure } from "../../src/base/list";
import { whileSame } from "../../src/base/once";
import { createMemory } from "../../src/facts/memory";
import { barFrames, inBars, struckInBars } from "../../src/hear/slice/bars";
import { slicesAt } from "../../src/hear/slice/facts";
import { noteRoles } from "../../src/hear/slice/roles";
import { sliceReal } from "../../src/hear/slice/slices";
import { passPlace, sectionPlace } from "../../src/song/place";
import { realize, realizePlace } from "../../src/song/realize";
import type { RealizedSong } from "../../src/song/realized";
import { parseMeter } from "../../src/theory/time/meter";
import { must } from "../../src/base/result";
import { walk } from "../anyEdit";
import { applyEdit, type Edit } from "../../src/song/edits";
import type { Song } from "../../src/song/schema/song";
import { goldenSong } from "../fixtures";
import { edit, songWith } from "../helpers";

/** The slices by their definition: between any two edges, what sounds there; nothing is walked along or remembered. */
function byDefinition(real: RealizedSong): unknown[] {
  const all = real.parts.flatMap((p) => p.notes);
  const roles = new Map(real.parts.map((p) => [p.id, noteRoles(real, p)]));
  const ends = (x: { start: number; duration: number }) => [x.start, x.start + x.duration];
  const edges = [
    ...new Set([0, real.duration, ...[...real.chords, ...all].flatMap(ends), ...real.hits.map((h) => h.start)]),
  ];
  edges.sort((a, b) => a - b);
  return edges.slice(1).map((end, i) => {
    const start = nth(edges, i);
    const sounds = (x: { start: number; duration: number }) => x.start <= start && start < x.start + x.duration;
    return {
      start,
      duration: end - start,
      chord: real.chords.find(sounds)?.id ?? null,
      hits: real.hits.filter((h) => h.start === start).map((h) => h.drum),
      notes: all
        .filter(sounds)
        .map((n) => [n.midi, n.part, n.start === start, sure(sure(roles.get(n.part)).get(n)).find(sounds)?.role].join())
        .sort(),
    };
  });
}

const told = (real: RealizedSong): unknown[] =>
  sliceReal(real).slices.map((s) => ({
    start: s.start,
    duration: s.duration,
    chord: s.chord?.id ?? null,
    hits: s.hits.map((h) => h.drum),
    notes: s.notes.map((n) => [n.note.midi, n.part, n.attack, n.span.role].join()).sort(),
  }));

const apply = (song: Song, change: Edit): Song => {
  const result = applyEdit(song, change);
  return result.ok ? result.value.song : song;
};

test.each(["pickup", "every-setting", "another-key", "glides"])(
  "slices of %s, of its sections, passes and whole form, are what sounds between any two edges, after any edits",
  (name) => {
    walk(goldenSong(name), { seed: 41, length: 4, apply }, (song) => {
      const places = [...song.sections.map((s) => sectionPlace(s.id)), ...song.form.map((p) => passPlace(song, p.id))];
      const reals = [...places.map((p) => realizePlace(song, p, true)), realize(song, { harmony: true })];
      for (const real of reals) expect(told(real)).toEqual(byDefinition(real));
    });
  },
);

test("an edit makes the slices of its own bars anew, and of the bar before where a note is held until there", () => {
  const song = songWith({
    line: "| C | C | F | F | G | G | C | C |",
    bass: ["0 C2 4", "4 C2 4", "8 F2 8", "16 G2 4", "20 G2 4", "24 C2 4", "28 C2 4"],
  });
  const anew = (change: Edit) => {
    const memory = createMemory();
    const barsOf = (of: Song) => memory.at(of).get(slicesAt, sectionPlace("s1")).bars;
    const before = barsOf(song);
    return barsOf(edit(song, change)).flatMap((bar, b) => (bar === before[b] ? [] : [b]));
  };
  const notes = sure(firstOf(song.sections).notes.bass);
  const change = (i: number, more: object): Edit => ({
    ...{ do: "changeNotes", section: "s1", part: "bass" },
    notes: [{ id: nth(notes, i).id, ...more }],
  });
  expect(anew(change(4, { pitch: "A2" }))).toEqual([5]);
  // Softer is another note.
  expect(anew(change(4, { velocity: 40 }))).toEqual([5]);
  // Two bars long: it sounds in both.
  expect(anew(change(2, { pitch: "A2" }))).toEqual([2, 3]);
  // A drum in the middle of a bar, and one on the bar line, which nothing of the bar before depends on.
  expect(anew({ do: "setHit", section: "s1", drum: "kick", start: 960, velocity: 90 })).toEqual([0]);
  expect(anew({ do: "setHit", section: "s1", drum: "kick", start: 5 * 1920, velocity: 90 })).toEqual([5]);
  expect(anew({ do: "setPart", part: "bass", level: -6 })).toEqual([]);
});

describe("bars of what is realized", () => {
  const meter = must(parseMeter("4/4"));
  const frames = barFrames([
    { pass: "a", start: 0, duration: 3840, meter },
    { pass: "b", start: 3840, duration: 1440, meter: must(parseMeter("3/4")) },
  ]);

  test("follow each other over passes; the first begins with the upbeat, the last has what hangs over", () => {
    expect(frames.map((f) => [f.pass, f.from, f.to, f.origin])).toEqual([
      ["a", -Infinity, 1920, 0],
      ["a", 1920, 3840, 0],
      ["b", 3840, Infinity, 3840],
    ]);
    expect(barFrames([])).toEqual([]);
  });

  test("have what sounds in them, and know whether something ends where they begin", () => {
    const at = (start: number, duration: number) =>
      inBars(frames, [{ start, duration }]).map((bar) => `${bar.entries.length}${bar.ends.length ? " ends" : ""}`);
    expect(at(0, 1919)).toEqual(["1", "0", "0"]);
    expect(at(0, 1920)).toEqual(["1", "0 ends", "0"]);
    expect(at(0, 1921)).toEqual(["1", "1", "0"]);
    expect(at(1920, 480)).toEqual(["0", "1", "0"]);
    expect(at(-240, 240)).toEqual(["1", "0", "0"]);
    expect(at(5000, 960)).toEqual(["0", "0", "1"]);
  });

  test("have what is struck before their end", () => {
    const at = (start: number) => struckInBars(frames, [{ start }]).findIndex((bar) => bar.length);
    expect([at(-1), at(1919), at(1920), at(3839), at(3840), at(9000)]).toEqual([0, 0, 1, 1, 2, 2]);
  });
});

test("what follows from some things is made again only when one of them is another, or there are more", () => {
  let made = 0;
  const [thing, a, b] = [{}, {}, {}];
  const ask = (id: string, ...of: object[]) => whileSame(thing, id, of, () => ++made);
  expect([ask("x", a, b), ask("x", a, b), ask("x", a), ask("x", a, a), ask("y", a, a), ask("x", a, a)]).toEqual([
    1, 1, 2, 3, 4, 3,
  ]);
  expect(whileSame({}, "x", [a, a], () => ++made)).toBe(5);
});
