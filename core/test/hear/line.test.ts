import { firstOf, sure } from "../../src/base/list";
import fc from "fast-check";
import {
  attacksABar,
  contourOf,
  leapsOf,
  meanPitch,
  phrasesOf,
  returnsOf,
  samePlace,
  silenceOf,
  span,
  type TuneContext,
} from "../../src/hear/line/tune";
import { factsOf } from "../../src/facts/memory";
import { must } from "../../src/base/result";
import { parseMeter } from "../../src/theory/time/meter";
import { reportMelody } from "../../src/hear/line/melody";
import { pitchMidi } from "../../src/theory/pitch/pitch";
import { tuneAt } from "../../src/hear/line/facts";
import { tuneReport } from "../../src/hear/line/report";
import { edit, songWith } from "../helpers";

/** A tune "pitch beats", a dash for a rest; four bars of four. */
function tune(text: string, bars = 4): TuneContext {
  const words = text.split(" ");
  let at = 0;
  const melody: string[] = [];
  for (let i = 0; i < words.length; i += 2) {
    if (words[i] !== "-") melody.push(`${at} ${words[i]} ${words[i + 1]}`);
    at += Number(words[i + 1]);
  }
  const song = edit(songWith({}), { do: "setSection", section: "s1", bars }, { do: "setTempo", tempo: 120 });
  const filled = edit(song, {
    do: "setNotes",
    section: "s1",
    part: "melody",
    notes: melody.map((m) => {
      const [beat, pitch, beats] = m.split(" ");
      return { start: Number(beat) * 480, duration: Number(beats) * 480, pitch: sure(pitch), velocity: 90 };
    }),
  });
  return sure(factsOf(filled).get(tuneAt, "s1", "melody"));
}
const row = (context: TuneContext, id: string) => sure(tuneReport(context).find((m) => m.id === id)).value;

describe("a tune is told what it is", () => {
  const scale = tune("C4 1 D4 1 E4 1 F4 1 G4 2 - 2 C4 1 D4 1 E4 1 D4 1 C4 2 - 2");

  test("range and tessitura: the ends, and where half of the time lies", () => {
    expect(row(scale, "range")).toBe("C4 to G4, 7 semitones");
    const high = tune("C4 .5 A4 6 B4 6 C5 3 G5 .5");
    expect(row(high, "range")).toBe("C4 to G5, 19 semitones");
    expect(row(high, "tessitura")).toBe("A4 to B4");
    expect(span(high.notes, 1)).toEqual([60, 79]);
  });

  test("phrases end with a rest of a beat, and are measured in seconds", () => {
    expect(phrasesOf(scale).map((p) => [p.notes.length, p.start, p.seconds])).toEqual([
      [5, 0, 3],
      [5, 3840, 3],
    ]);
    expect(phrasesOf(tune("C4 1 - .5 D4 1 - 1 E4 1"))).toHaveLength(2);
    expect(row(scale, "phrases")).toBe("2, the longest 3.0 s from bar 1, beat 1");
    expect(row(tune("C4 1 D4 1"), "phrases")).toBe("one, of 1.0 s");
  });

  test("a leap is answered by a step the other way; at the end of a phrase nothing answers it", () => {
    const leaps = (text: string) => leapsOf(tune(text)).map((l) => [l.semitones, l.recovered]);
    expect(leaps("C4 1 A4 1 G4 1")).toEqual([[9, true]]);
    expect(leaps("C4 1 A4 1 B4 1")).toEqual([[9, false]]);
    expect(leaps("A4 1 C4 1 G4 1")).toEqual([
      [-9, false],
      [7, null],
    ]);
    expect(leaps("C4 1 E4 1 G4 1 C5 1 B4 1")).toEqual([[5, true]]);
    expect(leaps("C4 1 - 2 A4 1 G4 1")).toEqual([]);
    expect(row(tune("C4 1 A4 1 G4 1 - 1 C4 1 A4 1 B4 1"), "leaps")).toBe("2, 1 of 2 answered");
    expect(row(scale, "leaps")).toBe("none");
  });

  test.each([
    ["C4 1 D4 1 E4 1 G4 1 A4 1 C5 1", "rises"],
    ["C5 1 A4 1 G4 1 E4 1 D4 1 C4 1", "falls"],
    ["C4 1 D4 1 A4 1 C5 1 D4 1 C4 1", "arch"],
    ["C5 1 B4 1 D4 1 C4 1 B4 1 C5 1", "bowl"],
    ["C4 1 D4 1 C4 1 D4 1 C4 1 D4 1", "level"],
  ])("%s %s", (text, contour) => {
    expect(contourOf(tune(text).notes)).toBe(contour);
  });

  test("five notes over a chord of B minor are five, whatever their octave", () => {
    expect(row(tune("B3 1 C#4 1 D4 1 F#4 1 A4 1 B4 1 D5 1"), "pitches")).toBe("5: B C# D F# A");
    const over = (line: string) => {
      const song = songWith({
        key: "B minor",
        line,
        melody: ["0 B4 1", "1 C#5 1", "2 D5 1", "3 F#5 1", "4 A5 1", "5 B5 3"],
      });
      return row(sure(factsOf(song).get(tuneAt, "s1", "melody")), "pitches");
    };
    expect(over("| Bm | % |")).toBe("5: B C# D F# A (R 9 b3 5 b7 over Bm)");
    expect(over("| Bm | G |")).toBe("5: B C# D F# A");
  });

  test("a phrase that comes back is known, and how its second time ends", () => {
    const words = (text: string) => returnsOf(tune(text, 8)).map((r) => r.words);
    expect(words("C4 1 D4 1 E4 1 C4 1 - 2 C4 1 D4 1 E4 1 C4 1")).toEqual(["the same for 4 notes, to the end"]);
    expect(words("C4 1 D4 1 E4 1 D4 1 - 2 C4 1 D4 1 E4 1 C4 1")).toEqual([
      "the same for 3 notes, and ends a step lower",
    ]);
    expect(words("C4 1 D4 1 E4 1 C4 1 - 2 D4 1 E4 1 F#4 1 D4 1")).toEqual([
      "the same for 4 notes, 2 semitones higher, to the end",
    ]);
    expect(words("C4 1 D4 1 E4 1 C4 1 - 2 C4 1 D4 1 E4 1 G4 1")).toEqual(["the same for 3 notes, and ends higher"]);
    expect(words("C4 1 D4 1 E4 1 - 2 G4 .5 D4 1 E4 1")).toEqual([]);
    expect(row(scale, "returns")).toContain("the same for 3 notes");
  });

  test("density and silence are shares of the whole section", () => {
    expect([attacksABar(scale), silenceOf(scale)]).toEqual([2.5, 0.25]);
    expect([row(scale, "density"), row(scale, "silence")]).toEqual(["2.5", "25 %"]);
  });

  test("each row points at notes that are there", () => {
    for (const m of tuneReport(scale)) expect(m.notes.every((id) => scale.notes.some((n) => n.id === id))).toBe(true);
    expect(tuneReport(tune("- 1"))).toEqual([]);
    expect(factsOf(songWith({})).get(tuneAt, "s1", "nobody")).toBeNull();
    expect(factsOf(songWith({})).get(tuneAt, "nobody", "melody")).toBeNull();
  });
});

describe("two sections that sit in one place", () => {
  const verse = tune("C4 1 D4 1 E4 1 F4 1 G4 2 - 2 C4 1 D4 1 E4 1 D4 1 C4 2 - 2");
  const moved = (text: string) => samePlace(verse, tune(text));
  test("as high, as dense and as silent: told; a third higher, denser or with fewer rests: not", () => {
    expect(samePlace(verse, verse)).toContain("around D4");
    expect(moved("D4 1 E4 1 F4 1 G4 1 A4 2 - 2 D4 1 E4 1 F4 1 E4 1 D4 2 - 2")).not.toBeNull();
    expect(moved("G4 1 A4 1 B4 1 C5 1 D5 2 - 2 G4 1 A4 1 B4 1 A4 1 G4 2 - 2")).toBeNull();
    expect(moved("C4 .5 C4 .5 D4 1 E4 1 F4 1 G4 2 - 2 C4 .5 C4 .5 D4 1 E4 1 D4 1 C4 2 - 2")).toBeNull();
    expect(moved("C4 1 D4 1 E4 1 F4 1 G4 4 C4 1 D4 1 E4 1 D4 1 C4 4")).toBeNull();
    expect(samePlace(verse, tune("- 1"))).toBeNull();
  });
});

test(
  "whatever the tune: it is as high as its notes, its phrases hold each note once, and moved up an octave only " +
    "its pitches change",
  () => {
    const note = fc.record({
      pitch: fc.constantFrom("C4", "D4", "Eb4", "G4", "A4", "C5"),
      beats: fc.constantFrom(0.5, 1, 2),
      rest: fc.constantFrom(0, 0, 0.5, 1, 2),
    });
    fc.assert(
      fc.property(fc.array(note, { minLength: 1, maxLength: 12 }), (list) => {
        const text = list.map(({ pitch, beats, rest }) => `${pitch} ${beats}${rest ? ` - ${rest}` : ""}`).join(" ");
        const context = tune(text, 16);
        const [low, high] = [
          Math.min(...context.notes.map((n) => n.midi)),
          Math.max(...context.notes.map((n) => n.midi)),
        ];
        expect(meanPitch(context.notes)).toBeGreaterThanOrEqual(low);
        expect(meanPitch(context.notes)).toBeLessThanOrEqual(high);
        const [a, b] = span(context.notes, 0.5);
        expect([a >= low, b <= high, a <= b]).toEqual([true, true, true]);
        expect(phrasesOf(context).flatMap((p) => p.notes)).toEqual(context.notes);
        const up = tune(
          text.replace(/([A-G]b?)(\d)/g, (_, n: string, o: string) => n + (Number(o) + 1)),
          16,
        );
        expect(leapsOf(up).map((l) => [l.semitones, l.recovered])).toEqual(
          leapsOf(context).map((l) => [l.semitones, l.recovered]),
        );
        expect([contourOf(up.notes), silenceOf(up), attacksABar(up)]).toEqual([
          contourOf(context.notes),
          silenceOf(context),
          attacksABar(context),
        ]);
        expect(meanPitch(up.notes) - meanPitch(context.notes)).toBeCloseTo(12, 9);
      }),
      { numRuns: 60 },
    );
  },
);

test("a difference that is just heard is heard in every octave", () => {
  // The first third lies at 64⅓, the last at 62⅚: a semitone and a half; with a Db in place of the C a little less.
  const contour = (text: string) => contourOf(tune(text, 16).notes);
  expect(contour("A4 1 D4 2 A4 0.5 C4 0.5 D4 2")).toBe("falls");
  expect(contour("A5 1 D5 2 A5 0.5 C5 0.5 D5 2")).toBe("falls");
  expect(contour("A4 1 D4 2 A4 0.5 Db4 0.5 D4 2")).toBe("level");
});

test("the meter says what a beat is: in six eight a rest of an eighth ends no phrase", () => {
  const song = edit(songWith({ meter: "6/8", melody: ["0 C4 1", "1.5 D4 0.5", "3.5 E4 1"] }));
  const context = sure(factsOf(song).get(tuneAt, "s1", "melody"));
  expect(firstOf(context.meter.beats).duration).toBe(firstOf(must(parseMeter("6/8")).beats).duration);
  expect(phrasesOf(context).map((p) => p.notes.length)).toEqual([2, 1]);
  expect(pitchMidi("C4")).toBe(60);
});

test("the report as data says what its rows say", () => {
  const song = songWith({
    line: "| C | F | G7 | C |",
    melody: ["0 C4 1", "1 A4 1", "2 G4 2", "6 E4 1", "7 D4 1", "8 C4 4"],
  });
  const report = must(reportMelody(song, { section: "s1", part: "melody" }));
  expect(report).toMatchObject({
    notes: 6,
    range: ["C4", "A4"],
    leaps: [{ from: "C4", to: "A4", semitones: 9, recovered: true }],
    phrases: [
      { start: 0, end: 1920, notes: 3 },
      { start: 2880, end: 5760, notes: 3 },
    ],
    gaps: [
      { from: 1920, to: 2880 },
      { from: 5760, to: 7680 },
    ],
    pitchClasses: 5,
    attacksABar: 1.5,
    silence: 6 / 16,
  });
  const value = (id: string) => sure(report.measures.find((m) => m.id === id)).value;
  expect([value("gaps"), value("leaps")]).toEqual(["2, the longest 4 beats from bar 4, beat 1", "1, 1 of 1 answered"]);
  const code = (section: string, part: string) => {
    const result = reportMelody(song, { section, part });
    return result.ok ? "ok" : result.error.code;
  };
  expect([code("none", "melody"), code("s1", "none"), code("s1", "bass")]).toEqual([
    "melody.section",
    "melody.part",
    "melody.empty",
  ]);
});
