import { chordParserFactory } from "chord-symbol";
import { chordPitchClasses, chordSymbol } from "../../src/theory/chord/chord";
import { mod, pitchClass } from "../../src/theory/pitch/pitch";
import { must } from "../../src/base/result";
import { parseChord } from "../../src/theory/chord/parse";
import { DIFFERENCES, REFUSED, SPELLINGS } from "./spellings";

const ROOTS = ["C", "C#", "Db", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"];

test("every spelling means what it says, on every root, and its canonical name reads back as the same chord", () => {
  const wrong: unknown[] = [];
  for (const [written, means] of SPELLINGS)
    for (const root of ROOTS) {
      const read = parseChord(root + written);
      const symbol = read.ok ? chordSymbol(read.value) : read.error.message;
      if (symbol !== root + means) wrong.push([root + written, symbol, means]);
      else if (JSON.stringify(must(parseChord(symbol)).tones) !== JSON.stringify(must(read).tones))
        wrong.push([root + written, "reads back"]);
    }
  expect(wrong).toEqual([]);
  expect(SPELLINGS.length * ROOTS.length).toBeGreaterThan(600);
});

test("a second reader reads the same notes, or the difference is known and decided", () => {
  const other = chordParserFactory();
  const found: Record<string, string> = {};
  let compared = 0;
  for (const [written] of SPELLINGS)
    for (const root of ROOTS) {
      const theirs = other(root + written);
      if (!("normalized" in theirs)) continue;
      compared++;
      const a = [...new Set(theirs.normalized.semitones.map((s) => mod(s, 12)))].sort((x, y) => x - y).join();
      const b = chordPitchClasses(must(parseChord(root + written)))
        .map((pc) => mod(pc - pitchClass(root), 12))
        .sort((x, y) => x - y)
        .join();
      if (a !== b) found[written] = `${b} here, ${a} there`;
    }
  expect(compared).toBeGreaterThan(1000);
  expect(found).toEqual(Object.fromEntries(Object.keys(DIFFERENCES).map((k) => [k, found[k]])));
  expect(Object.values(DIFFERENCES).every((why) => why.length > 20)).toBe(true);
});

test.each(REFUSED)("%s is refused, and where is said", (symbol, column) => {
  const read = parseChord(symbol);
  expect(read.ok ? chordSymbol(read.value) : read.error.position).toBe(column);
});
