import { firstOf, lastOf, nth, sure } from "../../src/base/list";
import { Chord as TonalChord, Note as TonalNote } from "tonal";
import guitar from "@tombatossals/chords-db/lib/guitar.json";
import ukulele from "@tombatossals/chords-db/lib/ukulele.json";
import { chordPitchClasses, type Chord } from "../../src/theory/chord/chord";
import { identifyChords, isSure, chordReadings, type Reading } from "../../src/theory/chord/identify";
import { identifyFrets, parseFrets, parseTuning, fretReadings, TUNINGS } from "../../src/theory/chord/frets";
import { must } from "../../src/base/result";
import { parseChord } from "../../src/theory/chord/parse";
import { transposeNote } from "../../src/theory/pitch/pitch";

const FLATS = ["C", "Db", "D", "Eb", "E", "F", "Gb", "G", "Ab", "A", "Bb", "B"];
const symbols = (readings: Reading[], n = 14) => readings.slice(0, n).map((r) => r.symbol);
const low3 = (...frets: number[]) => identifyFrets({ frets: [...frets, null, null, null] }).sounding;

describe("naming (common practice unless said)", () => {
  test.each([
    ["E4 G4 B4", "C3", "Cmaj7"],
    ["D4 F4 A4", "Bb2", "Bbmaj7"],
    ["Eb4 G4 Bb4 D5", "F2", "F13sus4"],
    ["G3 Bb3 D4 F4", "F2", "Gm7/F"],
    ["A3 C4 E4 G4", undefined, "Am7"],
    ["A3 C4 E4 G4", "C3", "C6"],
    ["C3 E3 G3 Bb3 D4", undefined, "C9"],
    ["C3 Bb3 E4 A4", undefined, "C13"],
    ["E3 G3 C4", undefined, "C/E"],
    ["C3 G3", undefined, "C5"],
    ["C3 D3 G3", undefined, "Csus2"],
    ["C E G# ", undefined, "Caug"],
    ["B2 D3 F3 A3", undefined, "Bm7b5"],
    ["G3 B3 Eb4 F4 Ab4 Bb4", "G2", "G7(b9,#9,b13)"],
  ])("%s over %s is %s", (pitches, bass, name) => {
    expect(identifyChords({ pitches: pitches.trim().split(" "), ...(bass ? { bass } : {}) })[0]?.symbol).toBe(name);
  });

  test("a suspended F stays among the first three of G B flat D F over F", () => {
    expect(
      symbols(identifyChords({ pitches: ["G3", "Bb3", "D4", "F4"], bass: "F2" }), 3).some((s) => /^F.*sus/.test(s)),
    ).toBe(true);
  });

  test("half-diminished: its minor sixth and the dominant without root are named too", () => {
    const readings = identifyChords({ pitches: ["F#3", "A3", "C4", "E4"], key: "C major" });
    expect(firstOf(readings).symbol).toBe("F#m7b5");
    expect(symbols(readings)).toContain("Am6/F#");
    expect(readings.find((r) => r.symbol === "D9")).toMatchObject({ rootless: true, omitted: ["R"] });
  });

  test("symmetrical chords list their equals, also for the dominants on them (Cohn 2012)", () => {
    const [first, ...rest] = identifyChords({ pitches: ["C4", "Eb4", "Gb4", "A4"] });
    expect(sure(first).symbol).toBe("Cdim7");
    expect([...sure(first).equals].sort()).toEqual(["Adim7", "Ebdim7", "Gbdim7"]);
    expect(
      rest
        .slice(0, 3)
        .map((r) => r.symbol)
        .sort(),
    ).toEqual(["Adim7", "Ebdim7", "Gbdim7"]);
    expect(firstOf(identifyChords({ pitches: ["C", "E", "G#"] })).equals.sort()).toEqual(["Eaug", "G#aug"]);
    expect(isSure(identifyChords({ pitches: ["C", "E", "G#"] }))).toBe(true);
  });

  test("what is left out and added is said; certainty adds up to one", () => {
    const readings = identifyChords({ pitches: ["C3", "E4", "Bb4"] });
    expect(readings[0]).toMatchObject({ symbol: "C7", omitted: ["5"], added: [], rootless: false });
    expect(identifyChords({ pitches: ["A2", "E3", "G#3"] })[0]).toMatchObject({ symbol: "Amaj7(no3)", omitted: ["3"] });
    expect(firstOf(identifyChords({ pitches: ["C3", "E3", "G3", "B3", "F#4", "G#4"] })).added).toEqual(["b13"]);
    expect(readings.reduce((s, r) => s + r.score, 0)).toBeCloseTo(1, 9);
    expect(isSure(identifyChords({ pitches: ["G3", "Bb3", "D4", "F4"], bass: "F2" }))).toBe(false);
  });

  test("bad notes are named; a set nobody plays still gets a name", () => {
    expect(chordReadings({ pitches: ["C4", "H4"] })).toMatchObject({
      ok: false,
      error: { code: "identify.note", message: '"H4" is not a note' },
    });
    expect(chordReadings({ pitches: ["C4", "C5"] })).toMatchObject({ ok: false, error: { code: "identify.few" } });
    expect(chordReadings({ pitches: ["C", "E"], key: "Q major" })).toMatchObject({
      ok: false,
      error: { code: "key.unknown" },
    });
    expect(identifyChords({ pitches: ["C4", "C#4", "D4", "D#4"] }).length).toBeGreaterThan(0);
  });

  test("fret shapes", () => {
    expect(firstOf(low3(5, 7, 7)).symbol).toBe("A5");
    expect(firstOf(low3(5, 5, 7)).symbol).toBe("D5/A");
    expect(firstOf(low3(5, 7, 9)).symbol).toBe("Asus2");
    expect(firstOf(low3(5, 7, 6)).symbol).toBe("Amaj7(no3)");
    const capo = identifyFrets({ frets: must(parseFrets("x32010")), tuning: firstOf(TUNINGS).strings, capo: 3 });
    expect([firstOf(capo.shape).symbol, firstOf(capo.sounding).symbol]).toEqual(["C", "Eb"]);
    expect(capo.pitches).toEqual(["Eb3", "G3", "Bb3", "Eb4", "G4"]);
    expect(symbols(identifyFrets({ frets: [2, 2, 2, 2], tuning: ["G4", "C4", "E4", "A4"] }).sounding, 2)).toEqual([
      "Bm7",
      "D6",
    ]);
    // Drop D: one finger across three strings is a power chord.
    expect(
      firstOf(
        identifyFrets({
          frets: [5, 5, 5, null, null, null],
          tuning: sure(TUNINGS.find((t) => t.id === "dropD")).strings,
        }).sounding,
      ).symbol,
    ).toBe("G5");
  });

  test.each([
    [{ frets: [0, 0] }, "frets.count"],
    [{ frets: [null, null, null, null, null, 3] }, "frets.few"],
    [{ frets: [0, 2, 2, 99, 0, 0] }, "frets.range"],
    [{ frets: [0, 2, 2, 1, 0, 0], capo: 15 }, "frets.capo"],
  ])("%j is refused with %s", (request, code) => {
    expect(fretReadings(request)).toMatchObject({ ok: false, error: { code } });
  });

  test("frets and tunings as text", () => {
    expect(must(parseFrets("10 12 12 11 10 10"))).toEqual([10, 12, 12, 11, 10, 10]);
    expect(must(parseFrets("x-3-2-0-1-0"))).toEqual([null, 3, 2, 0, 1, 0]);
    expect(parseFrets("x3y")).toMatchObject({ ok: false, error: { code: "frets.text" } });
    expect(must(parseTuning("D A D F# A D", firstOf(TUNINGS).strings))).toEqual(["D2", "A2", "D3", "F#3", "A3", "D4"]);
    expect(must(parseTuning("DADGAD", firstOf(TUNINGS).strings))).toEqual(["D2", "A2", "D3", "G3", "A3", "D4"]);
    expect(must(parseTuning("G4 C4 E4 A4", nth(TUNINGS, 5).strings))).toEqual(["G4", "C4", "E4", "A4"]);
    expect(parseTuning("D H D G B E", firstOf(TUNINGS).strings)).toMatchObject({
      ok: false,
      error: { code: "tuning.note" },
    });
  });
});

const pcsOf = (chord: Chord) => [...new Set(chordPitchClasses(chord))].sort((a, b) => a - b).join();
const above = ({ bass: _, ...chord }: Chord): Chord => chord;

describe("against outside data", () => {
  /** Suffixes of the data set in our spelling, where they differ. */
  const SUFFIX: Record<string, string> = {
    major: "",
    minor: "m",
    "7sg": "7sus4",
    aug7: "7(#5)",
    aug9: "9(#5)",
    "9b5": "9(b5)",
    mmaj7: "mMaj7",
    mmaj7b5: "mMaj7(b5)",
    mmaj9: "mMaj9",
    mmaj11: "mMaj11",
    m69: "m6/9",
  };
  const label = (key: string, suffix: string) => {
    const root = key.replace("sharp", "#");
    const slash = /^(m?)\/(.*)$/.exec(suffix);
    return slash ? `${root}${slash[1]}/${slash[2]}` : root + (SUFFIX[suffix] ?? suffix);
  };

  test(
    "guitar and ukulele shapes of @tombatossals/chords-db (MIT): 97 % of those that agree with their label are " +
      "named in the first three readings",
    () => {
      let agree = 0;
      let named = 0;
      for (const [data, noBass] of [
        [guitar, false],
        [ukulele, true],
      ] as const)
        for (const list of Object.values(data.chords))
          for (const { key, suffix, positions } of list) {
            const read = parseChord(label(key, suffix));
            if (!read.ok) throw new Error(`${key}${suffix}: ${read.error.message}`);
            const chord = read.value;
            const all = chordPitchClasses(chord);
            // Tones that name the chord: all but root, third, plain fifth, and a plain ninth or eleventh under a higher
            // one.
            const top = Math.max(...chord.tones.map((t) => t.degree));
            const naming = chord.tones.filter(
              (t) =>
                t.degree !== 1 &&
                t.degree !== 3 &&
                !(t.degree === 5 && t.alter === 0) &&
                !(t.degree >= 9 && t.alter === 0 && t.degree < top),
            );
            const at = (semitones: number) => (firstOf(all) + semitones) % 12;
            for (const { midi } of positions) {
              const pcs = [...new Set(midi.map((m) => m % 12))];
              const third = chord.tones.find((t) => t.degree === 3);
              const based = pcs.includes(firstOf(all)) || (third && pcs.includes(at(third.semitones)));
              if (!pcs.every((pc) => all.includes(pc)) || !based || !naming.every((t) => pcs.includes(at(t.semitones))))
                continue;
              agree++;
              const played = [...pcs].sort((a, b) => a - b).join();
              const readings = identifyChords({
                pitches: midi.map((m) => nth(FLATS, m % 12) + (Math.floor(m / 12) - 1)),
                noBass,
              }).slice(0, 3);
              const hit = readings.some((r) => {
                const c = must(parseChord(r.symbol));
                if (pcsOf(above(c)) === pcsOf(above(chord)) || pcsOf(c) === pcsOf(chord)) return true;
                return !r.rootless && !r.omitted.length && !r.added.length && pcsOf(c) === played;
              });
              if (hit) named++;
            }
          }
      expect(agree).toBeGreaterThan(3500);
      expect(named / agree).toBeGreaterThanOrEqual(0.97);
    },
  );

  test.each(
    ["", "m", "dim", "aug", "sus4", "sus2", "7", "maj7", "m7", "m7b5", "mMaj7", "6", "m6", "9", "maj9", "m9"].concat([
      "6/9",
      "7(b9)",
      "7(#9)",
      "9sus4",
      "7sus4",
      "maj7(#11)",
      "13",
      "(add9)",
    ]),
  )(
    "all tones of C%s are named so, and an independent dictionary (`tonal`) hears the same root and notes first",
    (quality) => {
      const chord = must(parseChord("C" + quality));
      const names = chord.tones.map((t) => transposeNote("C", t.degree - 1, t.semitones));
      expect(identifyChords({ pitches: names, bass: "C" })[0]?.symbol).toBe("C" + quality);
      const theirs = firstOf(TonalChord.detect(names));
      const read = TonalChord.get(theirs);
      expect([theirs, read.tonic, read.notes.map((n) => TonalNote.chroma(n)).sort()]).toEqual([
        theirs,
        "C",
        [...chordPitchClasses(chord)].sort(),
      ]);
    },
  );

  test.each([
    ["C", "0,4,7"],
    ["Cm", "0,3,7"],
    ["Cdim", "0,3,6"],
    ["Caug", "0,4,8"],
    ["C7", "0,3,6,8"],
    ["Cm7b5", "0,2,5,8"],
    ["Cdim7", "0,3,6,9"],
    ["Cmaj7", "0,1,5,8"],
    ["Cm7", "0,3,5,8"],
  ])("%s has its set class (Forte 1973, value from memory)", (symbol, normal) => {
    const FORTE: Record<string, string> = { "0,4,7": "0,3,7", "0,3,6,8": "0,2,5,8" };
    expect(primeForm(chordPitchClasses(must(parseChord(symbol))))).toBe(FORTE[normal] ?? normal);
  });

  /** Prime form: the most compact ordering of a set or its inversion, packed to the left. */
  function primeForm(pcs: number[]): string {
    const forms = [pcs, pcs.map((pc) => (12 - pc) % 12)].flatMap((set) => {
      const sorted = [...set].sort((a, b) => a - b);
      return sorted.map((_, i) =>
        sorted.map((_, k) => (nth(sorted, (i + k) % sorted.length) - nth(sorted, i) + 12) % 12),
      );
    });
    return firstOf(forms.sort((a, b) => lastOf(a) - lastOf(b) || a.join().localeCompare(b.join()))).join();
  }
});

test("a note that is spelled as a raised eleventh is no lowered fifth, and the other way around", () => {
  const first = (...pitches: string[]) => firstOf(identifyChords({ pitches })).symbol;
  expect([first("C3", "E3", "F#3", "Bb3"), first("C3", "E3", "Gb3", "Bb3")]).toEqual(["C7(#11)", "C7(b5)"]);
  expect(first("C3", "E3", "B3", "F#4")).toBe("Cmaj7(#11)");
});

test("colors over one root are one harmony: what stands beside them names them", () => {
  const first = (pitches: string[], beside: { before?: string; after?: string } = {}) =>
    firstOf(identifyChords({ pitches, key: "Bb major", ...beside })).symbol;
  expect(first(["Bb2", "F3", "A3"])).toBe("Bbmaj7(no3)");
  expect(first(["Bb2", "F3", "G3"], { before: "Bbmaj7(no3)" })).toBe("Bb6(no3)");
  expect(first(["Bb2", "F3", "G3"])).toBe("Gm7/Bb");
  // A whole chord is no color of the one before it.
  expect(first(["Bb2", "D3", "G3"], { before: "Bb" })).toBe("Gm/Bb");
});
