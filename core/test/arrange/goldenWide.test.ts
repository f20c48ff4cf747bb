import { firstOf } from "../../src/base/list";
import { must } from "../../src/base/result";
import { DRUM_PATTERNS, patternLanes, withFill, withVariation } from "../../src/arrange/groove/patterns";
import { reharmonizations } from "../../src/arrange/reharm/reharmonize";
import { voicedProgressions } from "../../src/arrange/voicing/path";
import { VOICING_STYLES } from "../../src/arrange/voicing/styles";
import { parseMeter } from "../../src/theory/time/meter";
import { songWith } from "../helpers";
import { expectKept, markOf } from "../kept";

/** Rows in which every technique of another chord has its place: cycles, ends, basses, tunes above, other meters. */
const ROWS: readonly { key: string; line: string; meter?: string; melody?: string[]; bass?: string[] }[] = [
  { key: "C major", line: "| Dm7 | G7 | Cmaj7 | C6 |" },
  { key: "C major", line: "| C | Em | Am | Am | F | G | C | C |", melody: ["0 G4 4", "4 B4 4", "8 C5 8", "16 A4 4"] },
  { key: "F major", line: "| F | Gm7 C7 | F7 | Bb | Bbm6 | F/C | G7 C7 | F |" },
  { key: "Bb major", line: "| Bb6 G7 | Cm7 F7 | Dm7 G7 | Cm7 F7 | Bb6 |", melody: ["0 D5 2", "2 F5 2", "4 Eb5 4"] },
  { key: "A minor", line: "| Am | Dm | E7 | Am | F | Bm7b5 | E7 | Am |" },
  { key: "D minor", line: "| Dm | Gm6 | A7(b9) | Dm | Bb7 | A7 | Dm | D |", bass: ["0 D2 4", "4 G2 4", "8 A2 4"] },
  { key: "E major", line: "| E | A | E | B7 | C#m | F#7 | B7 | E |" },
  { key: "Ab major", line: "| Abmaj7 | Fm7 | Bbm7 | Eb7 | Abmaj7 | A7 | Dmaj7 | Abmaj7 |" },
  { key: "G major", meter: "3/4", line: "| G | Em | Am | D7 | Bm | E7 | Am D7 | G |", melody: ["0 B4 3", "3 G4 3"] },
  { key: "D major", meter: "6/8", line: "| D | A/C# | Bm | G | D/F# | G | A | D |" },
  { key: "C minor", line: "| Cm | Cm(maj7) | Cm7 | Cm6 | Abmaj7 | Fm7 | Dm7b5 G7 | Cm |" },
  { key: "F# minor", meter: "5/4", line: "| F#m | D | Bm7 | C#7 | F#m/E | D#m7b5 | C#7 | F#m |" },
];

test("every other chord and every pair of them, near and far, over twelve rows", () => {
  const found: Record<string, string[]> = {};
  for (const row of ROWS) {
    const song = songWith(row);
    const { chords } = firstOf(song.sections);
    for (const range of [0.2, 0.8]) {
      const offers = (ids: readonly string[]): string =>
        markOf(
          must(reharmonizations({ song, section: "s1", chordIds: ids, range })).map((c) => [
            c.title,
            c.chords,
            c.adventure.toFixed(3),
            c.reasons,
            c.terms,
            c.melody,
            c.motion,
          ]),
        );
      found[`${row.key} ${row.line} ${range}`] = [
        chords.map((c) => offers([c.id])).join(" "),
        chords
          .slice(1)
          .map((c, i) => offers([chords[i]?.id ?? "", c.id]))
          .join(" "),
      ];
    }
  }
  expectKept("reharmWide", found);
});

test("drum patterns, filled and varied, in meters of all kinds", () => {
  const found: Record<string, string[]> = {};
  for (const name of ["2/4", "5/4", "7/8", "9/8", "12/8", "3/8", "4/2"]) {
    const meter = must(parseMeter(name));
    found[name] = DRUM_PATTERNS.map((pattern) => {
      const lanes = patternLanes(pattern, meter, 4);
      const filled = [1, 2].map((length) => withFill(lanes, meter, 3, { length, seed: 3 }));
      const varied = [1, 2, 3].map((seed) => withVariation(lanes, meter, 4, { length: 4 * meter.bar, seed }));
      return `${pattern.id} ${markOf(lanes)} ${markOf(filled)} ${markOf(varied)}`;
    });
  }
  expectKept("grooveWide", found);
});

test("layouts with voices, registers and basses of all kinds", () => {
  const found: Record<string, string[]> = {};
  const rows = [
    ["C", "C/E", "F/G", "Dm11", "G7(b9,#11)", "Am(add9)", "C5", "Bdim7"],
    ["F#maj7(#11)", "B13sus4", "E+", "C#m9/G#", "D#m7b5", "G#7(#9)", "A6/9", "Dmaj9"],
  ];
  for (const style of VOICING_STYLES)
    for (const instrument of ["organ", "mandolin"])
      found[`${style.id}, ${instrument}`] = rows.flatMap((chords) =>
        [3, 4, 5].map((voices) => markOf(voicedProgressions({ chords, instrument, style: style.id, k: 3, voices }))),
      );
  expectKept("voicingWide", found);
});
