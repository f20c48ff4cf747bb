import { lastOf, sure } from "../../src/base/list";
import { dictionary } from "cmu-pronouncing-dictionary";
import english from "hyphen/en-us";
import fc from "fast-check";
import { layWords, typedSyllables, versesOf, wordsText, writtenSyllable } from "../../src/hear/lyrics/words";
import { LIGHT_ENGLISH, soundsOf, syllablesOf, syllablesOfWord, type WordBook } from "../../src/hear/lyrics/syllables";
import { metricalLevel, parseMeter } from "../../src/theory/time/meter";
import { must } from "../../src/base/result";
import { rhythmOfWords } from "../../src/hear/lyrics/rhythm";
import type { Note } from "../../src/song/schema/material";

const SOFT = "\u00ad";
const BOOK: WordBook = {
  hyphenate: (word) => english.hyphenateSync(word, { hyphenChar: SOFT, minWordLength: 3 }).split(SOFT),
  spoken: (word) => (Object.hasOwn(dictionary, word) ? soundsOf(sure(dictionary[word])) : undefined),
  stressed: "first",
  light: LIGHT_ENGLISH,
};
const divided = (word: string, book = BOOK): string =>
  syllablesOfWord(word, book)
    .map((s) => s.text)
    .join("-");

describe("syllables", () => {
  // The CMU Pronouncing Dictionary, as the package carries it: every 41st of its words of plain letters.
  const WORDS = Object.entries(dictionary)
    .filter(([w]) => /^[a-z]{3,}$/.test(w))
    .filter((_, i) => i % 41 === 0);
  test("a word has as many as the dictionary speaks, and no letter is lost", () => {
    expect(WORDS.length).toBeGreaterThan(2500);
    const right = WORDS.filter(([w, sounds]) => {
      const found = syllablesOfWord(w, BOOK);
      expect(found.map((s) => s.text).join("")).toBe(w);
      return found.length === soundsOf(sounds).length;
    });
    expect(right.length / WORDS.length).toBeGreaterThan(0.985);
  });
  test("without a dictionary, patterns and letters alone find nine in ten", () => {
    const bare: WordBook = { hyphenate: BOOK.hyphenate, stressed: "first", light: new Set() };
    const right = WORDS.filter(([w, sounds]) => syllablesOfWord(w, bare).length === soundsOf(sounds).length);
    expect(right.length / WORDS.length).toBeGreaterThan(0.87);
  });
  test("words are divided as they are sung (common practice)", () => {
    const sung =
      "or-chard o-ver nev-er ev-er-y eve-ning lan-tern ap-ple po-em li-on be-ing cre-ate beau-ti-ful wait-ing " +
      "walked want-ed hal-le-lu-jah";
    expect(sung.split(" ").map((w) => divided(w.replaceAll("-", "")))).toEqual(sung.split(" "));
  });
  test("stresses come from the dictionary, light words have none, marks stay with their syllable, typed hyphens decide", () => {
    const line = syllablesOf("The lantern, (again) won't cre-a-te 'round", BOOK);
    expect(line.map((s) => `${s.text}${s.goesOn ? "-" : ""}${s.stress}`)).toEqual(
      "The0 lan-2 tern,0 (a-0 gain)2 won't2 cre-2 a-0 te0 'round2".split(" "),
    );
    expect(syllablesOf("  –  ", BOOK)).toEqual([]);
  });
});

describe("words under notes", () => {
  const notes = (count: number): Note[] =>
    Array.from({ length: count }, (_, i) => ({
      id: `n${i}`,
      start: i * 480,
      duration: 480,
      pitch: "C4",
      velocity: 90,
    }));
  const laid = (list: Note[], text: string, at = {}) => {
    const { notes: changes, left } = layWords(list, typedSyllables(text), at);
    const by = new Map(changes.map((c) => [c.id, c.lyrics]));
    return { list: list.map((n): Note => ({ ...n, ...(by.get(n.id) ? { lyrics: sure(by.get(n.id)) } : {}) })), left };
  };
  test("space and hyphen go on, an underline holds; what finds no note is told", () => {
    expect(typedSyllables("or-chard_ row__ a-")).toEqual(["or-", "chard", "_", "row", "_", "_", "a-"]);
    const { list, left } = laid(notes(5), "or-chard_ row of trees");
    expect(list.map((n) => sure(n.lyrics)[0])).toEqual(["or-", "chard", "_", "row", "of"]);
    expect(left).toEqual(["trees"]);
    expect(wordsText(list)).toBe("or-chard_ row of");
  });
  test("a verse leaves the others alone; words may begin at any note", () => {
    const first = laid(notes(4), "one two three four").list;
    const both = laid(first, "uno due", { from: 1, verse: 1 }).list;
    expect(both.map((n) => n.lyrics)).toEqual([["one"], ["two", "uno"], ["three", "due"], ["four"]]);
    expect([versesOf(both), wordsText(both, 0), wordsText(both, 1)]).toEqual([2, "one two three four", "uno due"]);
  });
  test("what is laid reads back as it was typed", () => {
    const word = fc
      .tuple(fc.stringMatching(/^[a-z]{1,5}(-[a-z]{1,4}){0,2}$/), fc.integer({ min: 0, max: 2 }))
      .map(([w, held]) => w + "_".repeat(held));
    fc.assert(
      fc.property(fc.array(word, { minLength: 1, maxLength: 8 }), (words) => {
        const text = words.join(" ");
        expect(wordsText(laid(notes(40), text).list)).toBe(text);
      }),
      { seed: 3, numRuns: 200 },
    );
  });
});

describe("a rhythm for words", () => {
  const lines = [
    "Lanterns hang above the orchard row",
    "every apple waits for you to go",
    "and the river turns",
    "to morning",
  ].map((l) => syllablesOf(l, BOOK));
  test.each(["4/4", "3/4", "6/8", "7/8", "2/4"])(
    "in %s: in order, inside the lines' bars, stresses stronger than the rest, a breath between",
    (text) => {
      const meter = must(parseMeter(text));
      const { placed, left } = rhythmOfWords(lines, meter, 24);
      expect(left).toBe(0);
      expect(placed.map(writtenSyllable)).toEqual(lines.flat().map(writtenSyllable));
      placed.forEach((p, i) => {
        const next = placed[i + 1];
        expect(p.duration).toBeGreaterThan(0);
        if (next) expect(p.start + p.duration).toBeLessThanOrEqual(next.start);
      });
      const mean = (list: number[]) => list.reduce((a, b) => a + b, 0) / list.length;
      const levels = (stressed: boolean) =>
        placed.filter((p) => p.stress > 0 === stressed).map((p) => metricalLevel(meter, p.start));
      expect(mean(levels(true))).toBeGreaterThan(mean(levels(false)) + 0.4);
      // A line begins at a bar line, and the one before it has ended.
      let at = 0;
      for (const line of lines) {
        const own = placed.slice(at, at + line.length);
        const after = placed[at + line.length];
        if (after) {
          const bar = Math.floor(after.start / meter.bar) * meter.bar;
          expect(lastOf(own).start + lastOf(own).duration).toBeLessThanOrEqual(bar);
        }
        at += line.length;
      }
    },
  );
  test("what does not fit the section is counted, not squeezed in", () => {
    const meter = must(parseMeter("4/4"));
    const { placed, left } = rhythmOfWords(lines, meter, 2);
    expect(placed.length + left).toBe(lines.flat().length);
    expect(Math.max(...placed.map((p) => p.start + p.duration))).toBeLessThanOrEqual(2 * meter.bar);
  });
});
