import { nth } from "../../src/base/list";
import { must } from "../../src/base/result";
import { chordSymbol } from "../../src/theory/chord/chord";
import { chordReadings } from "../../src/theory/chord/identify";
import { parseNumeral, romanOf } from "../../src/theory/chord/numerals";
import { parseChord } from "../../src/theory/chord/parse";
import { belowLimit, voiceLeadingDistance } from "../../src/theory/motion/motion";
import { roughness } from "../../src/theory/motion/roughness";
import { nameInKey, parseKey } from "../../src/theory/pitch/key";
import { parseMeter, beatsText, metricalLevel, positionText } from "../../src/theory/time/meter";
import { expectKept } from "../kept";

const SYMBOLS =
  "C Cm C7 Cmaj7 Cm7 Cm7b5 Cdim7 C6 Cm6 C6/9 C9 Cm9 Cmaj9 C11 C13 Cm11 Cmaj13 C7(b9) C7(#9) C7(#11) C7(b13) C7alt " +
  "Caug C7(#5) Csus4 Csus2 C9sus4 C5 Cadd9 Cm(maj7) C/E C/Bb Am7/G F#m7b5 Bbmaj7(#11) Ebm6 Abdim";

test("symbols: what they hold, and what they are called in three keys", () => {
  const found: Record<string, string[]> = {};
  for (const symbol of SYMBOLS.split(" ")) {
    const chord = must(parseChord(symbol));
    found[symbol] = [
      chordSymbol(chord),
      chord.tones.map((t) => `${t.role}:${t.semitones}`).join(" "),
      ...["C major", "F minor", "E major"].map((k) => romanOf(chord, must(parseKey(k)))),
    ];
  }
  expectKept("symbols", found);
});

const SHARPS = ["C", "C#", "D", "D#", "E", "F", "F#", "G", "G#", "A", "A#", "B"];
const SETS = [
  "C4 E4 G4",
  "E4 G4 C5",
  "C3 G3 Bb3 E4",
  "Bb3 D4 E4 A4",
  "F3 A3 C4 D4",
  "C3 Eb3 Gb3 A3",
  "C3 E3 G#3",
  "D3 G3 A3",
  "C3 E3",
  "C3 G3",
  "Db3 F3 B3 Eb4",
  "C3 E3 G3 B3 D4 F#4",
  "Ab3 C4 Eb4 Gb4 Bb4",
  "C2 D4 F#4 A4",
  "G2 B3 D4 F4 A4",
  "C3 Eb3 E4 Bb3",
];

test("sets of pitches: their names in order, with the share of certainty", () => {
  const found: Record<string, string[]> = {};
  for (const set of SETS)
    for (const key of ["C major", "Eb major", "A minor"])
      found[`${set} in ${key}`] = must(chordReadings({ pitches: set.split(" "), key }))
        .slice(0, 5)
        .map((r) => `${r.symbol} ${r.score.toFixed(2)} −${r.omitted.join(",")} +${r.added.join(",")}`);
  expectKept("identify", found);
});

test("every set of three or four notes over C: its first two names, with the notes' own spelling left open", () => {
  const found: Record<string, string[]> = {};
  const above = Array.from({ length: 11 }, (_, i) => i + 1);
  const sets = above.flatMap((a) =>
    above.flatMap((b) => (b > a ? [[0, a, b], ...above.flatMap((c) => (c > b ? [[0, a, b, c]] : []))] : [])),
  );
  for (const set of sets)
    found[set.join(" ")] = must(chordReadings({ pitches: set.map((pc) => `${nth(SHARPS, pc)}4`), soundsOnly: true }))
      .slice(0, 2)
      .map((r) => `${r.symbol} ${r.score.toFixed(1)}`);
  expectKept("sets", found);
});

test("numerals: the chords they are in major and minor", () => {
  const numerals =
    "I ii7 iii IV V7 vi viiø7 bVII bVI bII6 V65 V43 V42 I64 V7/V V7/ii vii°7/V IV/5 Ger6 It6 Fr6 #iv°7 " +
    "i iv v VI III+ 6 27 45";
  const found: Record<string, string[]> = {};
  for (const key of ["D major", "C minor"])
    found[key] = numerals.split(" ").map((n) => {
      const chord = parseNumeral(n, must(parseKey(key)));
      return `${n} ${chord.ok ? chordSymbol(chord.value) : chord.error.message}`;
    });
  expectKept("numerals", found);
});

test("intervals and chords: how rough, how low, how far apart", () => {
  const found: Record<string, string[]> = { rough: [], low: [], apart: [] };
  for (const low of [36, 48, 60, 72])
    for (let i = 1; i <= 12; i++) {
      found.rough?.push(`${low}+${i} ${roughness([low, low + i]).toFixed(4)}`);
      found.low?.push(`${low}+${i} ${belowLimit(low, low + i)}`);
    }
  for (const [a, b] of [
    [
      [0, 4, 7],
      [5, 9, 0],
    ],
    [
      [0, 4, 7, 10],
      [5, 9, 0, 4],
    ],
    [
      [0, 3, 6, 9],
      [11, 2, 7],
    ],
  ] as const)
    found.apart?.push(`${a.join()} ${b.join()} ${voiceLeadingDistance(a, b)}`);
  expectKept("motion", found);
});

test("places and lengths in eight meters, and the names of tones in twelve keys", () => {
  const found: Record<string, string[]> = {};
  for (const name of ["4/4", "3/4", "2/4", "6/8", "9/8", "12/8", "5/4", "7/8"]) {
    const meter = must(parseMeter(name));
    found[name] = Array.from({ length: Math.ceil(meter.bar / 120) + 2 }, (_, i) =>
      [positionText(meter, i * 120), metricalLevel(meter, i * 120), beatsText(meter, i * 120)].join("; "),
    );
  }
  for (const name of [
    "C major",
    "F major",
    "Bb major",
    "Eb major",
    "Db major",
    "G major",
    "D major",
    "A major",
    "E major",
    "B major",
    "A minor",
    "C minor",
    "F# minor",
  ]) {
    const key = must(parseKey(name));
    found[name] = [Array.from({ length: 12 }, (_, pc) => nameInKey(pc, key)).join(" ")];
  }
  expectKept("beats", found);
});
