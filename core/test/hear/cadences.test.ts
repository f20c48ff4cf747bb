import { analyzeEvents } from "../../src/hear/harmony/analyze";
import { must } from "../../src/base/result";
import { parseKey } from "../../src/theory/pitch/key";
import { parseMeter } from "../../src/theory/time/meter";
import type { ChordEvent } from "../../src/song/schema/material";

const METER = must(parseMeter("4/4"));
const events = (line: string): ChordEvent[] =>
  line.split(" ").map((symbol, i): ChordEvent => ({ id: `c${i}`, symbol, start: i * METER.bar, duration: METER.bar }));
const cadences = (key: string, line: string) =>
  analyzeEvents(events(line), must(parseKey(key)), false, { meter: METER }).cadences.map(
    (c) => `${c.kind} ${c.from}-${c.to}`,
  );

/**
 * Names as in harmony textbooks (Kostka & Payne; Levine for the backdoor and the substitute), from memory; one chord a
 * bar, phrases of four.
 */
test.each<[key: string, line: string, ...expected: string[]]>([
  ["C major", "C F G7 C", "perfect c2-c3"],
  ["C major", "C F G/B C", "imperfect c2-c3"],
  ["C major", "C F G7 C7", "perfect c2-c3"],
  ["A minor", "Am Dm E7 A", "perfect c2-c3"],
  ["C major", "C Am Dm G", "half c2-c3"],
  ["A minor", "Am G F E", "phrygian half c2-c3"],
  ["C major", "C F G7 Am", "deceptive c2-c3"],
  ["C major", "C F G7 Ab", "deceptive c2-c3"],
  ["A minor", "Am Dm E7 F", "deceptive c2-c3"],
  ["C major", "C Am F C", "plagal c2-c3"],
  ["C major", "C Am Fm C", "minor plagal c2-c3"],
  ["C major", "C Dm7 Db7 Cmaj7", "substitute c2-c3"],
  ["C major", "C Fm7 Bb7 Cmaj7", "backdoor c2-c3"],
  ["C major", "C F Bb C", "modal c2-c3"],
  ["G mixolydian", "G C F G", "modal c2-c3"],
  ["A minor", "Am F G Am", "modal c2-c3"],
  // The last chord again, or in another color, hides none of them; a suspension belongs to its dominant.
  ["C major", "F F C C", "plagal c1-c2"],
  ["C major", "Dm7 G7sus4 G7 C C C C6 C", "perfect c2-c3"],
  ["C major", "C G7 C C", "perfect c1-c2"],
  ["C major", "C F G7sus4 G7", "half c1-c3"],
  // In the middle of a phrase IV to I is no cadence.
  ["C major", "F C Dm Em", ...[]],
])("%s: %s", (key, line, ...expected) => {
  expect(cadences(key, line)).toEqual(expected);
});
