import { nth } from "../../src/base/list";
import { analyzeEvents } from "../../src/hear/harmony/analyze";
import { must } from "../../src/base/result";
import { parseKey } from "../../src/theory/pitch/key";
import type { ChordEvent } from "../../src/song/schema/material";
import { REGIONS } from "./regions";

const events = (line: string): ChordEvent[] =>
  line.split(" ").map((symbol, i): ChordEvent => ({ id: `c${i}`, symbol, start: i * 1920, duration: 1920 }));

test.each(REGIONS)("%s: %s", (home, chords, ...stretches) => {
  const { regions } = analyzeEvents(events(chords), must(parseKey(home)), false, { meter: null });
  expect(regions.map((r) => `${r.key} ${r.from.slice(1)}-${r.to.slice(1)}`)).toEqual(stretches);
});

test("a chord of both keys shows both numerals; a foreign one that begins a stretch has none at home", () => {
  const read = (home: string, line: string) =>
    analyzeEvents(events(line), must(parseKey(home)), false, { meter: null }).chords;
  const pivot = nth(read("C major", "C Am Dm G C D7 G Em Am D7 G C F G7 C"), 4);
  expect([pivot.pivot, pivot.roman]).toEqual(["I", "IV"]);
  expect(pivot.explanation).toContain("A chord of both keys: I in C major, IV in G major.");
  const minor = nth(read("C major", "C F C G C Am E7 Am E7 Am G7 C"), 5);
  expect([minor.pivot, minor.roman]).toEqual(["vi", "i"]);
  expect(read("C major", "C Gm7 C7 F Bb C7 F G7 C").map((c) => c.pivot)).toEqual(Array(9).fill(null));
});
