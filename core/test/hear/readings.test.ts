import { nth } from "../../src/base/list";
import fc from "fast-check";
import { analyzeProgression } from "../../src/hear/harmony/analyze";
import { must } from "../../src/base/result";
import { parseChord } from "../../src/theory/chord/parse";
import { parseKey } from "../../src/theory/pitch/key";
import { transposeNote, typeset } from "../../src/theory/pitch/pitch";
import type { Chord } from "../../src/theory/chord/chord";
import type { ChordEvent } from "../../src/song/schema/material";
import { toneName } from "../../src/theory/chord/chord";
import { namesIn } from "./names";
import { MORE_READINGS } from "./moreReadings";
import { READINGS } from "./readings";

const events = (line: string): ChordEvent[] =>
  line
    .split(" ")
    .map(
      (symbol, i) => ({ id: `c${i}`, symbol, start: i * 1920, duration: 1920, voicings: {} }) as unknown as ChordEvent,
    );

test.each([...READINGS, ...MORE_READINGS])("%s: %s", (key, chords, reading) => {
  const found = analyzeProgression(events(chords), key).map((c) =>
    c.category === "diatonic" ? c.roman : `${c.roman}:${c.category}`,
  );
  expect(found.join(" ")).toBe(reading);
});

const ROOTS = ["C", "Db", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"];
const ENDINGS = ["", "", "m", "m", "7", "7", "maj7", "m7", "m7b5", "dim7", "7sus4", "6", "m6", "9", "7(b9)", "aug"];
const KEYS = [
  "C major",
  "A minor",
  "Eb major",
  "F# minor",
  "G mixolydian",
  "D dorian",
  "F lydian",
  "E phrygian",
  "Bb major",
  "C minor",
];
const random = fc.record({
  key: fc.constantFrom(...KEYS),
  chords: fc.array(
    fc.tuple(fc.constantFrom(...ROOTS), fc.constantFrom(...ENDINGS)).map(([r, e]) => r + e),
    { minLength: 2, maxLength: 6 },
  ),
});

test(
  "a sentence names only notes of its chord, of the key and of the chords beside it, as they are spelled there; " +
    "no list is empty",
  () => {
    const wrong: unknown[] = [];
    fc.assert(
      fc.property(random, ({ key, chords }) => {
        const read = must(parseKey(key));
        const heard = chords.map((c) => must(parseChord(c)));
        const spelled = (c: Chord) => [...c.tones.map((t) => toneName(c, t)), ...(c.bass ? [c.bass] : [])];
        // What a sentence may add: the variable degrees of the key, and the root a substitute or an incomplete chord
        // stands for.
        const own = [
          ...read.scale,
          ...[1, 3, 5, 6].flatMap((i) => [1, -1].map((by) => transposeNote(nth(read.scale, i), 0, by))),
        ];
        analyzeProgression(events(chords.join(" ")), key, { loop: true }).forEach((c, i) => {
          const beside = heard.flatMap(spelled);
          const text = c.explanation;
          if (/undefined|null|NaN|[:,] *[.;]| and come|from there|^\s/.test(text) && !/ comes? from there/.test(text))
            wrong.push([key, chords.join(" "), text]);
          for (const name of namesIn(text))
            if (![...own, ...beside, ...spelled(nth(heard, i))].includes(name))
              wrong.push([key, chords.join(" "), c.symbol, c.category, name, text]);
          for (const o of c.outside) {
            // The arrow goes where the sentence says.
            const leads = new RegExp(
              `${typeset(o.note)} (?:is its third and leads up to|falls to|rises to) ([A-G][♭♯𝄫𝄪]?)`,
            ).exec(text);
            if (leads && leads[1] !== typeset(o.wants))
              wrong.push([key, chords.join(" "), c.symbol, text, o.note, o.wants]);
          }
        });
      }),
      { numRuns: 250, seed: 21 },
    );
    expect(wrong.slice(0, 12)).toEqual([]);
  },
);
