import { firstOf, sure } from "../../src/base/list";
import { belowLimit, LOW_INTERVAL_LIMITS } from "../../src/theory/motion/motion";
import { chordPitchClasses, toneRole } from "../../src/theory/chord/chord";
import { INSTRUMENTS, instrumentOf } from "../../src/theory/instrument/instruments";
import { midiFrequency, pitchClass, pitchMidi } from "../../src/theory/pitch/pitch";
import { must } from "../../src/base/result";
import { parseChord } from "../../src/theory/chord/parse";
import { parseKey } from "../../src/theory/pitch/key";
import { spellAt } from "../../src/song/spell";
import { writtenPitch } from "../../src/files/notation/reading";
import { songWith } from "../helpers";

/**
 * Tables that are printed in handbooks, row by row; where no source is named, any handbook of theory or orchestration
 * has them (from memory).
 */

describe("the tones of chords, spelled (any harmony textbook; dictionaries of jazz harmony)", () => {
  const CHORDS: [string, string][] = [
    ["C", "C E G"],
    ["Cm", "C Eb G"],
    ["Cdim", "C Eb Gb"],
    ["Caug", "C E G#"],
    ["Csus4", "C F G"],
    ["Csus2", "C D G"],
    ["C6", "C E G A"],
    ["Cm6", "C Eb G A"],
    ["C7", "C E G Bb"],
    ["Cmaj7", "C E G B"],
    ["Cm7", "C Eb G Bb"],
    ["CmMaj7", "C Eb G B"],
    ["Cm7b5", "C Eb Gb Bb"],
    ["Cdim7", "C Eb Gb Bbb"],
    ["Cmaj7(#5)", "C E G# B"],
    ["C7sus4", "C F G Bb"],
    ["C9", "C E G Bb D"],
    ["Cmaj9", "C E G B D"],
    ["Cm9", "C Eb G Bb D"],
    ["C7(b9)", "C E G Bb Db"],
    ["C7(#9)", "C E G Bb D#"],
    ["C13", "C E G Bb D A"],
    ["Cmaj7(#11)", "C E G B F#"],
    ["C(add9)", "C E G D"],
    ["C6/9", "C E G A D"],
    ["Ebmaj7", "Eb G Bb D"],
    ["Abm", "Ab Cb Eb"],
    ["F#m7", "F# A C# E"],
    ["F#dim7", "F# A C Eb"],
    ["B7", "B D# F# A"],
    ["Db7", "Db F Ab Cb"],
    ["G#m7b5", "G# B D F#"],
    ["Gb", "Gb Bb Db"],
    ["E7(#9)", "E G# B D F##"],
    ["Bbm", "Bb Db F"],
    ["A7(b13)", "A C# E G F"],
  ];
  test.each(CHORDS)("%s is %s", (symbol, names) => {
    const chord = must(parseChord(symbol));
    expect(new Set(chordPitchClasses(chord))).toEqual(new Set(names.split(" ").map(pitchClass)));
    // Written under the chord, each is called by that name.
    const song = songWith({ line: `| ${symbol} |` });
    for (const name of names.split(" ")) {
      const spelled = spellAt(song, firstOf(song.sections), 0, 60 + pitchClass(name)).replace(/-?\d+$/, "");
      expect([symbol, spelled]).toEqual([symbol, name]);
    }
    expect(toneRole(chord, pitchClass(firstOf(names.split(" "))))).toEqual({ inChord: true, role: "R" });
  });
});

describe("signatures: sharps and flats of the minor keys", () => {
  test.each([
    ["A", 0],
    ["E", 1],
    ["B", 2],
    ["F#", 3],
    ["C#", 4],
    ["G#", 5],
    ["D#", 6],
    ["A#", 7],
    ["D", -1],
    ["G", -2],
    ["C", -3],
    ["F", -4],
    ["Bb", -5],
    ["Eb", -6],
    ["Ab", -7],
  ])("%s minor has %i", (tonic, signature) => {
    expect(must(parseKey(`${tonic} minor`)).signature).toBe(signature);
  });
});

describe("open strings and lowest notes (handbooks of orchestration)", () => {
  const strings = (id: string) => {
    const { held } = instrumentOf(id);
    return held.by === "frets" ? [...held.strings].sort((a, b) => pitchMidi(a) - pitchMidi(b)).join(" ") : "";
  };
  test("of fretted instruments", () => {
    expect([strings("guitar"), strings("bassGuitar"), strings("bassGuitar5"), strings("ukulele")]).toEqual([
      "E2 A2 D3 G3 B3 E4",
      "E1 A1 D2 G2",
      "B0 E1 A1 D2 G2",
      "C4 E4 G4 A4",
    ]);
  });

  test.each([
    ["violin", "G3"],
    ["viola", "C3"],
    ["cello", "C2"],
    ["flute", "C4"],
    ["clarinet", "D3"],
    ["altoSax", "Db3"],
    ["tenorSax", "Ab2"],
    ["trumpet", "E3"],
    ["trombone", "E2"],
    ["piano", "A0"],
    ["vibraphone", "F3"],
  ])("the %s begins at sounding %s", (id, lowest) => {
    expect(pitchMidi(instrumentOf(id).range[0])).toBe(pitchMidi(lowest));
  });

  test("choral ranges are those of four-part writing (Kostka & Payne, values from memory)", () => {
    for (const [id, range] of [
      ["soprano", "C4 G5"],
      ["alto", "F3 D5"],
      ["tenor", "C3 G4"],
      ["bassVoice", "E2 C4"],
    ] as const)
      expect(instrumentOf(id).range.join(" ")).toBe(range);
  });

  test("what is comfortable lies within what is possible, and is at least an octave", () => {
    for (const i of INSTRUMENTS) {
      const [low, high, from, to] = [...i.range, ...i.comfortable].map(pitchMidi);
      expect([
        i.id,
        sure(low) <= sure(from),
        sure(to) <= sure(high),
        sure(to) - sure(from) >= 12 || i.id === "drums",
      ]).toEqual([i.id, true, true, true]);
    }
  });

  test("players of transposing instruments read C4 as this", () => {
    for (const [id, written] of [
      ["clarinet", "D4"],
      ["trumpet", "D4"],
      ["altoSax", "A4"],
      ["tenorSax", "D5"],
      ["guitar", "C5"],
      ["doubleBass", "C5"],
      ["tenor", "C5"],
      ["flute", "C4"],
    ] as const)
      expect([id, writtenPitch("C4", 60, instrumentOf(id).transposition)]).toEqual([id, written]);
  });
});

describe("lowest places of intervals (arranging handbooks, which differ by a step)", () => {
  test.each([
    ["minor second", 1, "E3"],
    ["major second", 2, "Eb3"],
    ["minor third", 3, "C3"],
    ["major third", 4, "Bb2"],
    ["fourth", 5, "Bb2"],
    ["tritone", 6, "Bb2"],
    ["fifth", 7, "Bb1"],
    ["minor sixth", 8, "G2"],
    ["major sixth", 9, "F2"],
    ["minor seventh", 10, "F2"],
    ["major seventh", 11, "F2"],
    ["minor ninth", 13, "E2"],
    ["major ninth", 14, "Eb2"],
    ["minor tenth", 15, "C2"],
    ["major tenth", 16, "Bb1"],
  ])("a %s (%i semitones) stands on %s or higher", (_, semitones, lowest) => {
    const low = pitchMidi(lowest);
    expect(LOW_INTERVAL_LIMITS[semitones]).toBe(low);
    expect([
      belowLimit(low, low + semitones),
      belowLimit(low - 1, low - 1 + semitones),
      belowLimit(low + 1, low + 1 + semitones),
    ]).toEqual([0, 1, 0]);
  });

  test("octaves stand anywhere", () => {
    for (let low = 21; low < 60; low++) expect(belowLimit(low, low + 12)).toBe(0);
  });
});

test("frequencies (ISO 16:1975): a note twelve semitones higher is twice as high, A4 is 440 Hz", () => {
  const known: [string, number][] = [
    ["A4", 440],
    ["C4", 261.626],
    ["E1", 41.203],
    ["E2", 82.407],
    ["C8", 4186.009],
    ["A0", 27.5],
  ];
  for (const [name, hertz] of known) expect(midiFrequency(pitchMidi(name))).toBeCloseTo(hertz, 2);
  for (let m = 0; m < 116; m++) expect(midiFrequency(m + 12) / midiFrequency(m)).toBeCloseTo(2, 10);
});
