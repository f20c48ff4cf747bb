import { firstOf, nth, sure } from "../../src/base/list";
import { BASS_STYLES } from "../../src/write/bass/styles";
import { describeReason } from "../../src/song/reasons";
import { judgeBass } from "../../src/write/bass/judge";
import { measuresOf } from "../../src/write/bass/measures";
import { must } from "../../src/base/result";
import { parseMeter } from "../../src/theory/time/meter";
import { reportBass } from "../../src/write/bass/write";
import { bassSettings } from "../../src/write/bass/write";
import type { BassSettings } from "../../src/write/bass/settings";
import { bassLines, type BassLine } from "../../src/write/bass/write";
import type { Song } from "../../src/song/schema/song";
import { demoSongs } from "../demos";
import { edit, songWith } from "../helpers";

const at = { section: "s1", part: "bass" };
const groove = nth(demoSongs(), 1);
const write = (song: Song, style: string, settings: Partial<BassSettings> = {}, seed = 1): BassLine[] =>
  must(bassLines(song, { ...at, style, seed, settings }));
test("the report measures what is there, and each measure points at its notes", () => {
  const song = songWith({
    line: "| C | C |",
    kicks: [
      [0, 100],
      [2, 100],
      [4, 100],
    ],
    bass: ["0 C2 1", "1 D2 0.5", "1.5 E2 0.5", "4 C2 2", "6 F#2 1"],
    melody: ["0 G4 4"],
  });
  const report = must(
    reportBass(edit(song, { do: "setHit", section: "s1", drum: "snare", start: 2400, velocity: 90 }), at),
  );
  expect(report).toMatchObject({
    notes: 5,
    accents: 3,
    accentsMet: 2,
    offKick: 3,
    pitchClasses: 4,
    approaches: 2,
    approachesResolved: 1,
    withoutReason: 1,
    longestOutside: 480,
    missed: [960],
    lastBarVaried: true,
    lengths: { short: 0, middle: 4, long: 1 },
    overMajor: { root: 2, third: 1, fifth: 0, other: 0 },
    backbeats: 1,
    backbeatsFree: 0,
    lowest: 36,
    highest: 42,
    repeats: 0,
  });
  expect(report.chordTime).toBeCloseTo(3.5 / 5);
  expect(report.silence).toBeCloseTo(3 / 8);
  expect(report.stepwise).toBeCloseTo(2 / 4);
  const notes = sure(firstOf(song.sections).notes.bass);
  expect(report.links.longestOutside).toEqual([nth(notes, 1).id, nth(notes, 4).id]);
  expect(report.links.backbeats).toEqual([nth(notes, 3).id]);
  const style = sure(BASS_STYLES.find((s) => s.id === "kick-locked"));
  const rows = measuresOf(report, {
    meter: must(parseMeter("4/4")),
    style,
    settings: bassSettings(sure(song.parts.find((p) => p.id === "bass")), song.sections[0], style.usual),
  });
  expect(rows.filter((r) => r.met === false).map((r) => r.id)).toEqual(
    expect.arrayContaining(["chordTime", "longestOutside", "accents", "approaches", "reasons", "backbeats"]),
  );
  expect(rows.find((r) => r.id === "accents")).toMatchObject({ value: "2 of 3", ticks: [960] });
});

test("exact repeats are counted in passes, of one bar or of two", () => {
  const bass = Array.from({ length: 5 }, (_, bar) => [`${bar * 4} C2 1`, `${bar * 4 + 2} G1 1`]).flat();
  expect(must(reportBass(songWith({ line: "| C | C | C | C | C |", bass }), at)).repeats).toBe(4);
  const pairs = [0, 1, 2].flatMap((pair) => [`${pair * 8} C2 1`, `${pair * 8 + 4} F2 1`, `${pair * 8 + 5} G2 1`]);
  expect(must(reportBass(songWith({ line: "| C | F | C | F | C | F |", bass: pairs }), at)).repeats).toBe(2);
});

test("every reason of every style has words", () => {
  for (const style of BASS_STYLES)
    for (const line of write(groove, style.id))
      for (const reason of line.reasons)
        expect(describeReason(sure(reason))).not.toMatch(/undefined|\{|^[a-z][A-Za-z]*$/);
  const verdict = must(judgeBass(groove, at));
  expect(verdict.notes.map((n) => n.weight)).toEqual([...verdict.notes.map((n) => n.weight)].sort((a, b) => a - b));
});

test("one bar has no last bar that could differ, two have; roots are read off the bass only where no chord is written", () => {
  const varied = (line: string, bass: string[]) => must(reportBass(songWith({ line, bass }), at)).lastBarVaried;
  expect(varied("| C |", ["0 C2 1", "2 C2 1"])).toBeNull();
  expect(varied("| C | C |", ["0 C2 1", "2 C2 1", "4 C2 1", "6 C2 1"])).toBe(false);
  const implied = (song: Song) => must(judgeBass(song, at)).implied.length;
  expect(implied(songWith({ line: "| C |", bass: ["0 C2 4"] }))).toBe(0);
  const bare = songWith({ bass: ["0 C2 4"] });
  expect(implied(bare)).toBeGreaterThan(0);
  expect(implied(edit(bare, { do: "setNotes", section: "s1", part: "bass", notes: [] }))).toBe(0);
});
