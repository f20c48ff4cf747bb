import { firstOf, nth, sure } from "../../src/base/list";
import { analyzeProgression } from "../../src/hear/harmony/analyze";
import { chordSymbol } from "../../src/theory/chord/chord";
import { identifyChords } from "../../src/theory/chord/identify";
import { moveBySemitones } from "../../src/theory/chord/modify";
import { must } from "../../src/base/result";
import { parseChord } from "../../src/theory/chord/parse";
import { parseKey, rootInKey, transposeKey } from "../../src/theory/pitch/key";
import { pitchClass, pitchMidi } from "../../src/theory/pitch/pitch";
import { realize } from "../../src/song/realize";
import { soundingNames } from "../../src/hear/slice/slices";
import { spellAt } from "../../src/song/spell";
import { parseProgression } from "../../src/song/progression";
import type { Song } from "../../src/song/schema/song";
import { edit, songWith } from "../helpers";

const key = (text: string) => must(parseKey(text));

describe("roots outside the key are named by what they are there (common practice of chord symbols)", () => {
  /** Lowered second, third, fifth, sixth and seventh degree of major keys. */
  const LOWERED: [string, string][] = [
    ["C major", "Db Eb Gb Ab Bb"],
    ["G major", "Ab Bb Db Eb F"],
    ["D major", "Eb F Ab Bb C"],
    ["A major", "Bb C Eb F G"],
    ["E major", "F G Bb C D"],
    ["B major", "C D F G A"],
    ["F major", "Gb Ab B Db Eb"],
    ["Bb major", "B Db E Gb Ab"],
    ["Eb major", "E Gb A Cb Db"],
    ["Ab major", "A Cb D E Gb"],
    ["Db major", "D Fb G A Cb"],
  ];
  test.each(LOWERED)("in %s the lowered degrees are %s", (name, expected) => {
    const k = key(name);
    const tonic = firstOf(k.pcs);
    const names = [1, 3, 6, 8, 10].map((above) => rootInKey((tonic + above) % 12, k));
    const plain = (text: string) => text.split(" ").map(pitchClass).join();
    expect(plain(names.join(" "))).toBe(plain(expected));
    // A sharp never names a lowered degree; a flat that is hard to read gives way to the natural.
    expect(names.filter((n) => n.includes("#"))).toEqual([]);
    expect(names.join(" ")).toBe(expected);
  });

  test("diminished chords that lead up are raised degrees", () => {
    const raised = (name: string) =>
      [1, 3, 6, 8, 10].map((above) => rootInKey((firstOf(key(name).pcs) + above) % 12, key(name), true));
    expect(raised("C major")).toEqual(["C#", "D#", "F#", "G#", "A#"]);
    expect(raised("F major")).toEqual(["F#", "G#", "B", "C#", "D#"]);
    expect(raised("Eb major")).toEqual(["E", "F#", "A", "B", "C#"]);
  });

  test("the names of the scale are the key's own, in every key and mode", () => {
    for (const tonic of ["C", "G", "D", "A", "E", "B", "F#", "Db", "Ab", "Eb", "Bb", "F"])
      for (const mode of ["major", "minor", "dorian", "mixolydian", "lydian", "phrygian"]) {
        const k = parseKey(`${tonic} ${mode}`);
        if (!k.ok) continue;
        expect([k.value.tonic, mode, k.value.pcs.map((pc) => rootInKey(pc, k.value))]).toEqual([
          k.value.tonic,
          mode,
          k.value.scale,
        ]);
      }
  });

  test("no name has more than one accidental, and every one sounds as it should", () => {
    for (const tonic of ["C", "G", "D", "A", "E", "B", "F#", "Gb", "Db", "Ab", "Eb", "Bb", "F"])
      for (let pc = 0; pc < 12; pc++)
        for (const leads of [false, true]) {
          const name = rootInKey(pc, key(`${tonic} major`), leads);
          expect([name, pitchClass(name)]).toEqual([name, pc]);
          expect(name).toMatch(/^[A-G][b#]?$/);
        }
  });
});

describe("chords that are found by ear, by hand or by fingers", () => {
  const named = (pitches: string, inKey: string) =>
    firstOf(identifyChords({ pitches: pitches.split(" "), key: inKey })).symbol;

  test.each([
    ["G#3 C4 D#4", "C major", "G#"],
    ["Ab3 C4 Eb4", "C major", "Ab"],
  ])("%s in %s keeps the names it was given: %s", (pitches, inKey, symbol) => {
    expect(named(pitches, inKey)).toBe(symbol);
  });

  test("keys, frets and MIDI give sounds, not names: the chord is spelled by what it is in the key", () => {
    const heard = (pitches: string, inKey: string) =>
      firstOf(identifyChords({ pitches: pitches.split(" "), key: inKey, soundsOnly: true })).symbol;
    expect([heard("G#3 C4 D#4", "C major"), heard("A#3 D4 F4", "C major"), heard("D#3 G3 A#3", "C major")]).toEqual([
      "Ab",
      "Bb",
      "Eb",
    ]);
    expect([heard("A#3 D4 F4", "D major"), heard("G#2 C3 D#3 F#3", "Eb major")]).toEqual(["Bb", "Ab7"]);
    expect([heard("F#3 A3 C4 D#4", "C major"), heard("G#3 B3 D4 F4", "A minor")]).toEqual(["F#dim7", "G#dim7"]);
    expect([heard("C#2 D#3 G3 A#3", "Eb major"), heard("F#2 D3 A3", "D major")]).toEqual(["Eb7/Db", "D/F#"]);
  });

  test("a chord is moved by semitones to what it is there, up or down alike", () => {
    const moved = (symbol: string, by: number, inKey: string) =>
      chordSymbol(moveBySemitones(must(parseChord(symbol)), by, key(inKey)));
    expect([moved("G", 1, "C major"), moved("A", -1, "C major")]).toEqual(["Ab", "Ab"]);
    expect([moved("Dm7", 1, "C major"), moved("Em7", -1, "C major")]).toEqual(["Ebm7", "Ebm7"]);
    expect([moved("A", 1, "D major"), moved("E7", 1, "A major")]).toEqual(["Bb", "F7"]);
    expect(moved("Fdim7", 1, "C major")).toBe("F#dim7");
    expect(moved("Cdim7", 1, "C major")).toBe("C#dim7");
    // The bass is named as the chord names its tone.
    expect([moved("D7/C", 1, "Eb major"), moved("G/B", 1, "C major"), moved("C/E", -1, "E major")]).toEqual([
      "Eb7/Db",
      "Ab/C",
      "B/D#",
    ]);
  });

  test("what such a chord is called agrees with its numeral", () => {
    for (const [symbol, roman] of [
      ["Ab", "bVI"],
      ["Bb7", "bVII7"],
      ["Eb", "bIII"],
      ["Db/F", "bII6"],
    ] as const) {
      const read = parseProgression(`| C | ${symbol} | C |`, { key: "C major", meter: "4/4" });
      expect(nth(analyzeProgression(read.events, "C major"), 1).roman).toBe(roman);
    }
  });
});

test("a bass under a chord is named as the chord names its tone, whatever it was typed as", () => {
  const song = songWith({ key: "Eb major", line: "| Eb7 | Ab |", bass: ["0 C#2 4", "4 B#1 4"] });
  const real = realize(song, { section: "s1" });
  expect([...soundingNames(real).values()]).toEqual(["Eb7/Db", "Ab/C"]);
});

test("a note is written as its chord spells it, otherwise as the key does", () => {
  const song = songWith({ key: "C major", line: "| Ab7 | E7 | C |" });
  const spelled = (bar: number, midi: number) => spellAt(song, firstOf(song.sections), bar * 1920, midi);
  expect([spelled(0, 68), spelled(0, 66), spelled(0, 63)]).toEqual(["Ab4", "Gb4", "Eb4"]);
  expect([spelled(1, 68), spelled(1, 59), spelled(1, 62)]).toEqual(["G#4", "B3", "D4"]);
  expect([spelled(2, 66), spelled(2, 70)]).toEqual(["F#4", "Bb4"]);
});

describe("a pass that is transposed", () => {
  const base = songWith({
    key: "C major",
    line: "| C | Ab | Fm6 | G7(b9)/B |",
    bass: ["0 C2 4", "4 Ab1 4", "8 F2 4", "12 B1 4"],
  });
  const passed = (transpose: number): Song => ({ ...base, form: [{ id: "o1", sectionId: "s1", transpose }] });

  test("names go as many letters as the keys are apart: ♭VI stays ♭VI", () => {
    const symbols = (by: number) =>
      realize(passed(by), {})
        .chords.map((c) => c.symbol)
        .join(" ");
    expect(symbols(2)).toBe("D Bb Gm6 A7(b9)/C#");
    expect(symbols(-3)).toBe("A F Dm6 E7(b9)/G#");
    expect(symbols(5)).toBe("F Db Bbm6 C7(b9)/E");
    expect(symbols(3)).toBe("Eb Cb Abm6 Bb7(b9)/D");
  });

  test("at every distance chords and notes sound as far away as they should, with at most one accidental", () => {
    const home = realize(passed(0), {});
    for (let by = -11; by <= 11; by++) {
      const there = realize(passed(by), {});
      there.chords.forEach((c, i) => {
        expect([by, pitchClass(sure(c.chord).root)]).toEqual([
          by,
          (pitchClass(sure(nth(home.chords, i).chord).root) + by + 24) % 12,
        ]);
        expect(c.symbol).not.toMatch(/^[A-G](bb|##)/);
      });
      const bass = (real: typeof there) => sure(real.parts.find((p) => p.id === "bass")).notes;
      bass(there).forEach((n, i) => {
        expect([by, n.midi, pitchMidi(n.pitch)]).toEqual([by, nth(bass(home), i).midi + by, n.midi]);
      });
      expect(firstOf(there.sections).key.tonic).toBe(transposeKey(key("C major"), by).tonic);
    }
  });
});

test("a chord that was typed with a sharp stays as it was typed", () => {
  const song = edit(songWith({ key: "C major" }), { do: "setLine", section: "s1", line: "| C | G#7 | G7 |" });
  expect(firstOf(song.sections).chords.map((c) => c.symbol)).toEqual(["C", "G#7", "G7"]);
});
