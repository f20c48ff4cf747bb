import { firstOf, nth, sure } from "../../src/base/list";
import guitar from "@tombatossals/chords-db/lib/guitar.json";
import ukulele from "@tombatossals/chords-db/lib/ukulele.json";
import { chooseCapo } from "../../src/arrange/voicing/capo";
import { mod, pitchMidi, type PitchName } from "../../src/theory/pitch/pitch";
import { must } from "../../src/base/result";
import { parseChord } from "../../src/theory/chord/parse";
import { rootPc } from "../../src/theory/chord/chord";
import { voicedProgressions } from "../../src/arrange/voicing/path";
import { voicingSpace } from "../../src/arrange/voicing/space";
import type { Shape } from "../../src/theory/instrument/fretboard";
import { edit, songWith } from "../helpers";

const text = (frets: readonly (number | null)[]): string => frets.map((f) => f ?? "x").join(" ");
const shapesFor = (chords: string[], style?: string): Shape[] =>
  sure(firstOf(must(voicedProgressions({ chords, instrument: "guitar", ...(style ? { style } : {}) }))).shapes);

test("common chords are held as every songbook has them (grips from memory)", () => {
  const grips = (chords: string[]) => shapesFor(chords).map((s) => s.frets.map((f) => f ?? "x").join(""));
  expect(grips(["C", "Am", "F", "G"])).toEqual(["x32010", "x02210", "133211", "320003"]);
  expect(grips(["E", "A", "B7", "D"])).toEqual(["022100", "x02220", "x21202", "xx0232"]);
  expect(grips(["Em", "Bm", "G", "D"])).toEqual(["022000", "x24432", "320003", "xx0232"]);
});

interface Data {
  chords: Record<string, { suffix: string; positions: { frets: number[]; baseFret: number }[] }[]>;
}
const COMMON = [
  ...["C", "D", "E", "F", "G", "A", "B", "Bb"].map((k) => [k, "major", k]),
  ...["A", "E", "D", "B", "G", "F#", "C", "F"].map((k) => [k, "minor", `${k}m`]),
  ...["C", "D", "E", "G", "A", "B"].map((k) => [k, "7", `${k}7`]),
  ...["A", "E"].map((k) => [k, "m7", `${k}m7`]),
] as [key: string, suffix: string, symbol: string][];

test.each([
  ["guitar", guitar as unknown as Data, 20],
  ["ukulele", ukulele as unknown as Data, 22],
])(
  "on a %s the first position of the open shape data is among the first three for most of 24 common chords",
  (name, data, least) => {
    const found = COMMON.filter(([key, suffix, symbol]) => {
      const entry = sure(
        sure(data.chords[key] ?? data.chords.Fsharp ?? data.chords.Gb).find((c) => c.suffix === suffix),
      );
      const [first] = entry.positions;
      const wanted = text(
        sure(first).frets.map((f) => {
          if (f < 0) return null;
          if (f === 0) return 0;
          return f + sure(first).baseFret - 1;
        }),
      );
      const { columns } = must(voicingSpace([must(parseChord(symbol))], { instrument: name }));
      const ranked = [...firstOf(columns).candidates]
        .sort((a, b) => a.cost - b.cost)
        .map((v) => text(sure(v.shape).frets));
      return ranked.slice(0, 3).includes(wanted);
    });
    expect(COMMON).toHaveLength(24);
    expect(found.length).toBeGreaterThanOrEqual(least);
  },
);

test("comping shapes are small, without a tone twice, and move little; picked ones keep their root lowest", () => {
  const comped = shapesFor(["Dm7", "G7", "Cmaj7", "A7"], "comping");
  for (const s of comped) {
    expect(s.pitches.length).toBeLessThanOrEqual(4);
    expect(new Set(s.pitches.map((p) => mod(p, 12))).size).toBe(s.pitches.length);
    expect(s.frets).not.toContain(0);
  }
  expect(Math.max(...comped.map((s) => s.position)) - Math.min(...comped.map((s) => s.position))).toBeLessThanOrEqual(
    3,
  );
  const chords = ["G", "Em", "C", "D"];
  shapesFor(chords, "picking").forEach((s, i) =>
    expect([chords[i], mod(firstOf(s.pitches), 12)]).toEqual([chords[i], rootPc(must(parseChord(nth(chords, i))))]),
  );
});

test("a capo is offered where the player thinks in a key one knows shapes of, never in G flat", () => {
  const flat = edit(songWith({ key: "Ab major", line: "| Ab | Fm | Db | Eb |" }), {
    do: "setPart",
    part: "keys",
    instrument: "guitar",
  });
  const capos = must(chooseCapo(flat, "keys", 2));
  expect(capos[0]).toMatchObject({ capo: 1, keyOfShapes: "G major" });
  expect(capos.map((c) => c.keyOfShapes)).toEqual(["G major", "Ab major"]);
  const sharp = edit(songWith({ key: "B major", line: "| B | E | F# | B |" }), {
    do: "setPart",
    part: "keys",
    instrument: "guitar",
  });
  expect(must(chooseCapo(sharp, "keys", 2)).map((c) => c.capo)).toContain(2);
});

const pcsOf = (pitches: readonly PitchName[]) => pitches.map((p) => mod(pitchMidi(p), 12));
const one = (symbol: string, style: string, more: object = {}) =>
  firstOf(must(voicedProgressions({ chords: [symbol], style, ...more })));
const C_MAJOR = [0, 2, 4, 5, 7, 9, 11];

describe("keyboard styles say what they leave out and take from the key", () => {
  test("where a layout stands without a bass the written bass is lowest, in every style", () => {
    for (const style of ["keyboard", "close", "open", "drop2", "drop3", "spread", "shell", "every"])
      for (const symbol of ["C", "Am7", "F/A", "G7/B", "Dm7", "Bb/D", "Ebmaj7", "F#m7b5"]) {
        const [bass] = [symbol.split("/")[1] ?? symbol.replace(/^([A-G][b#]?).*/, "$1")];
        const v = firstOf(one(symbol, style, { bassCovered: false }).voicings);
        expect([style, symbol, mod(pitchMidi(firstOf(v)), 12)]).toEqual([
          style,
          symbol,
          mod(pitchMidi(`${bass}4`), 12),
        ]);
      }
  });
  test(
    "rootless chords leave the root out and take ninth and thirteenth from the key (Levine): G Bb D F over " +
      "Ebmaj7; ii V I in twelve keys",
    () => {
      expect(new Set(pcsOf(firstOf(one("Ebmaj7", "rootless").voicings)))).toEqual(new Set([7, 10, 2, 5]));
      for (let by = 0; by < 12; by++) {
        const scale = C_MAJOR.map((pc) => mod(pc + by, 12));
        const name = (pc: number) =>
          nth(["C", "Db", "D", "Eb", "E", "F", "Gb", "G", "Ab", "A", "Bb", "B"], mod(pc + by, 12));
        const sets = firstOf(
          must(
            voicedProgressions({ chords: [`${name(2)}m7`, `${name(7)}7`, `${name(0)}maj7`], style: "rootless", scale }),
          ),
        ).voicings.map((v) => new Set(pcsOf(v).map((pc) => mod(pc - by, 12))));
        // F A C E, F A B E, E G B D.
        expect([by, sets]).toEqual([by, [new Set([5, 9, 0, 4]), new Set([5, 9, 11, 4]), new Set([4, 7, 11, 2])]]);
      }
    },
  );
  test(
    "a triad has a shell of two or three tones, a dominant in fourths keeps third and seventh, a triad over a " +
      "shell is named",
    () => {
      expect(pcsOf(firstOf(one("C", "shell").voicings)).length).toBeLessThanOrEqual(3);
      for (const symbol of ["C", "Am", "F#m", "Bbsus4"]) expect(one(symbol, "shell").fallbacks).toEqual([]);
      const fourths = pcsOf(firstOf(one("G13", "quartal").voicings));
      expect([fourths.includes(5), fourths.includes(11)]).toEqual([true, true]);
      const { columns } = must(voicingSpace([must(parseChord("C13(#11)"))], { style: "upper-structure" }));
      expect(firstOf(columns).candidates.map((v) => v.says)).toContain("D major over the shell of C13(#11)");
    },
  );
  test("where a style gives way to another it says so", () => {
    expect(one("C", "rootless").fallbacks).toEqual([0]);
    expect(
      firstOf(must(voicedProgressions({ chords: ["C", "F"], style: "shapes", instrument: "piano" }))).fallbacks,
    ).toEqual([0, 1]);
  });
});
