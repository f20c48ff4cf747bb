import { firstOf, nth, sure } from "../../src/base/list";
import fc from "fast-check";
import { Chord as TonalChord, Note as TonalNote } from "tonal";
import { applyEdit } from "../../src/song/edits";
import { breathsOf } from "../../src/hear/singer/breaths";
import { byPower, fitKey, zoneOf } from "../../src/hear/singer/fit";
import { cautionFor } from "../../src/hear/singer/caution";
import { factsOf } from "../../src/facts/memory";
import { instrumentOf } from "../../src/theory/instrument/instruments";
import { must } from "../../src/base/result";
import { neckKey } from "../../src/hear/singer/shapes";
import { parsePitch, pitchMidi } from "../../src/theory/pitch/pitch";
import { realize } from "../../src/song/realize";
import { rewriteContour } from "../../src/hear/singer/contour";
import { singerPage } from "../../src/hear/singer/page";
import { singerRange, VOICES } from "../../src/hear/singer/range";
import { transposeSong } from "../../src/song/transposeSong";
import type { Edit } from "../../src/song/edits/list";
import type { Song } from "../../src/song/schema/song";
import { demoSongs } from "../demos";
import { edit, songWith } from "../helpers";

/** Demo songs with singers of their own: measured by hand, or by type of voice. */
const sung = (song: Song, voice: string, own: Partial<Extract<Edit, { do: "addSinger" }>> = {}): Song =>
  edit({ ...song, singers: [] }, { do: "addSinger", name: "Someone", voice, part: "melody", ...own });

describe("voices", () => {
  test("their ranges are those of a published handbook (Kostka & Payne, Tonal Harmony: soprano, alto, tenor, bass)", () => {
    const range = (id: string) => instrumentOf(id).range;
    expect([range("soprano"), range("alto"), range("tenor"), range("bassVoice")]).toEqual([
      ["C4", "G5"],
      ["F3", "D5"],
      ["C3", "G4"],
      ["E2", "C4"],
    ]);
    for (const v of VOICES) {
      const [[low, high], [easyLow, easyHigh]] = [v.range.map(pitchMidi), v.comfortable.map(pitchMidi)] as [
        [number, number],
        [number, number],
      ];
      expect([v.id, low <= easyLow, easyHigh <= high]).toEqual([v.id, true, true]);
    }
  });

  test("what is measured counts more than the type; a part has one singer", () => {
    const song = sung(firstOf(demoSongs()), "alto", { comfortable: ["G3", "E5"] });
    const range = singerRange(song, firstOf(song.singers));
    expect(range.comfortable).toEqual([pitchMidi("G3"), pitchMidi("E5")]);
    expect(range.extremes[1]).toBe(pitchMidi("E5"));
    const two = edit(song, { do: "addSinger", name: "Another", voice: "tenor", part: "melody" });
    expect(two.singers.map((s) => s.partId)).toEqual([undefined, "melody"]);
    const bare = edit(two, { do: "setSinger", singer: nth(two.singers, 1).id, part: null, name: "New name" });
    expect(bare.singers[1]).toEqual({ id: nth(two.singers, 1).id, name: "New name", voice: "tenor" });
    expect(edit(bare, { do: "removeSinger", singer: firstOf(bare.singers).id }).singers).toHaveLength(1);
    expect(applyEdit(song, { do: "setSinger", singer: "nobody", name: "x" }).ok).toBe(false);
    expect(applyEdit(song, { do: "setSinger", singer: firstOf(song.singers).id, comfortable: ["E5", "G3"] }).ok).toBe(
      false,
    );
  });
});

describe("keys", () => {
  /** Comfort and power of a shift, from the notes of the whole form, without anything the fitting uses. */
  function brute(song: Song, semitones: number): { comfort: number; power: number | null } {
    const real = realize(song);
    const each = song.singers.flatMap((singer) => {
      const notes = real.parts.find((p) => p.id === singer.partId)?.notes ?? [];
      if (!notes.length) return [];
      const voice = instrumentOf(singer.voice);
      const [low, high] = (singer.comfortable ?? voice.comfortable).map((p) => must(parsePitch(p))) as [number, number];
      const ends = (singer.extremes ?? voice.range).map((p) => must(parsePitch(p))) as [number, number];
      const [least, most] = singer.extremes ? ends : [Math.min(ends[0], low), Math.max(ends[1], high)];
      let [sum, all] = [0, 0];
      for (const n of notes) {
        const seconds = (n.duration / 480) * (60 / sure(real.sections.find((s) => s.pass === n.pass)).tempo);
        const m = n.midi + semitones;
        all += seconds;
        const comfort = () => {
          if (m < least || m > most) return -2;
          if (m < low || m > high) return 0.5;
          return 1;
        };
        sum += seconds * comfort();
      }
      // Peaks: the highest note of every phrase of the chorus, or of the section that lies highest.
      const named = new Set(song.sections.filter((s) => /chorus/i.test(s.name)).map((s) => s.id));
      const mean = (id: string) => {
        const own = notes.filter((n) => n.section === id);
        return own.reduce((t, n) => t + n.midi * n.duration, 0) / own.reduce((t, n) => t + n.duration, 0);
      };
      const ids = [...new Set(notes.map((n) => n.section))];
      const chorus = ids.some((id) => named.has(id))
        ? ids.filter((id) => named.has(id))
        : [firstOf(ids.sort((a, b) => mean(b) - mean(a)))];
      const peaks: number[] = [];
      let phrase: typeof notes = [];
      const close = () => phrase.length && peaks.push(Math.max(...phrase.map((n) => n.midi)));
      for (const n of notes.filter((x) => chorus.includes(x.section))) {
        const last = phrase.at(-1);
        const beat = firstOf(sure(real.sections.find((s) => s.pass === n.pass)).meter.beats).duration;
        if (last && (n.pass !== last.pass || n.start - (last.start + last.duration) >= beat)) {
          close();
          phrase = [];
        }
        phrase.push(n);
      }
      close();
      const third = (high - low) / 3;
      const worth = (p: number) =>
        p > high
          ? Math.max(0, 1 - (p - high) / Math.max(1, most - high + 1))
          : Math.max(0, 1 - Math.max(0, high - third - p) / Math.max(1, third));
      return [{ comfort: sum / all, power: peaks.reduce((t, p) => t + worth(p + semitones), 0) / peaks.length }];
    });
    return { comfort: Math.min(...each.map((e) => e.comfort)), power: Math.min(...each.map((e) => e.power)) };
  }

  test("comfort, power and the choice of way agree with brute force over all keys, for singers of every voice", () => {
    for (const [i, demo] of demoSongs().entries())
      for (const voice of VOICES.filter((_, k) => (k + i) % 2 === 0)) {
        const song =
          i % 2 ? sung(demo, voice.id) : sung(demo, voice.id, { comfortable: ["A3", "C5"], extremes: ["F3", "F5"] });
        const fits = fitKey(song);
        expect(new Set(fits.map((f) => ((f.semitones % 12) + 12) % 12)).size).toBe(12);
        for (const f of fits) {
          const own = brute(song, f.semitones);
          expect([voice.id, f.key, f.comfort.toFixed(9), f.power?.toFixed(9)]).toEqual([
            voice.id,
            f.key,
            own.comfort.toFixed(9),
            own.power?.toFixed(9),
          ]);
          // No other way to this key is more comfortable.
          for (const other of [f.semitones - 12, f.semitones + 12].filter((n) => Math.abs(n) <= 12))
            expect(brute(song, other).comfort).toBeLessThanOrEqual(f.comfort + 1e-9);
        }
        expect(fits.map((f) => f.comfort)).toEqual(fits.map((f) => f.comfort).sort((a, b) => b - a));
        expect(firstOf(byPower(fits)).power).toBe(Math.max(...fits.map((f) => sure(f.power))));
      }
  });

  test(
    "for several singers a key is as good as for the one it suits least; a song that is moved there measures " +
      "what was foretold",
    () => {
      const demo = firstOf(demoSongs());
      expect(demo.singers).toHaveLength(2);
      const fits = fitKey(demo);
      for (const f of fits) expect(f.comfort).toBeCloseTo(Math.min(...f.perSinger.map((p) => p.comfort)));
      for (const f of fits.slice(0, 4)) {
        if (!f.semitones) continue;
        const moved = edit(demo, must(transposeSong(demo, { key: f.key, semitones: f.semitones })).edit);
        const here = sure(fitKey(moved).find((k) => k.semitones === 0));
        expect([here.key, here.comfort.toFixed(6), here.perSinger.map((p) => [p.lowest, p.highest])]).toEqual([
          f.key,
          f.comfort.toFixed(6),
          f.perSinger.map((p) => [p.lowest, p.highest]),
        ]);
      }
      expect(fitKey({ ...demo, singers: [] })).toEqual([]);
    },
  );

  test("shapes under a capo sound the chords of the song, by another library; a capo of 0 needs none of it", () => {
    for (const song of demoSongs().slice(0, 3))
      for (const semitones of [0, 1, 3, -2, -5]) {
        const moved = semitones ? edit(song, must(transposeSong(song, { semitones })).edit) : song;
        const sounding = new Set(
          moved.sections.flatMap((s) =>
            s.chords.map(
              (c) =>
                TonalNote.chroma(TonalChord.get(firstOf(c.symbol.replace(/[(),].*$/, "").split("/"))).tonic ?? "") ??
                -1,
            ),
          ),
        );
        for (const instrument of ["guitar", "ukulele"] as const) {
          const neck = sure(neckKey(song, semitones, instrument));
          for (const symbol of neck.chords) {
            const root = sure(TonalNote.chroma(sure(/^[A-G](##|bb|#|b)?/.exec(symbol))[0]));
            expect(sounding).toContain((root + neck.capo) % 12);
          }
          expect(neck.capo).toBeLessThanOrEqual(7);
        }
      }
    // Rule of thumb: in E flat a guitarist takes shapes of D or C over a capo; in G none.
    const inKey = (key: string, line: string) => sure(neckKey(songWith({ key, line }), 0, "guitar"));
    expect(["D major", "C major", "G major", "A major"]).toContain(
      inKey("Eb major", "| Eb | Ab | Bb | Cm |").keyOfShapes,
    );
    expect(inKey("G major", "| G | C | D | Em |")).toMatchObject({ capo: 0, keyOfShapes: "G major" });
    expect(neckKey(songWith({}), 0, "guitar")).toBeNull();
  });
});

describe("a line outside its voice", () => {
  const tunes = fc.array(fc.integer({ min: 50, max: 84 }), { minLength: 2, maxLength: 14 });
  const names = ["C", "Db", "D", "Eb", "E", "F", "Gb", "G", "Ab", "A", "Bb", "B"];
  const withTune = (midis: readonly number[]) =>
    songWith({
      line: "| C | F | G | C |",
      melody: midis.map((m, i) => `${i} ${names[m % 12]}${Math.floor(m / 12) - 1} 1`),
    });

  test(
    "comes inside it: rhythm, words and pins stay, what was inside and need not move may stay, the shape is " +
      "counted right",
    () => {
      fc.assert(
        fc.property(tunes, (midis) => {
          const song = withTune(midis);
          const range: [number, number] = [57, 74];
          const found = must(rewriteContour(song, { section: "s1", part: "melody", range }));
          const outside = midis.some((m) => m < range[0] || m > range[1]);
          expect(found.length > 0).toBe(outside);
          for (const r of found) {
            const before = sure(firstOf(song.sections).notes.melody);
            expect(r.notes.map((n) => [n.id, n.start, n.duration, n.lyrics])).toEqual(
              before.map((n) => [n.id, n.start, n.duration, n.lyrics]),
            );
            const now = r.notes.map((n) => pitchMidi(n.pitch));
            for (const m of now) expect(m >= range[0] && m <= range[1]).toBe(true);
            expect(r.changed).toEqual(before.filter((n, i) => pitchMidi(n.pitch) !== now[i]).map((n) => n.id));
            const kept = midis
              .slice(1)
              .filter((m, i) => Math.sign(m - nth(midis, i)) === Math.sign(nth(now, i + 1) - nth(now, i))).length;
            expect(r.shape).toBeCloseTo(midis.length > 1 ? kept / (midis.length - 1) : 1);
          }
        }),
        { numRuns: 60, seed: 8 },
      );
    },
  );

  test("one low note under a line is lifted; a line that is inside is left alone; no room is refused", () => {
    const [r] = must(
      rewriteContour(withTune([60, 64, 67, 52, 60]), { section: "s1", part: "melody", range: [57, 74] }),
    );
    expect(sure(r).changed.length).toBeLessThanOrEqual(2);
    expect(sure(r).shape).toBe(1);
    expect(must(rewriteContour(withTune([60, 64]), { section: "s1", part: "melody", range: [57, 74] }))).toEqual([]);
    expect(rewriteContour(withTune([60]), { section: "s1", part: "melody", range: [60, 62] }).ok).toBe(false);
    expect(rewriteContour(withTune([60]), { section: "s1", part: "nobody" }).ok).toBe(false);
  });
});

describe("breaths", () => {
  /** Eighths without a rest, so many bars long, with words of two syllables. */
  const long = (bars: number, tempo: number): Song => {
    const notes = Array.from({ length: bars * 8 }, (_, i) => ({
      start: i * 240,
      duration: i % 8 === 7 ? 239 : 240,
      pitch: "C5",
      velocity: 80,
      lyrics: [i % 2 ? "ver" : "ri-"],
    }));
    const song = edit(
      songWith({ line: "| C |" }),
      { do: "setTempo", tempo },
      { do: "setSection", section: "s1", bars: Math.max(4, bars) },
    );
    return edit(song, { do: "setNotes", section: "s1", part: "melody", notes });
  };

  test("every stretch is one breath, no word is cut, and taking the breaths makes the rests", () => {
    for (const [bars, tempo] of [
      [4, 60],
      [8, 96],
      [16, 120],
    ] as const) {
      const song = long(bars, tempo);
      const [phrase] = must(breathsOf(song, { section: "s1", part: "melody" }));
      const seconds = (ticks: number) => (ticks / 480) * (60 / tempo);
      expect(sure(phrase).long).toBe(true);
      const ends = [0, ...sure(phrase).breaths.map((b) => b.tick), bars * 1920];
      ends.slice(1).forEach((t, i) => expect(seconds(t - nth(ends, i))).toBeLessThanOrEqual(8.01));
      // As few as will do.
      expect(sure(phrase).breaths.length).toBeLessThanOrEqual(2 * Math.ceil(sure(phrase).seconds / 8) - 1);
      const notes = sure(firstOf(song.sections).notes.melody);
      for (const b of sure(phrase).breaths)
        expect(sure(sure(notes.find((n) => n.id === b.note)).lyrics)[0]).toBe("ver");
      const taken = sure(phrase).breaths.reduce((s, b) => (b.edit ? edit(s, b.edit) : s), song);
      for (const b of sure(phrase).breaths) {
        const at = sure(firstOf(taken.sections).notes.melody).findIndex((n) => n.id === b.note);
        const [note, next] = sure(firstOf(taken.sections).notes.melody).slice(at, at + 2);
        expect(sure(next).start - (sure(note).start + sure(note).duration)).toBeGreaterThanOrEqual(120);
      }
    }
  });

  test("a singer's own breath counts; a phrase within it needs none", () => {
    const song = sung(long(4, 120), "mezzo", { breath: 4 });
    expect(firstOf(must(breathsOf(song, { section: "s1", part: "melody" }))).breaths.length).toBeGreaterThan(0);
    const deep = edit(song, { do: "setSinger", singer: firstOf(song.singers).id, breath: 12 });
    expect(must(breathsOf(deep, { section: "s1", part: "melody" }))[0]).toMatchObject({ long: false, breaths: [] });
    expect(breathsOf(song, { section: "s1", part: "nobody" }).ok).toBe(false);
  });
});

test("a word of caution where a part dwells high, none where it does not; zones are those of the ranges", () => {
  const high = sung(songWith({ melody: ["0 F5 8"] }), "mezzo");
  const easy = sung(songWith({ melody: ["0 E4 8"] }), "mezzo");
  const caution = (song: Song) => cautionFor(factsOf(song), firstOf(song.singers));
  expect(caution(high)).toMatch(/above the comfortable range.*voice professional/);
  expect(caution(easy)).toBeNull();
  expect(caution(sung(songWith({ melody: ["0 A5 1"] }), "mezzo"))).toMatch(/beyond the top/);
  const range = { comfortable: [60, 72] as [number, number], extremes: [57, 77] as [number, number] };
  expect([56, 57, 59, 60, 72, 73, 77, 78].map((m) => zoneOf(range, m))).toEqual([
    "below",
    "low",
    "low",
    "easy",
    "easy",
    "high",
    "high",
    "above",
  ]);
});

test("a page says who sings what where: entrances after rests, words by verse, breaths, symbols; no page without a part", () => {
  const demo = firstOf(demoSongs());
  const [orla, wren] = demo.singers;
  const page = must(singerPage(demo, sure(wren).id));
  expect(page.form).toEqual(demo.form.map((p) => sure(demo.sections.find((s) => s.id === p.sectionId)).name));
  const [verse, chorus] = page.sections;
  expect([sure(verse).sings, sure(verse).entrances, sure(chorus).sings, sure(chorus).tune]).toEqual([
    false,
    [],
    true,
    "melody",
  ]);
  expect(firstOf(sure(chorus).entrances).words).toBe("bar 1, beat 1: Ab4, a major third below Orla’s C5");
  expect(
    firstOf(sure(chorus).verses)
      .slice(0, 3)
      .map((w) => w.text),
  ).toEqual(["Bring", "the", "last"]);
  expect(sure(chorus).chords.map((c) => c.symbol)).toEqual(nth(demo.sections, 1).chords.map((c) => c.symbol));
  expect(must(singerPage(demo, sure(orla).id)).sections.every((s) => s.tune === null)).toBe(true);
  expect(singerPage(demo, "nobody").ok).toBe(false);
  expect(singerPage(edit(demo, { do: "setSinger", singer: sure(wren).id, part: null }), sure(wren).id).ok).toBe(false);
});
