import { firstOf, lastOf, nth, sure } from "../../src/base/list";
import fc from "fast-check";
import { applyEdit } from "../../src/song/edits";
import { checkSong } from "../../src/judge/check/check";
import { countBeyond } from "../../src/song/beyond";
import { harmonyAt } from "../../src/hear/harmony/facts";
import { factsOf } from "../../src/facts/memory";
import { must } from "../../src/base/result";
import { parseSong, sectionMeter } from "../../src/song/document";
import { realize } from "../../src/song/realize";
import { voiceSection } from "../../src/arrange/voicing/section";
import { writeMidi } from "../../src/files/midi";
import type { Edit } from "../../src/song/edits/list";
import type { Section, Song } from "../../src/song/schema/song";
import { goldenSong, textOf, VERSION1 } from "../fixtures";
import { edit, songWith } from "../helpers";

const long = edit(
  songWith({
    line: "| C | Am | F | G | Em | A7 | Dm | G7 |",
    kicks: [0, 4, 8, 12, 16, 20, 24, 28].map((b) => [b, 100]),
    bass: [0, 4, 8, 12, 16, 20, 24, 28].map((b) => `${b} C2 3`),
  }),
  { do: "setAccents", section: "s1", accents: [0, 1920, 9600, 13440] },
);
const bars = (n: number): Edit => ({ do: "setSection", section: "s1", bars: n });
const section = (song: Song): Section => firstOf(song.sections);
const symbols = (song: Song) =>
  section(song)
    .chords.map((c) => c.symbol)
    .join(" ");

/** Everything of a section but the order in which empty things are written. */
const contents = ({ chords, notes, groove, bars: length }: Section) => ({
  length,
  chords,
  notes: Object.fromEntries(Object.entries(notes).filter(([, list]) => list.length)),
  hits: groove.lanes.flatMap((l) => l.hits.map((h) => [l.drum, h.start, h.velocity])).sort(),
  accents: groove.accents,
});

describe("a section that becomes shorter", () => {
  const short = edit(long, bars(4));

  test("holds nothing past its end", () => {
    expect(symbols(short)).toBe("C Am F G");
    expect([sure(section(short).notes.bass).length, firstOf(section(short).groove.lanes).hits.length]).toEqual([4, 4]);
    expect(section(short).groove.accents).toEqual([0, 1920]);
    expect(countBeyond(section(short))).toEqual({ chords: 4, notes: 4, hits: 4 });
    expect(countBeyond(section(long))).toEqual({ chords: 0, notes: 0, hits: 0 });
  });

  test("is judged, voiced, analyzed and written as if the rest were not there", () => {
    const only = edit(
      songWith({
        line: "| C | Am | F | G |",
        kicks: [0, 4, 8, 12].map((b) => [b, 100]),
        bass: [0, 4, 8, 12].map((b) => `${b} C2 3`),
      }),
      { do: "setAccents", section: "s1", accents: [0, 1920] },
    );
    const told = (song: Song) => checkSong(song).map((f) => [f.rule, f.where.tick, f.message]);
    expect(told(short)).toEqual(told(only));
    expect(must(voiceSection(short, "s1", "keys")).chords).toEqual(must(voiceSection(only, "s1", "keys")).chords);
    const report = (song: Song) =>
      factsOf(song)
        .get(harmonyAt, "s1")
        .chords.map((c) => c.roman);
    expect(report(short)).toEqual(report(only));
    expect(writeMidi(short, { swing: "played" })).toEqual(writeMidi(only, { swing: "played" }));
    expect(realize(short, {}).duration).toBe(4 * 1920);
  });

  test("has all back when it is as long again, chord for chord and hit for hit", () => {
    expect(contents(section(edit(short, bars(8))))).toEqual(contents(section(long)));
    expect(contents(section(edit(short, bars(2), bars(6), bars(3), bars(8))))).toEqual(contents(section(long)));
    expect(section(edit(short, bars(8))).beyond).toBeUndefined();
  });

  test("a chord that reaches over the end is cut, and whole again afterwards", () => {
    const held = edit(long, {
      do: "setChords",
      section: "s1",
      from: 3840,
      to: 11520,
      chords: [{ start: 3840, duration: 7680, symbol: "F" }],
    });
    const cut = edit(held, bars(3));
    expect(section(cut).chords.at(-1)).toMatchObject({ symbol: "F", start: 3840, duration: 1920 });
    expect(contents(section(edit(cut, bars(8))))).toEqual(contents(section(held)));
    // Renamed meanwhile, both halves stand, each with an id of its own.
    const renamed = edit(
      cut,
      { do: "setChord", section: "s1", chord: lastOf(section(cut).chords).id, symbol: "Fm" },
      bars(8),
    );
    expect(symbols(renamed)).toBe("C Am Fm F Dm G7");
    expect(new Set(section(renamed).chords.map((c) => c.id)).size).toBe(6);
  });

  test("what is written meanwhile stands before what comes back", () => {
    const other = edit(short, {
      do: "setNotes",
      section: "s1",
      part: "bass",
      notes: [{ start: 0, duration: 480, pitch: "A1", velocity: 80 }],
    });
    expect(sure(section(edit(other, bars(8))).notes.bass).map((n) => n.start)).toEqual([0, 7680, 9600, 11520, 13440]);
    const drums = edit(
      short,
      { do: "setDrums", section: "s1", lanes: [{ drum: "snare", hits: [{ start: 480, velocity: 90 }] }] },
      bars(8),
    );
    expect(section(drums).groove.lanes.map((l) => [l.drum, l.hits.length])).toEqual([
      ["snare", 1],
      ["kick", 4],
    ]);
  });

  test("a line that is longer brings back notes and hits, and stands for the chords that were there", () => {
    const written = edit(short, { do: "setLine", section: "s1", line: "| C | F | C | G | Bb | C |" });
    expect([symbols(written), section(written).bars]).toEqual(["C F C G Bb C", 6]);
    expect(section(written).notes.bass).toHaveLength(6);
    expect(countBeyond(section(written))).toEqual({ chords: 2, notes: 2, hits: 2 });
    expect(symbols(edit(written, bars(8)))).toBe("C F C G Bb C Dm G7");
  });

  test("a part that is removed or linked leaves nothing behind there", () => {
    const voiced = edit(edit(long, { do: "addPart", name: "Sub", role: "bass", instrument: "subBass" }), {
      do: "setNotes",
      section: "s1",
      part: "bass",
      notes: sure(section(long).notes.bass),
    });
    const gone = edit(voiced, bars(4), { do: "removePart", part: "bass" });
    expect(sure(section(gone).beyond).notes?.bass).toBeUndefined();
    expect(parseSong(JSON.stringify(gone)).ok).toBe(true);
    const linked = edit(long, bars(4), { do: "setLink", part: "bass", link: { kind: "pad", from: "keys" } });
    expect(sure(section(linked).beyond).notes?.bass).toBeUndefined();
    expect(section(edit(linked, bars(8))).notes.bass).toBeUndefined();
  });

  test("another meter and another spelling take what is kept along", () => {
    const notes = (["C2", "E2", "Gb2"] as const).map((pitch, i) => ({
      start: i * 3840,
      duration: 480,
      pitch,
      velocity: 80,
    }));
    const eight = edit(songWith({}), bars(8), { do: "setNotes", section: "s1", part: "bass", notes });
    const three = edit(eight, bars(4), { do: "setMeter", meter: "3/4" });
    expect(sure(section(edit(three, bars(8))).notes.bass).map((n) => [n.start, n.pitch])).toEqual([
      [0, "C2"],
      [2 * 1440, "E2"],
      [4 * 1440, "Gb2"],
    ]);
    const flat = edit(
      songWith({ key: "Gb major", line: "| Gb | Cb | Db | Gb |" }),
      bars(2),
      { do: "respell", key: "F# major" },
      bars(4),
    );
    expect(symbols(flat)).toBe("F# B C# F#");
  });

  test("a copy begins without it", () => {
    const copied = edit(short, { do: "addSection", name: "Again", bars: 4, copyOf: "s1" });
    expect([nth(copied.sections, 1).beyond, nth(copied.sections, 1).chords.length]).toEqual([undefined, 4]);
  });
});

test("any row of lengths ends as the last one alone, and the longest brings everything back", () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...VERSION1),
      fc.array(fc.integer({ min: 1, max: 40 }), { minLength: 1, maxLength: 6 }),
      (name, lengths) => {
        const song = goldenSong(name);
        const { id, bars: whole } = section(song);
        const through = lengths.reduce((s, n) => edit(s, { do: "setSection", section: id, bars: n }), song);
        expect(parseSong(JSON.stringify(through)).ok).toBe(true);
        const last = edit(song, { do: "setSection", section: id, bars: lastOf(lengths) });
        expect(contents(section(through))).toEqual(contents(section(last)));
        const end = lastOf(lengths) * sectionMeter(through, section(through)).bar;
        const starts = [
          ...section(through).chords.map((c) => c.start + c.duration - 1),
          ...Object.values(section(through).notes).flatMap((l) => l.map((n) => n.start)),
          ...section(through).groove.lanes.flatMap((l) => l.hits.map((h) => h.start)),
        ];
        expect(Math.max(-1, ...starts)).toBeLessThan(end);
        expect(contents(section(edit(through, { do: "setSection", section: id, bars: whole })))).toEqual(
          contents(section(song)),
        );
      },
    ),
    { numRuns: 60, seed: 7 },
  );
});

test("a file of version 1 with things past the end opens with them kept aside, and nothing is lost", () => {
  const document = JSON.parse(textOf("every-setting")) as {
    sections: { bars: number; notes: Record<string, { start: number }[]> }[];
  };
  const all = Object.values(firstOf(document.sections).notes).flat().length;
  firstOf(document.sections).bars = 2;
  const song = must(parseSong(document));
  const there = Object.values(section(song).notes).flat().length;
  expect(there).toBeLessThan(all);
  expect(there + countBeyond(section(song)).notes).toBe(all);
});

test("a refused length changes nothing", () => {
  for (const n of [0, -1, 0.5, 513]) expect(applyEdit(long, bars(n))).toMatchObject({ ok: false });
});
