import { firstOf, lastOf, nth, sure } from "../../src/base/list";
import { chordPitchClasses, chordSymbol } from "../../src/theory/chord/chord";
import { must } from "../../src/base/result";
import { parallelPerfect } from "../../src/theory/motion/motion";
import { parseChord } from "../../src/theory/chord/parse";
import { parseKey } from "../../src/theory/pitch/key";
import { parseNumeral } from "../../src/theory/chord/numerals";
import { pitchMidi } from "../../src/theory/pitch/pitch";
import { voicedProgressions, voiceProgression } from "../../src/arrange/voicing/path";
import { VOICING_STYLES } from "../../src/arrange/voicing/styles";
import { voiceSection } from "../../src/arrange/voicing/section";
import { edit, songWith } from "../helpers";

const ROOTS = ["C", "Db", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"];
const QUALITIES = ["", "m", "7", "maj7", "m7", "m7b5", "maj9", "m9", "13", "9sus4", "6/9", "7(b9)"];
const LIMITS = { low: 47, high: 79, voices: 4, span: 14, bassCovered: true };
const style = (id: string) => sure(VOICING_STYLES.find((s) => s.id === id));
const intervals = (pitches: readonly number[]) => pitches.slice(1).map((p, i) => p - nth(pitches, i));

test("every style is a full card, and lays out only notes of the chord, low to high, each layout once", () => {
  expect(VOICING_STYLES.length).toBeGreaterThanOrEqual(14);
  for (const s of VOICING_STYLES) {
    expect([s.id, s.title.length > 3 && s.explanation.length > 40 && s.source.length > 5]).toEqual([s.id, true]);
    for (const root of ROOTS)
      for (const quality of QUALITIES) {
        const chord = must(parseChord(root + quality));
        const found = s.candidates(chord, LIMITS);
        // Rootless and quartal chords take a ninth and a thirteenth, block chords a sixth, that the symbol does not
        // name.
        const colors = ["rootless", "quartal", "block"].includes(s.id)
          ? [2, 9].map((c) => (firstOf(chordPitchClasses(chord)) + c) % 12)
          : [];
        const pcs = [...chordPitchClasses(chord), ...colors];
        const wrong = found.filter(
          ({ pitches, missing, doubling }) =>
            !pitches.every((p) => pcs.includes(p % 12)) ||
            !intervals(pitches).every((i) => i > 0) ||
            missing + doubling < 0,
        );
        expect([s.id, root + quality, wrong]).toEqual([s.id, root + quality, []]);
        expect(new Set(found.map((v) => v.pitches.join())).size).toBe(found.length);
      }
  }
});

test.each<[string, string, (pitches: number[]) => boolean]>([
  ["close", "Cmaj7", (p) => lastOf(p) - firstOf(p) < 12],
  ["open", "C", (p) => lastOf(p) - firstOf(p) > 12],
  [
    "drop2",
    "Cmaj7",
    (p) => (firstOf(p) + 12 - nth(p, 1)) * (firstOf(p) + 12 - nth(p, 3)) < 0 && nth(p, 3) - nth(p, 1) < 12,
  ],
  ["drop3", "Cmaj7", (p) => nth(p, 1) - firstOf(p) >= 7 && nth(p, 3) - nth(p, 1) < 12],
  ["drop24", "Cmaj7", (p) => nth(p, 3) - firstOf(p) > 12],
  ["spread", "Cmaj9", (p) => nth(p, 1) - firstOf(p) === 12 && firstOf(p) % 12 === 0],
  ["shell", "Cm7", (p) => p.length === 3 && firstOf(p) % 12 === 0],
  ["rootless", "C13", (p) => p.length === 4 && !p.some((x) => x % 12 === 0) && [4, 10].includes(firstOf(p) % 12)],
  ["quartal", "Cm11", (p) => intervals(p).every((i, k) => i === 5 || i === 6 || (k === p.length - 2 && i === 4))],
  ["power", "C7", (p) => p.every((x) => x % 12 === 0 || x % 12 === 7)],
  [
    "upper-structure",
    "C13",
    (p) => p.length === 5 && [4, 10].includes(firstOf(p) % 12) && [4, 10].includes(nth(p, 1) % 12),
  ],
  ["single", "C7", (p) => p.length === 1],
])("%s of %s is what its name says", (id, symbol, is) => {
  const found = style(id).candidates(must(parseChord(symbol)), LIMITS);
  expect(found.length).toBeGreaterThan(0);
  for (const v of found) expect([v.pitches, is(v.pitches)]).toEqual([v.pitches, true]);
});

test("the rootless ii–V–I moves 1 + 5 semitones (Levine, The Jazz Piano Book, value from memory), in every key", () => {
  for (const key of ROOTS) {
    const chords = ["ii9", "V13", "Imaj9"].map((n) =>
      chordSymbol(must(parseNumeral(n, must(parseKey(`${key === "F#" ? "Gb" : key} major`))))),
    );
    const [best] = voiceProgression({ chords, style: "rootless" });
    const moved = sure(best).terms.map((t) => t.motion ?? 0);
    expect([key, moved.slice(1)]).toEqual([key, [1, 5]]);
  }
});

describe("four parts (Kostka & Payne, Tonal Harmony; Huron 2001)", () => {
  const progressions = [
    ["I", "IV", "V", "I"],
    ["I", "vi", "ii", "V", "I"],
    ["I", "IV", "V7", "vi"],
    ["I", "V65", "I", "ii6", "V7", "I"],
  ];
  test.each(ROOTS)(
    "textbook progressions in %s: no parallel fifths or octaves, ranges and spacing kept, the root doubled " +
      "before the third",
    (tonic) => {
      for (const numerals of progressions) {
        const key = must(parseKey(`${tonic === "F#" ? "Gb" : tonic} major`));
        const chords = numerals.map((n) => chordSymbol(must(parseNumeral(n, key))));
        const [best] = must(voicedProgressions({ chords, style: "four-part" }));
        const voices = sure(best).voicings.map((v) => v.map(pitchMidi));
        for (const [b, t, a, s] of voices as [number, number, number, number][]) {
          expect([b >= 40 && b <= 60, t >= 48 && t <= 67, a >= 53 && a <= 74, s >= 60 && s <= 79]).toEqual([
            true,
            true,
            true,
            true,
          ]);
          expect([a - t <= 12, s - a <= 12]).toEqual([true, true]);
        }
        voices.slice(1).forEach((now, i) => {
          const before = nth(voices, i);
          for (let low = 0; low < 4; low++)
            for (let high = low + 1; high < 4; high++)
              expect([
                numerals.join(" "),
                tonic,
                i,
                parallelPerfect(nth(before, low), nth(now, low), nth(before, high), nth(now, high)),
              ]).toEqual([numerals.join(" "), tonic, i, null]);
        });
        // Leading tones are not doubled.
        const leading = (firstOf(key.pcs) + 11) % 12;
        for (const [i, v] of voices.entries())
          if (/^V/.test(nth(numerals, i))) expect(v.filter((p) => p % 12 === leading).length).toBeLessThanOrEqual(1);
      }
    },
  );
});

test("a style that does not suit a chord says so and lays it out freely; an unknown style is an error by name", () => {
  const song = edit(songWith({ line: "| Dm9 | G13 | C | F5 |" }), {
    do: "setPlaying",
    part: "keys",
    voicing: { style: "rootless" },
  });
  const voiced = must(voiceSection(song, "s1", "keys"));
  expect(voiced.fallbacks).toEqual(
    firstOf(song.sections)
      .chords.slice(2)
      .map((c) => c.id),
  );
  expect(voiced.chords.every((c) => c.pitches.length > 1)).toBe(true);
  expect(voicedProgressions({ chords: ["C"], style: "nothing" })).toMatchObject({
    ok: false,
    error: { code: "voicing.style", hint: expect.stringContaining("rootless") },
  });
  // A song from a later version with a style this one does not know still sounds.
  expect(
    must(voiceSection(edit(song, { do: "setPlaying", part: "keys", voicing: { style: "later" } }), "s1", "keys"))
      .fallbacks,
  ).toEqual([]);
});
