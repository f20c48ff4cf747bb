import { firstOf, nth, sure } from "../../src/base/list";
import { analyzeSection } from "../../src/hear/harmony/analyze";
import { applyEdit } from "../../src/song/edits";
import { checkSong } from "../../src/judge/check/check";
import { follow } from "../../src/judge/follow/follow";
import { keyName, parseKey, transposeKey } from "../../src/theory/pitch/key";
import { must } from "../../src/base/result";
import { parseSong } from "../../src/song/document";
import { realize } from "../../src/song/realize";
import { transposeSong, waysTo } from "../../src/song/transposeSong";
import type { Edit } from "../../src/song/edits/list";
import type { Song } from "../../src/song/schema/song";
import { demoSongs } from "../demos";
import { edit, heldSong, songWith } from "../helpers";

const SONGS = demoSongs();
const moved = (song: Song, to: Parameters<typeof transposeSong>[1]): Song =>
  must(applyEdit(song, must(transposeSong(song, to)).edit)).song;
const INTERVALS = [-12, -7, -6, -5, -3, -2, -1, 1, 2, 3, 4, 5, 6, 7, 8, 11, 12];

test("from B flat to F both ways are offered, the nearer one first", () => {
  expect(waysTo("Bb major", "F major")).toEqual([-5, 7]);
  expect(waysTo("C minor", "Eb minor")).toEqual([3, -9]);
  expect(waysTo("C major", "C major")).toEqual([]);
  expect(must(transposeSong(songWith({ key: "Bb major", melody: ["0 D5 1"] }), { key: "F major" })).edit).toEqual({
    do: "transpose",
    key: "F major",
    semitones: -5,
  });
});

test.each(INTERVALS)("%i semitones there and back are the song as it was", (by) => {
  for (const song of SONGS) {
    if (Math.abs(by) > 11) {
      const there = must(applyEdit(song, { do: "transpose", key: song.key, semitones: by })).song;
      expect(must(applyEdit(there, { do: "transpose", key: song.key, semitones: -by })).song).toEqual(song);
      continue;
    }
    const there = moved(song, { semitones: by });
    expect(there.key).toBe(keyName(transposeKey(must(parseKey(song.key)), by)));
    expect(must(parseSong(JSON.parse(JSON.stringify(there))))).toEqual(there);
    const back = must(applyEdit(there, { do: "transpose", key: song.key, semitones: -by })).song;
    expect(back).toEqual(song);
  }
});

test("every note sounds that much higher, shapes in any octave of it; numerals, roles and what is found stay", () => {
  for (const song of SONGS)
    for (const by of [-4, 3, 5]) {
      const there = moved(song, { semitones: by });
      const [a, b] = [realize(song), realize(there)];
      a.parts.forEach((part, p) => {
        const steps = new Set(part.notes.map((n, i) => nth(nth(b.parts, p).notes, i).midi - n.midi));
        const shaped = song.sections.some((s) => s.chords.some((c) => c.voicings?.[part.id]?.shape));
        if (shaped) for (const s of steps) expect((((s - by) % 12) + 12) % 12).toBe(0);
        else if (!part.linked)
          expect([song.title, part.name, [...steps]]).toEqual([song.title, part.name, part.notes.length ? [by] : []]);
      });
      expect(a.hits.map((h) => h.midi && h.midi + by)).toEqual(b.hits.map((h) => h.midi));
      for (const section of song.sections) {
        const numerals = (s: Song) => analyzeSection(s, section.id).chords.map((c) => c.roman);
        expect(numerals(there)).toEqual(numerals(song));
      }
      // What is judged by intervals is judged as before; registers are others.
      const rules = (s: Song) =>
        checkSong(s)
          .filter((f) => /parallel|long-outside|uncovered|key/.test(f.rule))
          .map((f) => `${f.rule} ${f.where.tick}`);
      expect(rules(there)).toEqual(rules(song));
    }
});

test("the words of a chord as it was typed, readings, slides, tuned drums, reasons, takes and keys of sections go along", () => {
  let song = songWith({ key: "C major", line: "| CM7 | Dm7/G E7alt |", bass: ["0 C2 4"], melody: ["0 E4 1"] });
  song = edit(
    song,
    { do: "setReadings", section: "s1", chord: firstOf(firstOf(song.sections).chords).id, readings: ["Em/C"] } as Edit,
    {
      do: "setNotes",
      section: "s1",
      part: "bass",
      notes: [
        {
          start: 0,
          duration: 480,
          pitch: "C2",
          velocity: 90,
          slide: { kind: "glide", to: "G2" },
          reason: { id: "rootOnBeat", params: { pitch: "C", chord: "Cmaj7" } },
        },
      ],
    } as Edit,
    { do: "keepTake", section: "s1", part: "bass", name: "before" } as Edit,
  );
  song = { ...song, sections: [{ ...firstOf(song.sections), key: "A minor" }] };
  const there = moved(song, { key: "Eb major" });
  const [section] = there.sections;
  expect(sure(section).key).toBe("C minor");
  expect(sure(section).chords.map((c) => c.symbol)).toEqual(["Ebmaj7", "Fm7/Bb", expect.stringMatching(/^G7/)]);
  for (const c of sure(section).chords) if (c.written) expect(c.written).toMatch(/^(EbM7|Fm7\/Bb|G7alt)$/);
  expect(firstOf(sure(section).chords).readings).toEqual(["Gm/Eb"]);
  expect(sure(sure(section).notes.bass)[0]).toMatchObject({
    pitch: "Eb2",
    slide: { to: "Bb2" },
    reason: { params: { pitch: "Eb", chord: "Ebmaj7" } },
  });
  expect(firstOf(sure(sure(firstOf(there.takes).notes).bass)).pitch).toBe("Eb2");
});

test("shapes go with their capo: the same frets under the same fingers, and a capo that is too high is told", () => {
  const shaped = heldSong();
  const shapes = (s: Song) => firstOf(s.sections).chords.flatMap((c) => c.voicings?.keys?.shape ?? []);
  expect(shapes(shaped)).toHaveLength(1);
  for (const by of [2, -1]) {
    const there = moved(shaped, { semitones: by });
    expect(shapes(there)).toEqual(shapes(shaped).map((s) => ({ ...s, capo: s.capo + by })));
  }
  expect(must(transposeSong(shaped, { semitones: 8 })).left).toContainEqual({
    what: "Guitar: its shapes",
    why: expect.stringContaining("a capo in fret 10") as string,
  });
});

test("what falls out of an instrument is listed, what cannot be is refused, and nothing follows by itself", () => {
  const low = songWith({ key: "C major", line: "| C |", bass: ["0 E1 4"] });
  expect(must(transposeSong(low, { key: "A major" })).left).toEqual([
    { what: expect.stringMatching(/^Bass: 1 note$/), why: expect.stringContaining("below") },
  ]);
  expect(must(transposeSong(low, { key: "A major", semitones: 9 })).left).toEqual([]);
  const code = (e: Edit) => {
    const result = applyEdit(low, e);
    return result.ok ? "ok" : result.error.code;
  };
  expect(code({ do: "transpose", key: "G major", semitones: 5 })).toBe("edit.transpose");
  expect(code({ do: "transpose", key: "A minor", semitones: 9 })).toBe("edit.transpose");
  expect(transposeSong(low, { key: "C major" })).toMatchObject({ ok: false, error: { code: "transpose.same" } });
  expect(transposeSong(low, { key: "H major" }).ok).toBe(false);
  for (const song of SONGS)
    expect(follow(song, must(transposeSong(song, { semitones: 3 })).edit, { bass: true })).toEqual([]);
});
