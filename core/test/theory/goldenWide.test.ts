import { must } from "../../src/base/result";
import { chordPitchClasses, rootPc } from "../../src/theory/chord/chord";
import { chordReadings } from "../../src/theory/chord/identify";
import { bendTone, COLORS, moveBySemitones, moveInScale, toggleColor } from "../../src/theory/chord/modify";
import { romanOf } from "../../src/theory/chord/numerals";
import { parseChord } from "../../src/theory/chord/parse";
import { findShapes, shapeOf } from "../../src/theory/instrument/fretboard";
import { INSTRUMENTS } from "../../src/theory/instrument/instruments";
import { neckOf } from "../../src/theory/instrument/neck";
import { parseKey } from "../../src/theory/pitch/key";
import { expectKept, markOf } from "../kept";

const CHORDS = "C Gm D7 Amaj7 Em7b5 Bbdim7 F#m9 Abadd9 Eb13 Db7(#9) Bsus4 F/A G/B C/Bb Am6 E+ D5 Fmaj9(#11)".split(" ");
const KEYS = ["C major", "G minor", "Db major", "E minor", "F# major", "Bb minor"].map((k) => must(parseKey(k)));

test("hands on every neck: shapes of eighteen chords, with and without a capo, and the easiest for what they sound", () => {
  const found: Record<string, string[]> = {};
  for (const instrument of INSTRUMENTS)
    for (const capo of [0, 3]) {
      const neck = neckOf(instrument, capo);
      if (!neck) continue;
      found[`${instrument.id}, capo ${capo}`] = CHORDS.map((symbol) => {
        const chord = must(parseChord(symbol));
        const shapes = findShapes(neck, chordPitchClasses(chord), [rootPc(chord)]);
        const easiest = shapes.slice(0, 5).map((s) => shapeOf(neck, s.pitches));
        return `${symbol} ${shapes.length} ${markOf(shapes)} ${markOf(easiest)}`;
      });
    }
  expectKept("shapesWide", found);
});

test("chords bent, colored and moved in six keys, and what they are there", () => {
  const found: Record<string, string[]> = {};
  for (const symbol of CHORDS) {
    const chord = must(parseChord(symbol));
    found[symbol] = KEYS.map((key) =>
      markOf([
        romanOf(chord, key),
        COLORS.map((color) => toggleColor(chord, color, key)),
        [-2, -1, 1, 2].map((by) => [moveInScale(chord, by, key), moveBySemitones(chord, by, key)]),
        chord.tones.map((_, i) => ([-1, 1] as const).map((by) => bendTone(chord, i, by, key))),
      ]),
    );
  }
  expectKept("modifyWide", found);
});

test("sets of two to five notes on every root, in three keys: names, certainty, what is left out", () => {
  const found: Record<string, string[]> = {};
  const names = ["C", "Db", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"];
  names.forEach((low, r) => {
    const sets = [
      [7],
      [4, 10],
      [3, 6, 10],
      [2, 7],
      [4, 8, 11],
      [5, 10, 15],
      [4, 7, 9, 14],
      [3, 7, 10, 14],
      [4, 10, 13, 21],
    ];
    found[low] = sets.map((set) => {
      const pitches = [0, ...set].map((by) => `${names[(r + by) % 12]}${3 + Math.floor((r + by) / 12)}`);
      return markOf(["C major", "F minor", "A major"].map((key) => chordReadings({ pitches, key })));
    });
  });
  expectKept("identifyWide", found);
});
