import { firstOf, nth, sure } from "../../src/base/list";
import { Scale as TonalScale, Note as TonalNote } from "tonal";
import { analyzeProgression, analyzeSection } from "../../src/hear/harmony/analyze";
import { applyEdit } from "../../src/song/edits";
import { chordDistance, regionOf, setDistance, smallestMotion } from "../../src/hear/harmony/distance";
import { findKeys, findKeysOfChords, PROFILES_KK } from "../../src/hear/harmony/keys";
import { fittingScales, SCALES, tensions } from "../../src/hear/harmony/scales";
import { must } from "../../src/base/result";
import { parseChord } from "../../src/theory/chord/parse";
import { parseKey } from "../../src/theory/pitch/key";
import { parseProgression } from "../../src/song/progression";
import { PISTON, rootProgression } from "../../src/hear/harmony/roots";
import { RECOGNIZERS } from "../../src/hear/harmony/recognize";
import type { Category } from "../../src/hear/harmony/recognize/types";
import { songWith } from "../helpers";

const chord = (text: string) => must(parseChord(text));
const key = (text: string) => must(parseKey(text));
const analyze = (line: string, inKey = "C major", loop = false) => {
  const read = parseProgression(line, { key: inKey, meter: "4/4" });
  expect(read.problems).toEqual([]);
  return analyzeProgression(read.events, inKey, { loop });
};
const report = (line: string, inKey = "C major") => analyzeSection(songWith({ line, key: inKey }), "s1");

describe("distances", () => {
  test.each([
    ["G", 5],
    ["F", 5],
    ["Am", 7],
    ["Em", 7],
    ["Dm", 8],
    ["Bdim", 8],
  ])("from I to %s within C major: %i (Lerdahl 1988, value from memory)", (to, distance) => {
    expect(chordDistance(chord("C"), chord(to), key("C major")).total).toBe(distance);
  });

  test.each([
    ["G", "G major"],
    ["F", "F major"],
    ["Cm", "C minor"],
    ["Am", "A minor"],
  ])(
    "the nearest keys lie at 7 with the region term: %s as I of %s (Lerdahl 1988, value from memory)",
    (to, region) => {
      expect(chordDistance(chord("C"), chord(to), key("C major"), key(region)).total).toBe(7);
    },
  );

  test("the dominant of minor with its raised seventh belongs to the key, a borrowed chord to another one", () => {
    expect(regionOf(chord("E7"), key("A minor"))).toBe(key("A minor"));
    expect(regionOf(chord("Fm"), key("C major")).signature).toBe(-3);
  });

  test("smallest voice leading between chords of unlike size doubles a tone; equals brute force", () => {
    expect(smallestMotion(chord("C"), chord("Cmaj7"))).toBe(1);
    expect(smallestMotion(chord("Dm7"), chord("G7"))).toBe(3);
    const ring = (a: number, b: number) => Math.min((a - b + 12) % 12, (b - a + 12) % 12);
    const brute = (a: number[], b: number[]): number => {
      // Every tone of the larger goes to one of the smaller, all of which are met.
      const [big, small] = a.length >= b.length ? [a, b] : [b, a];
      let best = Infinity;
      const go = (i: number, sum: number, met: number) => {
        if (i === big.length) {
          if (met === (1 << small.length) - 1) best = Math.min(best, sum);
          return;
        }
        for (let k = 0; k < small.length; k++) go(i + 1, sum + ring(nth(big, i), nth(small, k)), met | (1 << k));
      };
      go(0, 0, 0);
      return best;
    };
    const sets = [
      [0, 4, 7],
      [0, 3, 7],
      [2, 5, 9, 0],
      [7, 11, 2, 5],
      [0, 3, 6, 9],
      [1, 5, 8, 11],
      [0, 2, 4, 7, 11],
      [6, 10, 1],
    ];
    for (const a of sets) for (const b of sets) expect([a, b, setDistance(a, b)]).toEqual([a, b, brute(a, b)]);
  });

  test("root progressions are Piston's table (value from memory)", () => {
    expect(rootProgression(5, 1)).toBe("usual");
    expect(rootProgression(5, 6)).toBe("sometimes");
    expect(rootProgression(2, 5)).toBe("usual");
    expect(rootProgression(5, 2)).toBe("seldom");
    expect(rootProgression(7, 6)).toBe("unlisted");
    expect(sure(PISTON[1]).usual).toEqual([4, 5]);
  });
});

describe("keys (Krumhansl & Kessler 1982, profiles from memory)", () => {
  test("a scale with its tonic triad leaned on, a cadence, and the profile itself", () => {
    expect(firstOf(findKeys(["C4", "D4", "E4", "F4", "G4", "A4", "B4", "C5", "G4", "E4", "C4"])).key).toBe("C major");
    expect(firstOf(findKeys(["A4", "B4", "C5", "D5", "E5", "F5", "G#5", "A5", "E5", "C5", "A4"])).key).toBe("A minor");
    // I–IV–V–I in E flat.
    expect(firstOf(findKeys("Eb G Bb Ab C Eb Bb D F Eb G Bb".split(" "))).key).toBe("Eb major");
    const names = ["C", "C#", "D", "D#", "E", "F", "F#", "G", "G#", "A", "A#", "B"];
    const weighed = PROFILES_KK.minor.map((w, i) => ({ pitch: nth(names, (i + 9) % 12), duration: w }));
    expect(findKeys(weighed)[0]).toMatchObject({ key: "A minor", score: expect.closeTo(1, 6) });
  });

  test("spelling follows the notes; margins say how far ahead", () => {
    const [first, second] = findKeys("D# F# A# D# C# B G# A# D#".split(" "));
    expect(sure(first).key).toBe("D# minor");
    expect(sure(first).margin).toBeCloseTo(sure(first).score - sure(second).score, 9);
    expect(firstOf(findKeys("Eb Gb Bb Eb Db Cb Ab Bb Eb".split(" "))).key).toBe("Eb minor");
  });

  test("two keys can be equally good; a cadence decides", () => {
    const chords = (line: string) => line.split(" ").map((s) => ({ chord: chord(s), duration: 4 }));
    const loop = findKeysOfChords(chords("Am F C G"));
    expect([firstOf(loop).key, ...firstOf(loop).equal].sort()).toEqual(["A minor", "C major"]);
    expect(findKeysOfChords(chords("Dm7 G7 Cmaj7"))[0]).toMatchObject({ key: "C major", equal: [] });
    expect(firstOf(findKeysOfChords(chords("Am F E7 Am"))).key).toBe("A minor");
    // An augmented triad points to no key in particular.
    expect(firstOf(findKeys(["C", "E", "G#"])).equal.length).toBeGreaterThan(0);
  });

  test("a stated key the chords contradict is a finding, with the better key as a fix; a relative key is none", () => {
    const wrong = songWith({ line: "| Ebmaj7 | Cm7 | Fm7 | Bb7 | Ebmaj7 |", key: "C major" });
    const report = analyzeSection(wrong, "s1");
    expect(firstOf(report.keys).key).toBe("Eb major");
    expect(must(applyEdit(wrong, { do: "setKey", key: firstOf(report.keys).key })).song.key).toBe("Eb major");
  });
});

describe("analysis (categories as any harmony textbook has them, unless said in the source of each)", () => {
  const cases: [string, number, string, Category, string?][] = [
    ["| C | A7 | Dm7 | G7 |", 1, "V7/ii", "applied-dominant"],
    ["| C | E | Am |", 1, "V/vi", "applied-dominant"],
    ["| C | D7 | F | C |", 1, "II7", "dominant-two"],
    ["| C | D7 | G7 | C |", 1, "V7/V", "applied-dominant"],
    ["| Gm7 C7 | Fmaj7 | G7 | C |", 0, "ii7/IV", "applied-two"],
    ["| C | Bm7b5 E7 | Am | G7 |", 1, "iiø7/vi", "applied-two"],
    ["| Fmaj7 | Bb7 | C |", 1, "bVII7", "backdoor"],
    ["| Dm7 | Db7 | Cmaj7 |", 1, "bII7", "tritone-substitute"],
    ["| C | Fm | C |", 1, "iv", "borrowed"],
    ["| C | Ab | Bb | C |", 1, "bVI", "borrowed"],
    ["| C | Db/F | G7 | C |", 1, "bII6", "neapolitan"],
    ["| C | E | F | C |", 1, "III", "chromatic-mediant"],
    ["| C C#dim7 | Dm7 |", 1, "#i°7", "passing-diminished"],
    ["| F | C#dim7 | Dm7 |", 1, "vii°7/ii", "applied-diminished"],
    ["| F | Cdim7 | C |", 1, "i°7", "common-tone-diminished"],
    ["| C | F#m7b5 | Fmaj7 |", 1, "#ivø7", "rootless-dominant"],
    ["| C | Bm7b5 | C |", 1, "viiø7", "rootless-dominant"],
    ["| C | Ab7 | G7 | C |", 1, "bVI7", "augmented-sixth"],
    ["| Cm | Ab7(b5) | G | Cm |", 1, "VI7(b5)", "augmented-sixth", "C minor"],
    ["| Gsus4 | G | C |", 0, "Vsus4", "suspension"],
    ["| Am | AmMaj7 | Am7 | Am6 |", 2, "i7", "line-cliche", "A minor"],
    ["| Dm7 Ebm7 | Em7 | C |", 1, "biii7", "planing"],
    ["| C | G7/B | Am | F |", 1, "V65", "diatonic"],
    ["| Am | E7 | Am |", 1, "V7", "diatonic", "A minor"],
    ["| Am | E7sus4 | E7 |", 1, "V7sus4", "suspension", "A minor"],
    ["| C | Gb6/9 | F |", 1, "bV6/9", "chromatic"],
  ];
  test.each(cases.map(([line, i, roman, category, inKey = "C major"]) => [line, i, roman, category, inKey] as const))(
    "%s, chord %i is %s, %s",
    (...[line, index, roman, category, inKey]) => {
      expect(analyze(line, inKey)[index]).toMatchObject({ roman, category });
    },
  );

  test("a pedal is heard under chords of the key as well", () => {
    expect(analyze("| C | F/C | G/C | C |")[2]).toMatchObject({ category: "diatonic", also: ["pedal"] });
  });

  test("every category has its recognizer, and each says what it is and where it comes from", () => {
    for (const r of RECOGNIZERS) {
      expect(r.explanation.length).toBeGreaterThan(30);
      expect(r.source.length).toBeGreaterThan(5);
    }
    expect(new Set(RECOGNIZERS.map((r) => r.id)).size).toBe(RECOGNIZERS.length);
  });

  test("explanations name the notes; every note outside the key is told what it is and where it wants to go", () => {
    const [, a7] = analyze("| C | A7 | Dm7 |");
    expect(sure(a7).explanation).toContain("C♯ is its third and leads up to D");
    expect(sure(a7).outside).toEqual([
      { note: "C#", role: "3", what: "raised C, third of A", wants: "D", arrives: true },
    ]);
    expect(sure(a7).tones.map((t) => [t.pitch, t.inKey, t.role])).toEqual([
      ["A", true, "R"],
      ["C#", false, "3"],
      ["E", true, "5"],
      ["G", true, "b7"],
    ]);
    const [, fm] = analyze("| C | Fm | C |");
    expect(sure(fm).outside).toMatchObject([{ note: "Ab", wants: "G", arrives: true }]);
    for (const c of analyze("| C | Bb13 | Ebmaj7(#11) | F#m7b5 B7(b9) | Abm6 | Db7(#9) |"))
      for (const o of c.outside)
        expect([c.symbol, o.note, o.wants.length > 0, o.what.length > 5]).toEqual([c.symbol, o.note, true, true]);
  });

  test("a ii–V–I in A flat inside C is a stretch of its own; leaning on a degree of the key is not", () => {
    const found = report("| Cmaj7 | Bbm7 Eb7 | Abmaj7 | G7 | Cmaj7 |");
    expect(found.regions).toMatchObject([{ key: "Ab major", text: "ii7 – V7 – Imaj7 in A♭ major" }]);
    expect(found.chords.map((c) => c.key)).toEqual([
      "C major",
      "Ab major",
      "Ab major",
      "Ab major",
      "C major",
      "C major",
    ]);
    for (const line of [
      "| C | A7 | Dm7 | Gm7 | C7 | F |",
      "| C | Fm | Bb7 | C |",
      "| C | E7 | Am | D7 | G7 | C |",
      "| C | Fm | C | Ab | Bb | C |",
    ])
      expect([line, report(line).regions]).toEqual([line, []]);
  });

  test.each([
    ["| Dm7 | G7 | Cmaj7 |", "perfect"],
    ["| Dm7 | G7/B | C |", "imperfect"],
    ["| C | G7 | Am |", "deceptive"],
    ["| G | F | C |", "plagal"],
    ["| C | Fm | C |", "minor plagal"],
    ["| C | Bb7 | C |", "backdoor"],
    ["| C | Dm | G |", "half"],
  ])("%s ends with a %s cadence", (line, kind) => {
    expect(report(line).cadences.at(-1)).toMatchObject({ kind });
  });

  test("an arrival that goes on in another color is one cadence", () => {
    expect(report("| G7 | Cmaj7 C6 | Am |").cadences.map((c) => c.kind)).toEqual(["perfect"]);
  });

  test("the loop's join is named, with what it costs", () => {
    expect(report("| C | Am | Dm7 | G7 |").join).toMatchObject({ cadence: "perfect", common: 1, motion: 4 });
    expect(sure(report("| C | Am | F | C |").join).text).toContain("the same root again");
  });

  test("silence and a bad key are no crash", () => {
    expect(analyze("| N.C. | C |")[0]).toMatchObject({ category: "none", function: "none" });
    expect(analyzeProgression([], "H major")).toEqual([]);
  });
});

describe("scales and tensions", () => {
  test("scales agree with an independent dictionary (`tonal`)", () => {
    const NAMES: Record<string, string> = {
      "major (ionian)": "major",
      "minor (aeolian)": "minor",
      "mixolydian b6": "mixolydian b6",
      "locrian natural 2": "locrian #2",
      "half-whole diminished": "half-whole diminished",
      "whole-half diminished": "diminished",
      "whole tone": "whole tone",
    };
    for (const scale of SCALES) {
      const theirs = TonalScale.get(`C ${NAMES[scale.name] ?? scale.name}`);
      expect([scale.name, theirs.notes.map((n) => TonalNote.chroma(n))]).toEqual([scale.name, scale.steps]);
    }
  });

  test("fitting scales hold the whole chord and prefer the key; foreign dominants are lydian dominant (common practice)", () => {
    const C = key("C major");
    expect(["Cmaj7", "Dm7", "G7", "Em7", "Bm7b5"].map((s) => firstOf(fittingScales(chord(s), C)).name)).toEqual([
      "major (ionian)",
      "dorian",
      "mixolydian",
      "phrygian",
      "locrian",
    ]);
    expect(fittingScales(chord("Db7"), C)[0]).toMatchObject({ name: "lydian dominant" });
    expect(fittingScales(chord("D7"), C)[0]).toMatchObject({ outside: ["F#"] });
  });

  test("notes to avoid lie a semitone above a chord tone (common practice); over a dominant the altered ninth is wanted", () => {
    const roles = (symbol: string, available: boolean, inKey = "C major") =>
      tensions(chord(symbol), key(inKey))
        .filter((t) => t.available === available)
        .map((t) => t.role);
    expect(roles("Cmaj7", true)).toEqual(["9", "13"]);
    expect(roles("Cmaj7", false)).toEqual(["11"]);
    expect(roles("Fmaj7", true)).toEqual(["9", "#11", "13"]);
    expect(roles("Em7", false)).toEqual(["b9", "b13"]);
    expect(roles("E7", true, "A minor")).toEqual(expect.arrayContaining(["b9", "b13"]));
    expect(sure(tensions(chord("Cmaj7"), key("C major")).find((t) => !t.available)).rule).toBe(
      "F lies a semitone above E, the third: short or passing only",
    );
  });
});
