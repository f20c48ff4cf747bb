import fc from "fast-check";
import { firstOf, nth, sure } from "../../src/base/list";
import { must } from "../../src/base/result";
import { applyEdit } from "../../src/song/edits";
import type { Edit } from "../../src/song/edits/list";
import { parseSong } from "../../src/song/document";
import { realize } from "../../src/song/realize";
import { pieceOf } from "../../src/song/stretch";
import type { Song } from "../../src/song/schema/song";
import { edit, songWith } from "../helpers";

const BAR = 1920;
const section = (song: Song, i = 0) => nth(song.sections, i);

/** Songs of four bars with an upbeat, notes over bar lines, own bars of a second pass, accents, takes and waivers. */
const anySong = fc
  .record({
    chords: fc.array(fc.constantFrom("C", "Am7", "F", "G7"), { minLength: 2, maxLength: 8 }),
    notes: fc.array(
      fc.record({
        start: fc.integer({ min: -2, max: 31 }).map((n) => n * 240),
        duration: fc.integer({ min: 1, max: 12 }).map((n) => n * 240),
        pitch: fc.constantFrom("C4", "E4", "G4", "Bb4"),
      }),
      { maxLength: 14 },
    ),
    hits: fc.array(fc.integer({ min: 0, max: 31 }), { maxLength: 10 }),
    own: fc.option(
      fc.record({
        bar: fc.integer({ min: 0, max: 3 }),
        pitch: fc.constantFrom("D4", "A4"),
        symbol: fc.constant("Dm7"),
      }),
    ),
    transpose: fc.constantFrom(0, 2),
  })
  .map(({ chords, notes, hits, own, transpose }) => {
    const length = Math.floor((4 * BAR) / chords.length);
    let song = edit(
      songWith({ line: "| C | C | C | C |" }),
      { do: "setSectionTime", section: "s1", pickup: 480 },
      {
        do: "setChords",
        section: "s1",
        from: 0,
        to: 4 * BAR,
        chords: chords.map((symbol, i) => ({ start: i * length, duration: length, symbol })),
      },
      { do: "setNotes", section: "s1", part: "melody", notes: notes.map((n) => ({ ...n, velocity: 80 })) },
      ...[...new Set(hits)].map((h): Edit => ({
        do: "setHit",
        section: "s1",
        drum: "kick",
        start: h * 240,
        velocity: 100,
      })),
      { do: "setAccents", section: "s1", accents: [0, BAR, 3 * BAR] },
      { do: "keepTake", section: "s1", part: "melody", name: "first" },
      { do: "waive", rule: "clash", section: "s1", parts: ["melody"], about: String(2 * BAR), reason: "meant" },
      { do: "addPass", section: "s1" },
    );
    const pass = sure(song.form[1]).id;
    if (transpose) song = edit(song, { do: "setPass", pass, transpose });
    if (own)
      song = edit(song, {
        do: "inPass",
        pass,
        here: true,
        edit: {
          do: "addNote",
          section: "s1",
          part: "melody",
          note: { start: own.bar * BAR + 120, duration: 240, pitch: own.pitch, velocity: 90 },
        },
      });
    return song;
  });

const plain = (song: Song): unknown => ({ ...song, nextId: 0 });
const sounds = (song: Song) => {
  const real = realize(song);
  return {
    notes: real.parts.flatMap((p) => p.notes.map((n) => [p.id, n.start, n.duration, n.midi])).sort(),
    hits: real.hits.map((h) => [h.drum, h.start]),
    // One chord in two pieces sounds as one.
    chords: real.chords.filter((c, i) => real.chords[i - 1]?.symbol !== c.symbol).map((c) => [c.start, c.symbol]),
  };
};
const whole = (song: Song): boolean => parseSong(JSON.parse(JSON.stringify(song))).ok;
const runs = { numRuns: 120, seed: 34 };

describe("bars", () => {
  test("bars that are put in anywhere and taken out again leave the song as it was", () => {
    fc.assert(
      fc.property(anySong, fc.integer({ min: 0, max: 4 }), fc.integer({ min: 1, max: 3 }), (song, at, count) => {
        const longer = edit(song, { do: "insertBars", section: "s1", at, count });
        expect(whole(longer)).toBe(true);
        expect(section(longer).bars).toBe(4 + count);
        const back = edit(longer, { do: "removeBars", section: "s1", bars: [at, at + count] });
        expect(plain(back)).toEqual(plain(song));
      }),
      runs,
    );
  });

  test("what is taken out is what began there, and nothing else: what is left sounds as it did", () => {
    fc.assert(
      fc.property(anySong, fc.integer({ min: 0, max: 2 }), (song, from) => {
        const shorter = edit(song, { do: "removeBars", section: "s1", bars: [from, from + 1] });
        expect(whole(shorter)).toBe(true);
        const gone = (n: { start: number }) => n.start >= from * BAR && n.start < (from + 1) * BAR;
        const upbeat = (n: { start: number }) => from === 0 && n.start >= BAR - 480 && n.start < BAR;
        const first = (n: { start: number }) => from === 0 && n.start < 0;
        const left = (section(song).notes.melody ?? []).filter((n) => (!gone(n) && !first(n)) || upbeat(n));
        expect((section(shorter).notes.melody ?? []).map((n) => n.id).sort()).toEqual(
          left
            .filter((n) => n.start < from * BAR || n.start >= (from + 1) * BAR || upbeat(n))
            .map((n) => n.id)
            .sort(),
        );
        expect(section(shorter).chords.reduce((sum, c) => sum + c.duration, 0)).toBe(
          section(song).chords.reduce((sum, c) => sum + c.duration, 0) - overlapOf(song, from),
        );
      }),
      runs,
    );
  });

  test("a song that is divided sounds as it did; joined again it is what it was", () => {
    fc.assert(
      fc.property(anySong, fc.integer({ min: 1, max: 3 }), (song, at) => {
        const two = edit(song, { do: "splitSection", section: "s1", at });
        expect(whole(two)).toBe(true);
        expect(two.form).toHaveLength(4);
        expect(sounds(two)).toEqual(sounds(song));
        const one = edit(two, { do: "joinSections", section: "s1", with: section(two, 1).id });
        expect(sounds(one)).toEqual(sounds(song));
        expect(one.form.map((p) => [p.sectionId, p.bars, p.transpose])).toEqual(
          song.form.map((p) => [p.sectionId, p.bars, p.transpose]),
        );
        expect(whole(one)).toBe(true);
        // Divided and joined once more nothing changes any more.
        const again = edit(
          one,
          { do: "splitSection", section: "s1", at },
          {
            do: "joinSections",
            section: "s1",
            with: `s${one.nextId}`,
          },
        );
        expect(sounds(again)).toEqual(sounds(one));
      }),
      runs,
    );
  });

  test("two sections that are joined and divided again are what they were, upbeats and own bars too", () => {
    fc.assert(
      fc.property(anySong, fc.integer({ min: 1, max: 3 }), (song, at) => {
        const two = edit(song, { do: "splitSection", section: "s1", at, pickup: 240 });
        const [first, second] = [section(two), section(two, 1)];
        const one = edit(two, { do: "joinSections", section: first.id, with: second.id });
        const again = edit(one, { do: "splitSection", section: first.id, at, pickup: 240, name: second.name });
        const [a, b] = [section(again), section(again, 1)];
        const { copyOf: _, ...was } = first;
        expect(a).toEqual(was);
        expect({ ...b, id: second.id }).toEqual(second);
        expect(again.form.map((p) => [p.sectionId === a.id, p.bars, p.own, p.transpose])).toEqual(
          two.form.map((p) => [p.sectionId === first.id, p.bars, p.own, p.transpose]),
        );
      }),
      runs,
    );
  });

  test("what cannot be joined is refused with its reason", () => {
    const two = edit(songWith({ line: "| C | F | G | C |" }), { do: "splitSection", section: "s1", at: 2 });
    const other = section(two, 1).id;
    const join: Edit = { do: "joinSections", section: "s1", with: other };
    const said = (song: Song, e: Edit = join) => {
      const made = applyEdit(song, e);
      return made.ok ? "joined" : made.error.message;
    };
    expect(said(two)).toBe("joined");
    expect(said(edit(two, { do: "setSectionTime", section: other, key: "D major" }))).toMatch(/different keys/);
    expect(said(edit(two, { do: "setSectionTime", section: other, tempo: 90 }))).toMatch(/different tempos/);
    expect(said(edit(two, { do: "addPass", section: "s1" }))).toMatch(/without .* behind it \(pass 3\)/);
    expect(said(edit(two, { do: "setPass", pass: sure(two.form[1]).id, transpose: 2 }))).toMatch(
      /different keys there/,
    );
    expect(said(edit(two, { do: "setPass", pass: sure(two.form[1]).id, bars: [1, 2] }))).toMatch(/where they meet/);
    expect(said(two, { do: "joinSections", section: other, with: "s1" })).toMatch(
      /without Verse, second part before it/,
    );
  });

  test("bars are copied and set down over others and between them; cutting by ticks is the same (property)", () => {
    fc.assert(
      fc.property(anySong, fc.integer({ min: 0, max: 3 }), fc.integer({ min: 0, max: 4 }), (song, from, to) => {
        const piece = pieceOf(song, section(song), { bars: [from, from + 1] });
        const between = edit(
          song,
          { do: "insertBars", section: "s1", at: to, count: 1 },
          { do: "pasteBars", section: "s1", at: to, ...piece },
        );
        expect(whole(between)).toBe(true);
        const at = (s: Song, bar: number) => ({
          notes: (section(s).notes.melody ?? [])
            .filter((n) => n.start >= bar * BAR && n.start < (bar + 1) * BAR)
            .map((n) => [n.start - bar * BAR, n.duration, n.pitch]),
          hits: section(s)
            .groove.lanes.flatMap((l) => l.hits)
            .filter((h) => h.start >= bar * BAR && h.start < (bar + 1) * BAR)
            .map((h) => h.start - bar * BAR),
        });
        const want = at(song, from);
        // What leads into the copied bar as an upbeat comes along with the first bar.
        const got = at(between, to);
        expect(got.hits).toEqual(want.hits);
        expect(got.notes).toEqual(expect.arrayContaining(want.notes));
        if (to < 4) {
          const over = edit(song, { do: "pasteBars", section: "s1", at: to, ...piece });
          expect(at(over, to).notes).toEqual(want.notes);
          expect(section(over).bars).toBe(4);
        }
      }),
      runs,
    );
  });

  test("a bar of another length is not set down, and what would stand past the end is told", () => {
    const song = songWith({ line: "| C | F |", melody: ["0 C5 1", "4 D5 1"] });
    const piece = pieceOf(song, section(song), { bars: [0, 2] });
    const past = must(applyEdit(song, { do: "pasteBars", section: "s1", at: 1, ...piece }));
    expect(past.problems[0]?.message).toBe("1 bar would stand past the end of Verse");
    expect(firstOf(past.song.sections).notes.melody?.map((n) => [n.start, n.pitch])).toEqual([
      [0, "C5"],
      [BAR, "C5"],
    ]);
    const waltz = songWith({ meter: "3/4", line: "| C | F |" });
    expect(applyEdit(waltz, { do: "pasteBars", section: "s1", at: 0, ...piece })).toMatchObject({
      ok: false,
      error: { code: "edit.bars" },
    });
  });

  test("only what is chosen is copied and emptied; pinned notes stay", () => {
    const song = songWith({ line: "| C | F |", melody: ["0 C5 1", "4 D5 1"], bass: ["0 C2 4"], kicks: [[0, 100]] });
    const piece = pieceOf(song, section(song), { bars: [0, 1], parts: ["bass"] });
    expect([piece.chords, piece.groove, Object.keys(sure(piece.notes))]).toEqual([undefined, undefined, ["bass"]]);
    const pinned = edit(song, {
      do: "changeNotes",
      section: "s1",
      part: "melody",
      notes: [{ id: firstOf(sure(section(song).notes.melody)).id, pinned: true }],
    });
    const empty = edit(pinned, { do: "clearBars", section: "s1", bars: [0, 1], parts: ["melody", "bass"] });
    expect(section(empty).notes.melody?.map((n) => n.pitch)).toEqual(["C5", "D5"]);
    expect(section(empty).notes.bass).toEqual([]);
    expect(section(empty).chords).toEqual(section(song).chords);
    const all = edit(song, { do: "clearBars", section: "s1", bars: [0, 1] });
    expect(section(all).chords.map((c) => c.symbol)).toEqual(["F"]);
    expect(section(all).groove.lanes.flatMap((l) => l.hits)).toEqual([]);
  });
});

/** Ticks of chords that a removed bar takes away. */
const overlapOf = (song: Song, from: number): number =>
  section(song).chords.reduce(
    (sum, c) => sum + Math.max(0, Math.min(c.start + c.duration, (from + 1) * BAR) - Math.max(c.start, from * BAR)),
    0,
  );
