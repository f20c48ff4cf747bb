import { firstOf, nth } from "../../src/base/list";
import { chordPitchClasses } from "../../src/theory/chord/chord";
import { mod, pitchMidi } from "../../src/theory/pitch/pitch";
import { must } from "../../src/base/result";
import { parseChord } from "../../src/theory/chord/parse";
import { voicedProgressions } from "../../src/arrange/voicing/path";

/** Textbook forms; counted by code that shares nothing with the writer (Kostka & Payne, Tonal Harmony, from memory). */
const NAMES = ["C", "Db", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"];
const FORMS: { minor: boolean; chords: [above: number, quality: string][] }[] = [
  {
    minor: false,
    chords: [
      [0, ""],
      [5, ""],
      [7, "7"],
      [0, ""],
    ],
  },
  {
    minor: false,
    chords: [
      [0, ""],
      [9, "m"],
      [2, "m7"],
      [7, "7"],
      [0, ""],
    ],
  },
  {
    minor: false,
    chords: [
      [0, ""],
      [5, ""],
      [2, "m"],
      [7, ""],
      [9, "m"],
    ],
  },
  {
    minor: false,
    chords: [
      [0, ""],
      [9, "7"],
      [2, "m"],
      [7, "7"],
      [0, ""],
    ],
  },
  {
    minor: true,
    chords: [
      [0, "m"],
      [5, "m"],
      [7, "7"],
      [0, "m"],
    ],
  },
  {
    minor: true,
    chords: [
      [0, "m"],
      [8, ""],
      [7, ""],
      [0, "m"],
    ],
  },
  {
    minor: true,
    chords: [
      [0, "m"],
      [2, "m7b5"],
      [7, "7"],
      [0, "m"],
    ],
  },
];
const MAJOR = [0, 2, 4, 5, 7, 9, 11];
const MINOR = [0, 2, 3, 5, 7, 8, 10];

/** Parallel octaves and fifths between two chords of four pitches, by plain arithmetic. */
function parallelsBetween(before: readonly number[], now: readonly number[]): string[] {
  const out: string[] = [];
  for (let a = 0; a < 4; a++)
    for (let b = a + 1; b < 4; b++) {
      const [from, to] = [mod(nth(before, b) - nth(before, a), 12), mod(nth(now, b) - nth(now, a), 12)];
      const sameWay = Math.sign(nth(now, a) - nth(before, a)) === Math.sign(nth(now, b) - nth(before, b));
      if (before[a] !== now[a] && from === to && [0, 7].includes(from) && sameWay)
        out.push(`parallel ${from ? "fifths" : "octaves"}`);
    }
  return out;
}

function faultsOf(form: (typeof FORMS)[number], tonic: number): string[] {
  const symbols = form.chords.map(([above, quality]) => nth(NAMES, mod(tonic + above, 12)) + quality);
  const scale = (form.minor ? MINOR : MAJOR).map((pc) => mod(pc + tonic, 12));
  const { voicings, fallbacks } = firstOf(must(voicedProgressions({ chords: symbols, style: "four-part", scale })));
  const lines = voicings.map((v) => v.map(pitchMidi));
  const chords = symbols.map((s) => must(parseChord(s)));
  const out: string[] = fallbacks.map((i) => `${symbols[i]} laid out freely`);
  const leading = mod(tonic + 11, 12);
  lines.forEach((now, i) => {
    const pcs = now.map((m) => mod(m, 12));
    const dominant = nth(form.chords, i)[0] === 7;
    if (dominant && pcs.filter((pc) => pc === leading).length > 1) out.push(`${symbols[i]}: leading tone twice`);
    const before = lines[i - 1];
    if (!before) return;
    const own = chordPitchClasses(nth(chords, i));
    const old = nth(chords, i - 1);
    const seventh = old.tones.find((t) => t.degree === 7);
    const third = old.tones.find((t) => t.role === "3");
    const root = firstOf(chordPitchClasses(old));
    let leads: number | null;
    if (third && seventh?.role === "b7") leads = mod(root + 4, 12);
    else if (nth(form.chords, i - 1)[0] === 7) leads = leading;
    else leads = null;
    const falling = seventh ? mod(root + seventh.semitones, 12) : null;
    const second = [mod(tonic + 8, 12), leading].sort().join();
    before.forEach((was, v) => {
      const move = nth(now, v) - was;
      const pc = mod(was, 12);
      const inner = v !== 0 && v !== 3;
      const stays = own.includes(pc);
      const falls = [1, 2].some((d) => own.includes(mod(pc - d, 12)));
      if (pc === falling && !stays && falls && ![-1, -2].includes(move))
        out.push(`${symbols[i]}: seventh moves ${move}`);
      if (pc === leads && !stays && own.includes(mod(pc + 1, 12)) && ![1, ...(inner ? [-3, -4] : [])].includes(move))
        out.push(`${symbols[i]}: leading tone moves ${move}`);
      if (form.minor && Math.abs(move) === 3 && [pc, mod(nth(now, v), 12)].sort().join() === second)
        out.push(`${symbols[i]}: augmented second`);
    });
    for (const kind of parallelsBetween(before, now)) out.push(`${symbols[i]}: ${kind}`);
  });
  return out;
}

test("textbook forms in four parts have no fault of part writing in any of twelve keys", () => {
  // Each form in four keys, so that all twelve come up.
  for (const [at, form] of FORMS.entries())
    for (let tonic = at % 3; tonic < 12; tonic += 3)
      expect([NAMES[tonic], form.chords.map(([a, q]) => `${a}${q}`).join(" "), faultsOf(form, tonic)]).toEqual([
        NAMES[tonic],
        form.chords.map(([a, q]) => `${a}${q}`).join(" "),
        [],
      ]);
});

test("colors and altered fifths are kept, a perfect fifth is left out first", () => {
  for (const [symbol, ...kept] of [
    ["D7(b9)", 6, 0, 3],
    ["F#m7b5", 9, 4, 0],
    ["G13", 11, 5, 4],
    ["C7(#5)", 4, 10, 8],
    ["Cmaj9", 4, 11, 2],
    ["Dm9", 5, 0, 4],
  ] as [string, ...number[]][]) {
    const { voicings } = firstOf(must(voicedProgressions({ chords: [symbol], style: "four-part" })));
    const pcs = firstOf(voicings).map((p) => mod(pitchMidi(p), 12));
    expect([symbol, kept.filter((pc) => !pcs.includes(pc))]).toEqual([symbol, []]);
  }
});
