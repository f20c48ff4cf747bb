import { firstOf, nth, sure } from "../../src/base/list";
import fc from "fast-check";
import { Key as TonalKey } from "tonal";
import {
  bendTone,
  COLORS,
  hasColor,
  moveBySemitones,
  moveInScale,
  toggleColor,
  withBass,
  type Color,
} from "../../src/theory/chord/modify";
import { parseChord } from "../../src/theory/chord/parse";
import { chordOfTones } from "../../src/theory/chord/ofTones";
import { chordPitchClasses, chordSymbol } from "../../src/theory/chord/chord";
import { diatonicChord, parseNumeral, readNumerals, romanOf } from "../../src/theory/chord/numerals";
import { must } from "../../src/base/result";
import { parseKey } from "../../src/theory/pitch/key";
import { parseMeter } from "../../src/theory/time/meter";

const key = (text: string) => must(parseKey(text));
const chord = (text: string) => must(parseChord(text));
const line = (text: string, inKey = "C major") =>
  readNumerals(text, key(inKey), must(parseMeter("4/4")))
    .chords.map((c) => c.symbol)
    .join(" ");

describe("Roman numerals and degrees", () => {
  test.each([
    ["6 4 1 5", "C major", "Am F C G"],
    ["6 4 1 5", "Eb major", "Cm Ab Eb Bb"],
    ["ii7 V7/V V7 Imaj7", "C major", "Dm7 D7 G7 Cmaj7"],
    ["| i iv6 | V65 VI | VII viiø7 | vii°7 |", "A minor", "Am Dm/F E7/G# F G G#m7b5 G#dim7"],
    ["i bVI bVII v", "A minor", "Am F G Em"],
    ["I IV/5 V42 I64", "C major", "C F/G G7/F C/G"],
    ["N6 V7 i", "C minor", "Db/F G7 Cm"],
    ["It6 Ger6 Fr6", "C major", "Ab7(no5) Ab7 Ab7(b5)"],
    ["1 27 57 17 19", "C major", "C Dm7 G7 Cmaj7 Cmaj9"],
    ["i7 IV7", "D dorian", "Dm7 G7"],
    ["I bVII IV", "G mixolydian", "G F C"],
    ["V7/ii ii7 bII7 Imaj9", "F major", "D7 Gm7 Gb7 Fmaj9"],
    ["ii5 V5 i5", "C major", "D5 G5 C5"],
    ["I6/9 V9sus4 iimaj7", "C major", "C6/9 G9sus4 DmMaj7"],
  ])("%s in %s", (text, inKey, expected) => expect(line(text, inKey)).toBe(expected));

  test.each([
    ["V7/Q", "numeral.unknown", 4],
    ["Q", "numeral.unknown", 1],
    ["iixyz", "numeral.quality", 3],
  ])("%s is refused at its column", (text, code, position) => {
    expect(parseNumeral(text, key("C major"))).toMatchObject({ ok: false, error: { code, position } });
  });

  test("a bad numeral in a line is named at its column and nothing else is lost from the report", () => {
    const read = readNumerals("| ii7 | Q V |", key("C major"), must(parseMeter("4/4")));
    expect(read.problems).toMatchObject([{ code: "numeral.unknown", position: 9 }]);
  });

  test("the root under another name in the bass is no inversion", () => {
    expect(romanOf(chord("F#7/Gb"), key("Gb major"))).toBe("I7");
    expect(romanOf(chord("D#maj7/Eb"), key("C major"))).toMatch(/maj7$/);
  });

  test("numerals written for a chord read back as the chord, in every key and mode", () => {
    const keys = fc.constantFrom(
      "C major",
      "Eb major",
      "F# major",
      "A minor",
      "C minor",
      "D dorian",
      "G mixolydian",
      "F lydian",
    );
    const quality = fc.constantFrom(
      "",
      "m",
      "7",
      "maj7",
      "m7",
      "m7b5",
      "dim",
      "dim7",
      "aug",
      "9",
      "m9",
      "maj9",
      "mMaj7",
      "6",
      "m6",
      "6/9",
      "7(b9)",
    );
    fc.assert(
      fc.property(
        keys,
        fc.integer({ min: 0, max: 6 }),
        quality,
        fc.constantFrom(0, 3, 5, 7),
        (name, step, q, bassDegree) => {
          const k = key(name);
          const plain = chord(nth(k.scale, step) + q);
          const tone = plain.tones.find((t) => t.degree === bassDegree);
          const c = tone ? withBass(plain, diatonicName(plain, tone.degree)) : plain;
          const back = must(parseNumeral(romanOf(c, k), k));
          expect([romanOf(c, k), chordPitchClasses(back).sort(), back.bass]).toEqual([
            romanOf(c, k),
            chordPitchClasses(c).sort(),
            c.bass,
          ]);
        },
      ),
      { seed: 5, numRuns: 400 },
    );
  });
  const diatonicName = (c: ReturnType<typeof chord>, degree: number): string => {
    const bent = sure(c.tones.find((t) => t.degree === degree));
    const root = c.root;
    return must(parseChord(`${root}${c.quality}`)).tones.includes(bent) || bent
      ? noteAt(root, bent.degree, bent.semitones)
      : root;
  };
  const noteAt = (root: string, degree: number, semitones: number): string => {
    const letters = "CDEFGAB";
    const base = letters.indexOf(sure(root[0]));
    const letter = nth(letters, (base + degree - 1) % 7);
    const pc = (firstOf(chordPitchClasses(chord(`${root}5`))) + semitones) % 12;
    const natural = nth([0, 2, 4, 5, 7, 9, 11], letters.indexOf(letter));
    const alter = ((pc - natural + 18) % 12) - 6;
    return letter + (alter < 0 ? "b".repeat(-alter) : "#".repeat(alter));
  };

  test("the key's own chords agree with an independent library (`tonal`)", () => {
    for (const tonic of ["C", "G", "Eb", "F#", "Db"]) {
      const theirs = TonalKey.majorKey(tonic);
      for (let step = 0; step < 7; step++) {
        expect(diatonicChord(key(`${tonic} major`), step, 4)).toBe(chordSymbol(chord(nth(theirs.chords, step))));
        expect(diatonicChord(key(`${tonic} major`), step, 3)).toBe(chordSymbol(chord(nth(theirs.triads, step))));
      }
      const minor = TonalKey.minorKey(tonic === "Db" ? "D" : tonic).natural;
      for (let step = 0; step < 7; step++)
        expect(diatonicChord(key(`${tonic === "Db" ? "D" : tonic} minor`), step, 4)).toBe(
          chordSymbol(chord(nth(minor.chords, step))),
        );
    }
  });
});

describe("changing a chord where it stands", () => {
  const C = key("C major");
  test.each<[string, Color, string]>([
    ["C", "seventh", "Cmaj7"],
    ["G", "seventh", "G7"],
    ["Bdim", "seventh", "Bm7b5"],
    ["Dm7", "ninth", "Dm9"],
    ["C", "ninth", "C(add9)"],
    ["G7", "thirteenth", "G13"],
    ["C", "sixth", "C6"],
    ["Cmaj7", "sixth", "C6"],
    ["G7", "sus4", "G7sus4"],
    ["Dm", "sus2", "Dsus2"],
    ["C", "third", "C5"],
    ["Cmaj7", "third", "Cmaj7(no3)"],
    ["G9", "seventh", "G(add9)"],
    ["E7", "ninth", "E7(b9)"],
  ])("%s with %s switched: %s", (from, color, to) => {
    const next = toggleColor(chord(from), color, C);
    expect(chordSymbol(next)).toBe(to);
    expect(hasColor(next, color)).toBe(!hasColor(chord(from), color));
  });

  test("a color switched on and off leaves a plain chord as it was", () => {
    for (const symbol of ["C", "Dm", "Em", "F", "G", "Am", "Cm", "Ab"])
      for (const color of COLORS) {
        if (color === "third" || color === "thirteenth") continue;
        expect([
          symbol,
          color,
          chordSymbol(toggleColor(toggleColor(chord(symbol), color, C), color, parallel(symbol))),
        ]).toEqual([symbol, color, symbol]);
      }
  });
  // Taking a suspension away brings back the key's third: judged in a key that has the chord.
  const parallel = (symbol: string) => (symbol === "Cm" || symbol === "Ab" ? key("C minor") : C);

  test.each([
    ["Am7", 1, 1, "A7", "C#", "3"],
    ["Dm7", 1, 1, "D7", "F#", "3"],
    ["Cmaj7", 3, -1, "C7", "Bb", "b7"],
    ["C", 2, 1, "Caug", "G#", "#5"],
    ["C", 1, -1, "Cm", "Eb", "b3"],
    ["C", 0, 1, "C#dim", "C#", "R"],
    ["C7(b9)", 1, -1, "Cm7(b9)", "Eb", "b3"],
  ] as const)("%s, tone %i bent by %i: %s", (...[from, index, direction, to, note, role]) => {
    expect(bendTone(chord(from), index, direction, C)).toMatchObject({ symbol: to, to: { note, role } });
  });

  test("along the scale the quality follows, by semitones it stays", () => {
    expect(["Cmaj7", "Dm7", "G7", "Csus4"].map((s) => chordSymbol(moveInScale(chord(s), 1, C)))).toEqual([
      "Dm7",
      "Em7",
      "Am7",
      "Dsus4",
    ]);
    expect(["Cmaj7", "D7", "Am/E"].map((s) => chordSymbol(moveBySemitones(chord(s), 1, C)))).toEqual([
      "Dbmaj7",
      "Eb7",
      "Bbm/F",
    ]);
    expect(chordSymbol(moveInScale(chord("C"), 7, C))).toBe("C");
  });

  test("a chord is named anew from its own tones", () => {
    for (const symbol of [
      "C13",
      "Cm11",
      "Cmaj9",
      "C7(b9,#11)",
      "C6/9",
      "C9sus4",
      "Cm7b5",
      "Cdim7",
      "C(add9)",
      "Cmaj7(no3)",
    ])
      expect(chordSymbol(chordOfTones("C", chord(symbol).tones))).toBe(symbol);
  });
});

test("a root keeps its name in a key without a signature, and takes the key's own among flats or sharps", () => {
  const roman = (symbol: string, key: string) => romanOf(must(parseChord(symbol)), must(parseKey(key)));
  expect([roman("A#", "C major"), roman("Bb", "C major")]).toEqual(["#VI", "bVII"]);
  expect([roman("D#", "F major"), roman("Gb", "G major")]).toEqual(["bVII", "VII"]);
});
