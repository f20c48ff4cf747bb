import { must } from "../../src/base/result";
import { fitOf, tuneAndBass } from "../../src/arrange/reharm/fit";
import { parseChord } from "../../src/theory/chord/parse";
import { parseKey } from "../../src/theory/pitch/key";
import { parseMeter } from "../../src/theory/time/meter";
import { edit, songWith } from "../helpers";

const notes = (...pitches: [start: number, duration: number, pitch: string][]) =>
  pitches.map(([start, duration, pitch]) => ({ start, duration, pitch, velocity: 80 }));

test("a tune that rests on the root rubs against the major seventh below it; the bass that states it does not", () => {
  const song = edit(
    songWith({ line: "| Cmaj7 | F |" }),
    { do: "setNotes", section: "s1", part: "melody", notes: notes([0, 960, "C5"]) },
    { do: "setNotes", section: "s1", part: "bass", notes: notes([0, 960, "C2"]) },
  );
  const lines = tuneAndBass(song, "s1", must(parseMeter("4/4")));
  const fit = (symbol: string, of: typeof lines.melody, from = 0, to = 1920) =>
    fitOf(must(parseChord(symbol)), must(parseKey("C major")), { from, to, notes: of, lines });
  expect(fit("Cmaj7", lines.melody).clashes.map((c) => c.text)).toEqual([
    "Voice: C5 at bar 1, beat 1 would rub against B, the major seventh of Cmaj7, 2 beats",
  ]);
  // However the notes were chosen: a line that is harmonized is a list of its own.
  expect(fit("Cmaj7", [...lines.bass]).clashes).toEqual([]);
  expect(fit("Cmaj7", lines.bass).chordTones).toBe(1);
  // Only what sounds under the chord counts, for as long as it does.
  expect(fit("F#m", lines.melody, 959, 1920).cost).toBeLessThan(fit("F#m", lines.melody, 0, 1920).cost);
  expect(fit("F#m", lines.melody, 960, 1920)).toEqual({ chordTones: 0, tensions: 0, clashes: [], cost: 0 });
});
