import { firstOf, nth, sure } from "../../src/base/list";
import { applyEdit } from "../../src/song/edits";
import { checkSong } from "../../src/judge/check/check";
import { factsOf } from "../../src/facts/memory";
import { formRealized } from "../../src/hear/sounding";
import { must } from "../../src/base/result";
import { overviewOf } from "../../src/judge/check/overview";
import { parseSong } from "../../src/song/document";
import { safeFixes } from "../../src/judge/check/verify";
import type { Finding } from "../../src/judge/check/rule";
import type { Song } from "../../src/song/schema/song";
import { BAND_SONGS } from "./bandSongs";
import { songOf } from "./bandSong";
import { demoSongs } from "../demos";
import { edit } from "../helpers";
import { band } from "./lines";

const songs = [...BAND_SONGS.map(songOf), ...demoSongs()];
const grave = (song: Song): Finding[] => checkSong(song).filter((f) => f.severity !== "note" && f.waived === undefined);
const places = (song: Song) =>
  new Set(grave(song).flatMap((f) => f.places.map((p) => `${f.rule} ${[...p.parts].sort().join()} ${p.tick}`)));

test("what is safe mends every place it names, brings no fault and no warning, and is one edit that can be made", () => {
  let mended = 0;
  for (const song of songs.filter((_, i) => i % 9 === 0)) {
    const text = JSON.stringify(song);
    let now = song;
    for (const section of song.sections) {
      const found = checkSong(now).filter((f) => f.where.section === section.id && f.severity !== "note");
      const safe = safeFixes(
        now,
        section.id,
        found.map((f) => f.id),
      );
      if (!safe.edit) {
        expect(safe.steps).toEqual([]);
        continue;
      }
      const after = must(applyEdit(now, safe.edit)).song;
      expect(must(parseSong(JSON.parse(JSON.stringify(after))))).toEqual(after);
      const left = new Set(checkSong(after).flatMap((f) => f.places.map((p) => p.id)));
      for (const step of safe.steps)
        expect([step.rule, step.fix.label, left.has(step.place.id)]).toEqual([step.rule, step.fix.label, false]);
      const before = places(now);
      expect([...places(after)].filter((p) => !before.has(p))).toEqual([]);
      mended += safe.steps.length;
      now = after;
    }
    expect(JSON.stringify(song)).toBe(text);
  }
  expect(mended).toBeGreaterThan(3);
}, 30_000);

test("what is left with a reason, and what was not named, stays", () => {
  const song = songOf(firstOf(BAND_SONGS));
  const section = nth(song.sections, 1).id;
  const high = sure(grave(song).find((f) => f.rule === "out-of-range"));
  const waived = edit(song, { do: "waive", finding: firstOf(high.places).id, reason: "a shout" });
  expect(safeFixes(waived, section, []).edit).toBeNull();
  const safe = safeFixes(
    waived,
    section,
    checkSong(waived).map((f) => f.id),
  );
  expect(safe.steps.some((s) => s.place.id === firstOf(high.places).id)).toBe(false);
  expect(safe.steps.length + safe.left).toBeGreaterThan(0);
});

test("the overview has every bar of the form, with as many places as are found there in each pass", () => {
  for (const song of songs.filter((_, i) => i % 3 === 0)) {
    const { bars } = overviewOf(song);
    const length = song.form.reduce((sum, p) => sum + sure(song.sections.find((s) => s.id === p.sectionId)).bars, 0);
    expect(bars).toHaveLength(length);
    const sum = bars.reduce((n, b) => n + b.found.fault + b.found.warning + b.found.note, 0);
    const open = checkSong(song).filter((f) => f.waived === undefined);
    const wanted = song.form.reduce(
      (n, p) => n + open.filter((f) => f.where.section === p.sectionId).reduce((m, f) => m + f.places.length, 0),
      0,
    );
    expect([song.title, sum]).toEqual([song.title, wanted]);
  }
});

test("registers are those of the notes; four fifths of the time lie in the middle", () => {
  for (const song of songs) {
    const real = factsOf(song).get(formRealized, "played");
    for (const r of overviewOf(song).registers) {
      const { notes } = sure(real.parts.find((p) => p.id === r.part));
      expect([r.low, r.high]).toEqual([Math.min(...notes.map((n) => n.midi)), Math.max(...notes.map((n) => n.midi))]);
      const time = (list: typeof notes) => list.reduce((sum, n) => sum + n.duration, 0);
      const inside = notes.filter((n) => n.midi >= r.middle[0] && n.midi <= r.middle[1]);
      expect(time(inside)).toBeGreaterThanOrEqual(time(notes) * 0.8 - 1);
    }
  }
});

test("a double in unison covers all of a part, one two octaves away nothing, a softer one nothing either", () => {
  const of = (pitch: string, velocity: number) => {
    const song = band("| C |", {
      Tune: ["melody", "flute", ["0 C5 2", "2 E5 2"]],
      Other: ["counter", "strings", [`0 ${pitch}5 2`, "2 E5 2"]],
    });
    const part = sure(song.parts.find((p) => p.name === "Other")).id;
    const notes = sure(firstOf(song.sections).notes[part]).map((n) => ({
      id: n.id,
      velocity,
      ...(pitch === "C" ? {} : { pitch: "C3" }),
    }));
    const { covering } = overviewOf(edit(song, { do: "changeNotes", section: "s1", part, notes }));
    const at = (id: string) => covering.parts.findIndex((p) => p.id === id);
    return nth(covering.share, at("melody"))[at(part)];
  };
  expect([of("C", 90), of("D", 90), of("C", 40)]).toEqual([1, 0, 0]);
});
