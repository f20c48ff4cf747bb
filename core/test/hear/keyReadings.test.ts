import { firstOf } from "../../src/base/list";
import { chordSymbol, type Chord } from "../../src/theory/chord/chord";
import { findKeysOfChords } from "../../src/hear/harmony/keys";
import { must } from "../../src/base/result";
import { parseChord } from "../../src/theory/chord/parse";
import { parseKey, transposeKey } from "../../src/theory/pitch/key";
import { transposeNote } from "../../src/theory/pitch/pitch";
import { KEY_READINGS } from "./keyReadings";

const read = (line: string): Chord[] => line.split(" ").map((s) => must(parseChord(s)));
const fits = (chords: readonly Chord[]) => findKeysOfChords(chords.map((chord) => ({ chord, duration: 1920 })));

test.each(KEY_READINGS)("%s", (line, ...keys) => {
  const found = fits(read(line));
  expect(keys).toContain(firstOf(found).key);
  // Where two keys are heard, the other is near.
  for (const key of keys) expect(found.slice(0, 4).map((f) => f.key)).toContain(key);
});

test("whatever the key is called, it is found as well a minor third higher", () => {
  const up = (note: string) => transposeNote(note, 2, 3);
  for (const [line, ...keys] of KEY_READINGS) {
    const moved = read(line).map((c) =>
      must(parseChord(chordSymbol({ ...c, root: up(c.root), ...(c.bass ? { bass: up(c.bass) } : {}) }))),
    );
    const pcs = keys.map((k) => {
      const key = transposeKey(must(parseKey(k)), 3);
      return `${key.pcs[0]} ${key.mode}`;
    });
    const best = must(parseKey(firstOf(fits(moved)).key));
    expect([line, pcs.includes(`${best.pcs[0]} ${best.mode}`)]).toEqual([line, true]);
  }
});
