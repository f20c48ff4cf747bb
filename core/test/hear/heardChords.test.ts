import { firstOf, nth } from "../../src/base/list";
import fc from "fast-check";
import { chordPitchClasses, chordSymbol } from "../../src/theory/chord/chord";
import { identifyChords, type Reading } from "../../src/theory/chord/identify";
import { must } from "../../src/base/result";
import { parseChord } from "../../src/theory/chord/parse";
import { parseKey, rootInKey } from "../../src/theory/pitch/key";
import { pitchName } from "../../src/theory/pitch/pitch";

/** Plain sharps, as a keyboard would name its keys: the names say nothing. */
const KEYS = ["C", "C#", "D", "D#", "E", "F", "F#", "G", "G#", "A", "A#", "B"];
const MAJORS = ["C", "G", "D", "A", "E", "B", "F", "Bb", "Eb", "Ab", "Db"];

/** Qualities whose notes have one usual name when the root is the lowest (dictionaries of chords, from memory). */
const OWN_NAME = [
  "",
  "m",
  "7",
  "maj7",
  "m7",
  "m7b5",
  "dim7",
  "sus4",
  "9",
  "maj9",
  "m9",
  "7(b9)",
  "mMaj7",
  "maj7(#11)",
  "13",
];

/** A chord in close position from its root, in the octave from C3. */
function played(symbol: string): string[] {
  const chord = must(parseChord(symbol));
  const root = 48 + (chordPitchClasses(chord)[0] ?? 0);
  return chord.tones
    .map((t) => root + t.semitones)
    .sort((a, b) => a - b)
    .map((midi) => pitchName(midi, nth(KEYS, midi % 12)));
}
const heard = (pitches: readonly string[], key: string): Reading[] =>
  identifyChords({ pitches, key, soundsOnly: true });
const sounds = (symbol: string): string =>
  [...chordPitchClasses(must(parseChord(symbol)))].sort((a, b) => a - b).join();

describe.each(MAJORS)("chords that are played, heard in %s major", (tonic) => {
  const key = `${tonic} major`;
  const parsed = must(parseKey(key));

  test.each(OWN_NAME)("on every root: %s is called after its lowest note, spelled as it is there", (quality) => {
    for (let pc = 0; pc < 12; pc++) {
      const leads = quality === "m7b5" || quality === "dim7";
      const symbol = chordSymbol(must(parseChord(rootInKey(pc, parsed, leads) + quality)));
      const readings = heard(played(symbol), key);
      const first = [firstOf(readings).symbol, ...firstOf(readings).equals];
      // A ninth and its like may be heard first as an inversion of something plainer: it is among the first then.
      const among = [...first, ...readings.slice(0, 3).map((r) => r.symbol)];
      expect([key, symbol, among.includes(symbol), among]).toEqual([key, symbol, true, among]);
    }
  });

  test("the fourth and fifth degree are the key's own, and no name has two accidentals", () => {
    for (const degree of [0, 3, 4]) {
      const root = nth(parsed.scale, degree);
      expect(firstOf(heard(played(root), key)).symbol).toBe(root);
    }
    for (let pc = 0; pc < 12; pc++)
      for (const reading of heard(played(nth(KEYS, pc) + "7"), key))
        expect(reading.symbol).toMatch(/^[A-G][b#]?(?![b#])/);
  });
});

test("whatever is played: every reading sounds like it, and the shares of certainty are shares", () => {
  const notes = fc.uniqueArray(fc.integer({ min: 40, max: 84 }), {
    minLength: 2,
    maxLength: 6,
    selector: (m) => m % 12,
  });
  fc.assert(
    fc.property(notes, fc.constantFrom(...MAJORS), (midis, tonic) => {
      const pitches = [...midis].sort((a, b) => a - b).map((m) => pitchName(m, nth(KEYS, m % 12)));
      const readings = heard(pitches, `${tonic} major`);
      const given = new Set(midis.map((m) => m % 12));
      let sum = 0;
      for (const r of readings) {
        sum += r.score;
        expect(r.score).toBeGreaterThanOrEqual(0);
        const chord = must(parseChord(r.symbol));
        const named = new Set(chordPitchClasses(chord));
        // Each note is in the chord that is named, or is its bass; what the chord has beyond them is said to be
        // missing.
        for (const pc of given) expect([r.symbol, named.has(pc) || chord.bass !== undefined]).toEqual([r.symbol, true]);
        const beyond = [...named].filter((pc) => !given.has(pc));
        expect([r.symbol, beyond.length <= r.omitted.length + Number(r.rootless)]).toEqual([r.symbol, true]);
      }
      expect(sum).toBeLessThanOrEqual(1 + 1e-9);
    }),
    { numRuns: 160, seed: 3 },
  );
});

test("names given by hand count, names of keys do not", () => {
  const given = (soundsOnly: boolean) =>
    firstOf(identifyChords({ pitches: ["G#3", "C4", "D#4"], key: "C major", soundsOnly })).symbol;
  expect([given(false), given(true)]).toEqual(["G#", "Ab"]);
  expect(sounds("G#")).toBe(sounds("Ab"));
});
