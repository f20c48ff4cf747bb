/** How analysis, key finding, reharmonizing and harmonizing grow when the chords or bars are doubled, and what they cost against one pass that slices the same song. */
import {
  analyzeSection,
  findKeysOfChords,
  harmonizations,
  must,
  parseChord,
  reharmonizations,
  reharmonizeSection,
  sliceSong,
  type Song,
} from "../core/src/index";
import { longSong } from "./songs";

export function growth(time: (f: () => unknown, runs?: number) => number): void {
  const [short, long] = [16, 32].map((bars) => longSong(bars)) as [Song, Song];
  const chordsOf = (song: Song) => song.sections[0]!.chords;
  const symbols = (song: Song) => chordsOf(song).map((c) => ({ chord: must(parseChord(c.symbol)), duration: c.duration }));
  const reference = time(() => sliceSong(short, { section: "s1" }), 3);
  const read = { short: symbols(short), long: symbols(long) };
  const tune = (song: Song, rhythm: "bar" | "free" | "beat") =>
    harmonizations({ song, section: "s1", part: "melody", rhythm, color: 0.4 }, "melody");
  const rows: [string, () => unknown, () => unknown][] = [
    ["analysis of a section", () => analyzeSection(short, "s1"), () => analyzeSection(long, "s1")],
    ["keys of the chords", () => findKeysOfChords(read.short), () => findKeysOfChords(read.long)],
    [
      "offers for one chord",
      () => reharmonizations({ song: short, section: "s1", chordIds: [chordsOf(short)[5]!.id], range: 0.5 }),
      () => reharmonizations({ song: long, section: "s1", chordIds: [chordsOf(long)[5]!.id], range: 0.5 }),
    ],
    [
      "whole sections",
      () => reharmonizeSection({ song: short, section: "s1", range: 0.5 }),
      () => reharmonizeSection({ song: long, section: "s1", range: 0.5 }),
    ],
    ["harmonizing by the bar", () => tune(short, "bar"), () => tune(long, "bar")],
    ["harmonizing freely", () => tune(short, "free"), () => tune(long, "free")],
    ["harmonizing by the beat", () => tune(short, "beat"), () => tune(long, "beat")],
  ];
  console.log("sixteen bars of two chords, and twice as many; times against slicing the sixteen");
  for (const [name, once, twice] of rows) {
    const [a, b] = [time(once, 3), time(twice, 3)];
    console.log(`  ${name}: ${(a / reference).toFixed(1)} × the slices (${a.toFixed(0)} ms here); doubled ${(b / a).toFixed(1)} ×`);
  }
}
