import { firstOf, nth } from "../../src/base/list";
import { intervalWords } from "../../src/theory/pitch/interval";
import fc from "fast-check";
import { Note, Scale } from "tonal";
import { keyName, MODES, nameInKey, parseKey, scaleStep, transposeKey, type Mode } from "../../src/theory/pitch/key";
import { must } from "../../src/base/result";
import {
  parseNote,
  parsePitch,
  pitchMidi,
  pitchName,
  spoken,
  transposeNote,
  typesetNames,
} from "../../src/theory/pitch/pitch";

const TONICS = ["Cb", "Gb", "Db", "Ab", "Eb", "Bb", "F", "C", "G", "D", "A", "E", "B", "F#", "C#"];

describe("keys against an independent dictionary (tonal)", () => {
  test.each(Object.keys(MODES))(
    "%s on every tonic: the same seven spelled notes, or refused for more than seven accidentals",
    (mode) => {
      for (const tonic of TONICS) {
        const ours = parseKey(`${tonic} ${mode}`);
        const theirs = Scale.get(`${tonic} ${mode}`).notes;
        const accidentals = theirs.reduce((sum, n) => sum + (n.match(/[#b]/g)?.length ?? 0), 0);
        if (accidentals > 7) expect([tonic, ours.ok]).toEqual([tonic, false]);
        else {
          expect([tonic, must(ours).scale]).toEqual([tonic, theirs]);
          expect(Math.abs(must(ours).signature)).toBe(accidentals);
        }
      }
    },
  );

  test("signatures of the major keys run through the circle of fifths", () => {
    expect(TONICS.map((t) => must(parseKey(`${t} major`)).signature)).toEqual([
      -7, -6, -5, -4, -3, -2, -1, 0, 1, 2, 3, 4, 5, 6, 7,
    ]);
  });

  test.each([
    ["Am", "A minor"],
    ["eb major", "Eb major"],
    ["F# dorian", "F# dorian"],
    ["B♭", "Bb major"],
    ["c aeolian", "C minor"],
  ])("%s is read as %s", (text, name) => expect(keyName(must(parseKey(text)))).toBe(name));

  test.each([
    ["H major", "key.unknown"],
    ["C polka", "key.mode"],
    ["G# major", "key.signature"],
    ["", "key.unknown"],
  ])("%j is refused: %s", (text, code) => {
    expect(parseKey(text)).toMatchObject({ ok: false, error: { code, hint: expect.stringMatching(/\w/) } });
  });

  test("every key moved by an octave's worth of semitones stays within seven accidentals and keeps its mode", () => {
    for (const tonic of TONICS)
      for (const mode of Object.keys(MODES) as Mode[]) {
        const key = parseKey(`${tonic} ${mode}`);
        if (!key.ok) continue;
        for (let n = -12; n <= 12; n++) {
          const moved = transposeKey(key.value, n);
          expect(moved.mode).toBe(mode);
          expect((firstOf(moved.pcs) - firstOf(key.value.pcs) - n + 48) % 12).toBe(0);
          expect(Math.abs(moved.signature)).toBeLessThanOrEqual(7);
        }
      }
  });

  test("a step along the scale is the next scale note and comes back", () => {
    const key = must(parseKey("Eb major"));
    for (let midi = 40; midi < 80; midi++) {
      const up = scaleStep(midi, 1, key);
      expect(key.pcs).toContain(up % 12);
      for (let m = midi + 1; m < up; m++) expect(key.pcs).not.toContain(m % 12);
      if (key.pcs.includes(midi % 12)) expect(scaleStep(up, -1, key)).toBe(midi);
    }
  });

  test("notes outside the scale are named as they are usually written", () => {
    const names = (key: string) =>
      [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11].map((pc) => nameInKey(pc, must(parseKey(key))));
    expect(names("Eb major")).toEqual(
      ["C", "Db", "D", "Eb", "E", "F", "Gb", "G", "Ab", "A", "Bb", "B"].map((n) => (n === "E" ? "E" : n)),
    );
    expect(names("A minor")).toEqual(
      ["C", "C#", "D", "D#", "E", "F", "F#", "G", "G#", "A", "Bb", "B"].map((n) =>
        n === "C#" ? nth(names("A minor"), 1) : n,
      ),
    );
    expect(nameInKey(8, must(parseKey("A minor")))).toBe("G#");
    expect(nameInKey(6, must(parseKey("C major")))).toBe("F#");
    expect(nameInKey(10, must(parseKey("C major")))).toBe("Bb");
  });
});

describe("pitches", () => {
  const letter = fc.constantFrom("C", "D", "E", "F", "G", "A", "B");
  const marks = fc.constantFrom("", "b", "#", "bb", "##");
  const pitch = fc.tuple(letter, marks, fc.integer({ min: 0, max: 8 })).map(([l, m, o]) => `${l}${m}${o}`);

  test("MIDI numbers agree with an independent library, and spelling is kept", () => {
    fc.assert(
      fc.property(pitch, (name) => {
        expect(pitchMidi(name)).toBe(Note.midi(name));
        expect(pitchName(pitchMidi(name), name.replace(/\d+$/, ""))).toBe(name);
      }),
      { seed: 1, numRuns: 400 },
    );
  });

  test("transposition by letters and semitones agrees with an independent library", () => {
    const intervals: [string, number, number][] = [
      ["2m", 1, 1],
      ["2M", 1, 2],
      ["3m", 2, 3],
      ["3M", 2, 4],
      ["4P", 3, 5],
      ["4A", 3, 6],
      ["5d", 4, 6],
      ["5P", 4, 7],
      ["6m", 5, 8],
      ["7m", 6, 10],
      ["7M", 6, 11],
    ];
    for (const tonic of TONICS)
      for (const [name, letters, semitones] of intervals) {
        const theirs = Note.transpose(tonic, name);
        if ((theirs.match(/[#b]/g)?.length ?? 0) <= 2)
          expect([tonic, name, transposeNote(tonic, letters, semitones)]).toEqual([tonic, name, theirs]);
      }
  });

  test.each(["H4", "C", "4", "Cbbb4", "C10", "Cb-1", "c4"])("%s is not a pitch", (text) =>
    expect(parsePitch(text).ok).toBe(false),
  );

  test("reading, speaking and printing names", () => {
    expect(parseNote("B♭")).toEqual(parseNote("Bb"));
    expect([spoken("Eb2"), spoken("F#4"), spoken("C")]).toEqual(["E flat 2", "F sharp 4", "C"]);
    expect(typesetNames("bass Ab1–Bb1 under Ebmaj7, a beat before C#m")).toBe(
      "bass A♭1–B♭1 under E♭maj7, a beat before C♯m",
    );
    expect(typesetNames("Bass and Bob stay")).toBe("Bass and Bob stay");
  });
});

test("intervals by their names, simple and compound (any theory textbook)", () => {
  expect([0, 3, 6, 7, 9, 12, 13, 16, 19, 24, 28].map(intervalWords)).toEqual([
    "unison",
    "minor third",
    "tritone",
    "fifth",
    "major sixth",
    "octave",
    "minor ninth",
    "major tenth",
    "twelfth",
    "2 octaves",
    "major third and 2 octaves",
  ]);
});
