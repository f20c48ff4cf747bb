import { firstOf, sure } from "../../src/base/list";
import { applyEdit } from "../../src/song/edits";
import { must } from "../../src/base/result";
import { newSong, parseSong } from "../../src/song/document";
import { parseMeter, positionText } from "../../src/theory/time/meter";
import { realize } from "../../src/song/realize";
import { secondsAt, tickAt } from "../../src/song/realized";
import { swung, tappedTempo } from "../../src/theory/time/swing";
import { writeLine } from "../../src/theory/chord/progression";
import type { Edit } from "../../src/song/edits/list";
import type { Song } from "../../src/song/schema/song";
import { edit, songWith } from "../helpers";
import { demoSongs } from "../demos";

describe("time", () => {
  test("swing arithmetic: 66.7 % puts the second eighth on the triplet", () => {
    expect(swung(240, 1920, { ratio: 2 / 3, unit: 8 })).toBeCloseTo(320);
    expect(swung(120, 1920, { ratio: 0.58, unit: 16 })).toBeCloseTo(139.2);
    expect(swung(480, 1920, { ratio: 0.75, unit: 8 })).toBe(480);
    expect(swung(120, 1920, { ratio: 2 / 3, unit: 8 })).toBeCloseTo(160);
    // The last eighth of 7/8 has no partner and stays straight.
    expect(swung(1440, 1680, { ratio: 0.7, unit: 8 })).toBe(1440);
  });

  test("meters carry their grouping", () => {
    expect(must(parseMeter("7/8")).beats.map((b) => b.duration)).toEqual([480, 480, 720]);
    expect(must(parseMeter("7/8 3+2+2")).beats.map((b) => b.start)).toEqual([0, 720, 1200]);
    expect(must(parseMeter("12/8")).beats).toHaveLength(4);
    for (const bad of ["4/5", "0/4", "7/8 3+3", "four"]) expect(parseMeter(bad).ok).toBe(false);
    expect(positionText(must(parseMeter("6/8")), 1440 + 720 + 240)).toBe("bar 2, beat 2⅓");
  });

  test("taps", () => {
    expect(tappedTempo([0])).toBeNull();
    expect(tappedTempo([0, 500, 1000, 1500])).toBe(120);
    expect(tappedTempo([0, 5000, 5600, 6200])).toBe(100);
  });
});

describe("the document", () => {
  test("a song reads back as it was written, demo songs included", () => {
    for (const song of [...demoSongs(), must(newSong({ title: "Plain" }))])
      expect(must(parseSong(JSON.stringify(song)))).toEqual(song);
  });

  test.each([
    [{ version: 3 }, "song.newer"],
    [{ version: 0 }, "song.version"],
    [{ version: "1" }, "song.version"],
    [{ tempo: 0 }, "song.invalid"],
    [{ form: [{ id: "o", sectionId: "nowhere" }] }, "song.invalid"],
    [{ sections: [] }, "song.invalid"],
  ])("%j is refused", (change, code) => {
    expect(parseSong({ ...must(newSong({ title: "x" })), ...change })).toMatchObject({
      ok: false,
      error: { code, hint: expect.any(String) },
    });
  });
  test.each([
    ["{", "song.json"],
    ["[]", "song.shape"],
    ["null", "song.shape"],
  ])("the text %j is refused", (text, code) => expect(parseSong(text)).toMatchObject({ ok: false, error: { code } }));
});

describe("edits", () => {
  const song = songWith({ line: "| C | Am F | G7 | C |", kicks: [[0, 100]], bass: ["0 C2 4"] });

  test("an edit never changes the song it was given", () => {
    const frozen = JSON.stringify(song);
    for (const e of [
      { do: "setTempo", tempo: 70 },
      { do: "setLine", section: "s1", line: "| F |" },
      { do: "setHit", section: "s1", drum: "kick", start: 0, velocity: null },
      { do: "setMeter", meter: "3/4" },
      { do: "addSection", name: "B", bars: 2, copyOf: "s1" },
    ] as Edit[]) {
      expect(applyEdit(song, e).ok).toBe(true);
      expect(JSON.stringify(song)).toBe(frozen);
    }
  });

  test.each([
    [{ do: "setTempo", tempo: 1000 }, /at most 400/],
    [{ do: "setLine", section: "s1", line: "  " }, /no chord/],
    [{ do: "setChord", section: "s1", chord: "c1", symbol: "Xm" }, /root from A to G/],
    [{ do: "setLine", section: "nope", line: "| C |" }, /No section/],
    [
      { do: "addNote", section: "s1", part: "bass", note: { start: 0, duration: 0, pitch: "C2", velocity: 80 } },
      /lasts no time/,
    ],
    [
      { do: "addNote", section: "s1", part: "bass", note: { start: 9e9, duration: 1, pitch: "C2", velocity: 80 } },
      /longest possible/,
    ],
    [
      { do: "addNote", section: "s1", part: "bass", note: { start: 7680, duration: 480, pitch: "C2", velocity: 80 } },
      /ends with bar 4/,
    ],
    [
      { do: "addNote", section: "s1", part: "bass", note: { start: 0, duration: 480, pitch: "C2", velocity: 0 } },
      /1 to 127/,
    ],
    [{ do: "removeSection", section: "s1" }, /at least one/],
    [{ do: "setLine", section: "s1", line: "| C ".repeat(600) }, /512/],
  ] as [Edit, RegExp][])("%j is refused and nothing changes", (e, message) => {
    const result = applyEdit(song, e);
    expect(result.ok).toBe(false);
    if (!result.ok) expect(result.error.message).toMatch(message);
  });

  test("a line with a mistake keeps what stood at its place; unchanged chords keep their voicings", () => {
    const voiced = edit(song, {
      do: "pinVoicing",
      section: "s1",
      part: "keys",
      chord: firstOf(firstOf(song.sections).chords).id,
      pitches: ["G3", "C4", "E4"],
    });
    const result = must(applyEdit(voiced, { do: "setLine", section: "s1", line: "| C | Am Fjj | G7 | Dm |" }));
    expect(result.problems).toHaveLength(1);
    const { chords } = firstOf(result.song.sections);
    expect(chords.map((c) => c.symbol)).toEqual(["C", "Am", "F", "G7", "Dm"]);
    expect(firstOf(chords).voicings?.keys?.pinned).toBe(true);
  });

  test("a change of meter shares the chords out anew and keeps notes in their bars, or says what is in the way", () => {
    const waltz = edit(song, { do: "setMeter", meter: "3/4" });
    expect(writeLine(firstOf(waltz.sections).chords, must(parseMeter("3/4")), 4)).toBe("| C | Am F | G7 | C |");
    const full = edit(song, {
      do: "addNote",
      section: "s1",
      part: "melody",
      note: { start: 1440, duration: 480, pitch: "C5", velocity: 80 },
    });
    expect(applyEdit(full, { do: "setMeter", meter: "3/4" })).toMatchObject({
      ok: false,
      error: { message: expect.stringContaining("a note or hit at bar 1, beat 4") },
    });
  });

  test("a moved note loses the reason and glide it was given", () => {
    const noted = edit(song, {
      do: "setNotes",
      section: "s1",
      part: "bass",
      notes: [
        {
          start: 0,
          duration: 480,
          pitch: "C2",
          velocity: 80,
          reason: { id: "rootOnKick" },
          slide: { kind: "glide", to: "G2" },
        },
      ],
    });
    const id = firstOf(sure(firstOf(noted.sections).notes.bass)).id;
    const change = (fields: object) =>
      firstOf(
        sure(
          firstOf(edit(noted, { do: "changeNotes", section: "s1", part: "bass", notes: [{ id, ...fields }] }).sections)
            .notes.bass,
        ),
      );
    expect(change({ velocity: 99 })).toMatchObject({
      reason: { id: "rootOnKick" },
      slide: { kind: "glide", to: "G2" },
    });
    expect(change({ pitch: "D2" })).not.toHaveProperty("reason");
  });
});

describe("realize", () => {
  test("form, transposition, pickups, offsets and tempo changes on one axis", () => {
    let song: Song = songWith({
      key: "C major",
      line: "| C | G7 |",
      melody: ["-0.5 G4 0.5", "0 C5 1"],
      bass: ["0.5 C2 0.5"],
    });
    song = edit(song, { do: "setSection", section: "s1", bars: 2 }, { do: "setSwing", ratio: 2 / 3, unit: 8 });
    song = {
      ...song,
      form: [
        { id: "o1", sectionId: "s1" },
        { id: "o2", sectionId: "s1", transpose: 3, bars: [1, 2] },
        { id: "o3", sectionId: "s1" },
      ],
      parts: song.parts.map((p) => (p.id === "bass" ? { ...p, offset: 7 } : p)),
    };
    const real = realize(song);
    expect(real.duration).toBe(5 * 1920);
    expect(real.chords.map((c) => [c.symbol, c.start / 1920])).toEqual([
      ["C", 0],
      ["G7", 1],
      ["Bb7", 2],
      ["C", 3],
      ["G7", 4],
    ]);
    // The pickup of the third pass reaches back into the second; the second, which begins in its own bar 2, has none.
    expect(sure(real.parts.find((p) => p.id === "melody")).notes.map((n) => n.start)).toEqual([
      -240,
      0,
      3 * 1920 - 240,
      3 * 1920,
    ]);
    expect(sure(real.parts.find((p) => p.id === "bass")).notes[0]).toMatchObject({
      start: 240,
      played: 327,
      playedEnd: 487,
    });
    for (const tick of [0, 1234, 5000, 9000]) expect(tickAt(real, secondsAt(real, tick))).toBeCloseTo(tick, 6);
  });
});
