import fc from "fast-check";
import { firstOf, sure } from "../../src/base/list";
import { must } from "../../src/base/result";
import { bestBars } from "../../src/arrange/figure/bestBars";
import { isComplete } from "../../src/judge/follow/follow";
import { parseSong } from "../../src/song/document";
import { applyEdit } from "../../src/song/edits";
import type { Edit } from "../../src/song/edits/list";
import { differenceOf } from "../../src/song/takes";
import type { Song } from "../../src/song/schema/song";
import { edit, notesOf, songWith } from "../helpers";

/** States of a line that are kept, and what becomes of them when its part goes. */
test("a part takes its kept states with it; a state that holds chords or drums as well stays with those", () => {
  const song = songWith({ line: "| C |", bass: ["0 C2 4"] });
  const { notes, chords, groove } = firstOf(song.sections);
  const take = (id: string, more: object) => ({
    id,
    name: id,
    sectionId: "s1",
    notes: { bass: notes.bass ?? [] },
    ...more,
  });
  const kept = must(
    parseSong({
      ...song,
      takes: [
        take("t1", {}),
        take("t2", { chords }),
        take("t3", { groove }),
        take("t4", { notes: { bass: notes.bass, melody: [{ ...notes.bass?.[0], id: "n99" }] } }),
      ],
    }),
  );
  const after = edit(kept, { do: "removePart", part: "bass" });
  expect(after.takes.map((t) => [t.id, Object.keys(t.notes ?? {})])).toEqual([
    ["t2", []],
    ["t3", []],
    ["t4", ["melody"]],
  ]);
});

const BAR = 1920;
const tune = (song: Song, part = "melody") =>
  firstOf(song.sections).notes[part]?.map((n) => `${n.start / 480} ${n.pitch}`);
const keep = (name: string, more: object = {}): Edit => ({ do: "keepTake", section: "s1", name, ...more });
const bring = (song: Song, take: string, more: object = {}): Song =>
  edit(song, { do: "bringTake", section: "s1", take, ...more });

describe("takes of everything", () => {
  const first = songWith({
    line: "| C | F | G | C |",
    melody: ["0 C5 2", "4 D5 2", "8 E5 2", "12 F5 2"],
    kicks: [
      [0, 100],
      [4, 100],
    ],
  });

  test("of one part, of several, of chords, of drums, of some bars: what was kept comes back, the rest stays", () => {
    const kept = edit(
      first,
      keep("all"),
      keep("tune", { part: "melody" }),
      keep("chords", { chords: true, bars: [1, 3] }),
    );
    expect(kept.takes.map((t) => [t.name, t.bars, Object.keys(t.notes ?? {}), !!t.chords, !!t.groove])).toEqual([
      ["all", undefined, ["melody"], true, true],
      ["tune", undefined, ["melody"], false, false],
      ["chords", [1, 3], [], true, false],
    ]);
    const other = edit(
      kept,
      { do: "setLine", section: "s1", line: "| Am | Am | Am | Am |" },
      { do: "setNotes", section: "s1", part: "melody", notes: notesOf(["0 A4 16"]) },
    );
    const chords = bring(other, sure(kept.takes[2]).id);
    expect(firstOf(chords.sections).chords.map((c) => [c.start / BAR, c.symbol])).toEqual([
      [0, "Am"],
      [1, "F"],
      [2, "G"],
      [3, "Am"],
    ]);
    expect(tune(chords)).toEqual(["0 A4"]);
    expect(tune(bring(other, sure(kept.takes[1]).id))).toEqual(tune(first));
    // The same state is not kept twice, and none is ever dropped unasked.
    expect(edit(kept, keep("again", { part: "melody" })).takes).toHaveLength(3);
    let many = first;
    for (let i = 0; i < 30; i++)
      many = edit(
        many,
        {
          do: "setNotes",
          section: "s1",
          part: "melody",
          notes: notesOf([`${i % 16} C5 1`, `${i % 15} E5 ${1 + (i % 3)}`]),
        },
        keep(`try ${i}`, { part: "melody" }),
      );
    expect(many.takes).toHaveLength(30);
    expect(parseSong(JSON.parse(JSON.stringify(many))).ok).toBe(true);
  });

  test("joined bar by bar: bars 1 and 3 of one, 2 and 4 of another; the same as cutting by ticks (property)", () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(15), fc.constantFrom("C5", "G4", "A4")), { minLength: 1, maxLength: 10 }),
        fc.array(fc.tuple(fc.nat(15), fc.constantFrom("E5", "B4")), { minLength: 1, maxLength: 10 }),
        fc.array(fc.boolean(), { minLength: 4, maxLength: 4 }),
        (a, b, choice) => {
          const line = (list: [number, string][]) => notesOf([...new Map(list)].map(([at, p]) => `${at} ${p} 1`));
          const put = (song: Song, list: [number, string][]) =>
            edit(song, { do: "setNotes", section: "s1", part: "melody", notes: line(list) });
          const one = edit(put(first, a), keep("one", { part: "melody" }));
          const two = edit(put(one, b), keep("two", { part: "melody" }));
          if (two.takes.length < 2) return;
          const joined = choice.reduce(
            (song, second, bar) => bring(song, sure(two.takes[second ? 1 : 0]).id, { bars: [bar, bar + 1] }),
            two,
          );
          const cut = [...new Map(a)].filter(([at]) => !choice[Math.floor(at / 4)]);
          const rest = [...new Map(b)].filter(([at]) => choice[Math.floor(at / 4)]);
          expect(tune(joined)).toEqual([...cut, ...rest].sort(([x], [y]) => x - y).map(([at, p]) => `${at} ${p}`));
        },
      ),
      { numRuns: 60, seed: 34 },
    );
  });

  test("the rhythm alone comes back with the pitches of now, the pitches alone in the rhythm of now", () => {
    const kept = edit(first, keep("tune", { part: "melody" }));
    const now = edit(kept, {
      do: "setNotes",
      section: "s1",
      part: "melody",
      notes: notesOf(["1 A4 1", "5 B4 1", "9 C5 1", "13 D5 1"]),
    });
    const id = sure(kept.takes[0]).id;
    expect(tune(bring(now, id, { only: "rhythm" }))).toEqual(["0 A4", "4 A4", "8 B4", "12 C5"]);
    expect(tune(bring(now, id, { only: "pitches" }))).toEqual(["1 C5", "5 D5", "9 E5", "13 F5"]);
    // Where there are not as many, the note that sounds there counts.
    const fewer = edit(now, { do: "setNotes", section: "s1", part: "melody", notes: notesOf(["5 A4 1", "13 A4 1"]) });
    expect(tune(bring(fewer, id, { only: "pitches" }))).toEqual(["5 D5", "13 F5"]);
  });

  test("how a take differs is told by its bars: rhythm, pitches, chords, drums", () => {
    const kept = edit(first, keep("all"));
    const at = (song: Song) => differenceOf(sure(song.takes[0]), firstOf(song.sections), BAR);
    expect(at(kept)).toEqual({ bars: [], rhythm: false, pitches: false, chords: false, drums: false, notes: 0 });
    const pitch = edit(kept, {
      do: "changeNotes",
      section: "s1",
      part: "melody",
      notes: [{ id: sure(firstOf(kept.sections).notes.melody?.[1]).id, pitch: "A5" }],
    });
    expect(at(pitch)).toMatchObject({ bars: [1], pitches: true, rhythm: false, notes: 0 });
    const more = edit(pitch, {
      do: "addNote",
      section: "s1",
      part: "melody",
      note: { start: 2.5 * BAR, duration: 240, pitch: "C5", velocity: 80 },
    });
    expect(at(more)).toMatchObject({ bars: [1, 2], rhythm: true, notes: -1 });
    const drums = edit(kept, { do: "setHit", section: "s1", drum: "kick", start: 3 * BAR, velocity: 90 });
    expect(at(drums)).toMatchObject({ bars: [3], drums: true, chords: false });
  });

  test("the best bars of a fuller take: accents met, gaps of the tune, what comes back", () => {
    const song = edit(
      songWith({
        line: "| C | F | G | C |",
        melody: ["0 C5 4", "8 E5 4"],
        kicks: [
          [0, 110],
          [2, 110],
          [4, 110],
          [6, 110],
        ],
        bass: ["0 C2 1", "2 C2 1", "4 F2 1", "6 F2 1", "9.5 G2 0.5", "12 C2 4"],
      }),
      keep("full", { part: "bass" }),
      { do: "setNotes", section: "s1", part: "bass", notes: notesOf(["0 C2 4", "4 F2 4", "8 G2 4", "12 C2 4"]) },
    );
    const best = bestBars(song, sure(song.takes[0]), "bass");
    // Bar 2: both accents, no tune, and its rhythm comes back. Bar 1 lies under the tune. Bar 4 is what stands there.
    expect(best.map((b) => b.bar)).toEqual([1, 0]);
    expect(best[0]).toEqual({
      bar: 1,
      score: 2.5,
      reasons: ["meets 2 of 2 accents", "moves where the tune rests", "its rhythm comes back"],
    });
  });

  test("takes go along when their section is divided and joined, and with bars that go", () => {
    const kept = edit(first, keep("all"), keep("last", { part: "melody", bars: [3, 4] }));
    const two = edit(kept, { do: "splitSection", section: "s1", at: 2 });
    const second = sure(two.sections[1]).id;
    expect(two.takes.map((t) => [t.name, t.sectionId, t.bars])).toEqual([
      ["all", "s1", undefined],
      ["all", second, undefined],
      ["last", second, [1, 2]],
    ]);
    const one = edit(two, { do: "joinSections", section: "s1", with: second });
    expect(one.takes.map((t) => t.bars)).toEqual([
      [0, 2],
      [2, 4],
      [3, 4],
    ]);
    expect(edit(kept, { do: "removeBars", section: "s1", bars: [3, 4] }).takes.map((t) => t.name)).toEqual(["all"]);
  });
});

test("takes are kept up to forty thousand notes in all; then it is told, and what stands beside it is done", () => {
  const song = songWith({ line: "| C |", melody: ["0 C5 1"] });
  const many = (count: number) =>
    Array.from({ length: count }, (_, i) => ({ id: `n${i}`, start: i % 1920, duration: 1, pitch: "C5", velocity: 80 }));
  const full = (last: number): Song => ({
    ...song,
    takes: [20_000, last].map((n, i) => ({ id: `t${i}`, name: "full", sectionId: "s1", notes: { melody: many(n) } })),
  });
  const keepsAt = (last: number) => must(applyEdit(full(last), keep("one more", { part: "melody" })));
  expect(keepsAt(19_999).song.takes).toHaveLength(3);
  const refused = keepsAt(20_000);
  expect([refused.song.takes.length, refused.problems[0]?.code]).toEqual([2, "take.full"]);
  const beside: Edit = {
    do: "all",
    label: "",
    edits: [keep("x", { part: "melody" }), { do: "setTitle", title: "Done" }],
  };
  expect(must(applyEdit(full(20_000), beside)).song.title).toBe("Done");
});

describe("the log", () => {
  test("lines are written with place, time and why, go along with bars, and lose what is gone", () => {
    const song = edit(songWith({ line: "| C | F |", melody: ["0 C5 1"] }), keep("first", { part: "melody" }), {
      do: "logEntry",
      at: "2026-12-02T10:00:00Z",
      what: "Agreed: two bars longer",
      section: "s1",
      tick: BAR,
      bars: 1,
      parts: ["melody"],
      why: "the drummer asked",
    });
    const [line] = song.log;
    expect(line).toMatchObject({
      what: "Agreed: two bars longer",
      where: { sectionId: "s1", tick: BAR, bars: 1, parts: ["melody"] },
    });
    const longer = edit(song, { do: "insertBars", section: "s1", at: 0, count: 2 });
    expect(longer.log[0]?.where?.tick).toBe(3 * BAR);
    const changed = edit(song, { do: "setEntry", entry: sure(line).id, what: "Agreed: one bar", why: null });
    expect([changed.log[0]?.what, changed.log[0]?.why]).toEqual(["Agreed: one bar", undefined]);
    expect(edit(changed, { do: "removeEntry", entry: sure(line).id }).log).toEqual([]);
    expect(applyEdit(song, { do: "removeEntry", entry: "w999" })).toMatchObject({
      ok: false,
      error: { code: "edit.entry" },
    });
    expect(applyEdit(song, { do: "logEntry", at: "now", what: " " }).ok).toBe(false);
    const tied = edit(song, { do: "logEntry", at: "x", what: "This try", take: sure(song.takes[0]).id });
    expect(edit(tied, { do: "removeTake", take: sure(song.takes[0]).id }).log[1]?.takeId).toBeUndefined();
  });

  test("a deed with its line is as complete as the deed alone: nothing more follows from it", () => {
    const move: Edit = { do: "transpose", key: "D major", semitones: 2 };
    const line: Edit = { do: "logEntry", at: "x", what: "Moved to D major" };
    expect(isComplete({ do: "all", label: "", edits: [move, line] })).toBe(true);
    expect(isComplete({ do: "all", label: "", edits: [line, { do: "setProfile", profile: "jazz" }] })).toBe(false);
  });
});
