import { nth, sure } from "../../src/base/list";
import { applyEdit } from "../../src/song/edits";
import { checkSong } from "../../src/judge/check/check";
import { must } from "../../src/base/result";
import { parseSong } from "../../src/song/document";
import { RULES } from "../../src/judge/check/rules";
import type { Finding } from "../../src/judge/check/rule";
import type { Song } from "../../src/song/schema/song";
import { BAND_SONGS } from "./bandSongs";
import { songOf, type Jotted } from "./bandSong";

/** Songs of a band with what is wrong in them marked beforehand: what Check finds must be worth reading. */
const songs = BAND_SONGS.map((jotted) => ({ jotted, song: songOf(jotted) }));
const barOf = ({ meter = "4/4" }: Jotted) => (meter === "4/4" ? 1920 : 1440);

const isMarked = (
  jotted: Jotted,
  song: Song,
  f: Finding,
  [rule, section, bar, ...parts]: Jotted["marks"][number],
): boolean => {
  const names = f.where.parts.map((id) => sure(song.parts.find((p) => p.id === id)).name);
  return (
    f.rule === rule &&
    sure(song.sections.find((s) => s.id === f.where.section)).name === section &&
    f.places.some((p) => Math.floor(p.tick / barOf(jotted)) + 1 === bar) &&
    parts.every((p) => names.includes(p))
  );
};

test.each(songs.map((s) => [s.jotted.title, s] as const))(
  "%s: everything that was marked is found, and stands among the first ten",
  (_, { jotted, song }) => {
    const found = checkSong(song);
    for (const section of song.sections) {
      const here = found.filter((f) => f.where.section === section.id).slice(0, 10);
      for (const mark of jotted.marks.filter((m) => m[1] === section.name))
        expect([mark, here.some((f) => isMarked(jotted, song, f, mark))]).toEqual([mark, true]);
    }
  },
);

test("half of the songs have fewer than seventeen findings for every 64 bars that are played, and none has thirty", () => {
  const per = songs
    .map(({ song }) => {
      const bars = song.form.reduce(
        (sum, pass) => sum + sure(song.sections.find((s) => s.id === pass.sectionId)).bars,
        0,
      );
      return (checkSong(song).length / bars) * 64;
    })
    .sort((a, b) => a - b);
  expect(per[Math.floor(per.length / 2)]).toBeLessThan(17);
  expect(per.at(-1)).toBeLessThan(30);
});

test("the same fault of one pair is one finding: no rule is told twice of the same parts in a section", () => {
  for (const { song } of songs)
    for (const section of song.sections) {
      const told = checkSong(song)
        .filter((f) => f.where.section === section.id)
        .map((f) => `${f.rule} ${[...f.where.parts].sort().join()}`);
      expect(told.length).toBe(new Set(told).size);
    }
});

test("judging changes no song, whichever school judges it, and every fix that is offered can be made", () => {
  const schools = ["chorale", "band", "jazz", "loop"] as const;
  for (const [i, { song }] of songs.entries()) {
    const text = JSON.stringify(song);
    expect(must(parseSong(JSON.parse(text)))).toEqual(song);
    // Two schools for each song, by turns.
    for (const profile of [nth(schools, i % 4), nth(schools, (i + 2) % 4)])
      for (const f of checkSong(song, { profile }))
        for (const fix of f.places.flatMap((p) => p.fixes))
          expect([f.rule, fix.label, applyEdit(song, fix.edit).ok]).toEqual([f.rule, fix.label, true]);
    expect(JSON.stringify(song)).toBe(text);
  }
});

test("marks name rules that there are", () => {
  for (const { jotted } of songs) for (const [rule] of jotted.marks) expect(RULES.map((r) => r.id)).toContain(rule);
});
