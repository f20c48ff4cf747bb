/**
 * How analysis, key finding, reharmonizing, harmonizing, engraving and the form grow when the chords or bars are
 * doubled, and what they cost against one pass that slices the same song.
 */
import { firstOf, nth } from "../core/src/base/list";
import { Chord, Fact, Form, Key, MusicXml, must, Notation, Reharm, type Song } from "../core/src/index";
import { analyzeSection } from "../core/src/hear/harmony/analyze";
import { sliceSong } from "../core/src/hear/slice/slices";
import { longSong } from "./songs";

export function growth(time: (f: () => unknown, runs?: number) => number): void {
  const [short, long] = [16, 32].map((bars) => longSong(bars)) as [Song, Song];
  const chordsOf = (song: Song) => firstOf(song.sections).chords;
  const symbols = (song: Song) =>
    chordsOf(song).map((c) => ({ chord: must(Chord.parse(c.symbol)), duration: c.duration }));
  const reference = time(() => sliceSong(short, { section: "s1" }), 3);
  const read = { short: symbols(short), long: symbols(long) };
  const tune = (song: Song, rhythm: "bar" | "free" | "beat") =>
    Reharm.harmonize({ song, section: "s1", part: "melody", rhythm, color: 0.4 }, "melody");
  const engraved = (song: Song) => song.parts.map((p) => Notation.engrave(song, "s1", p.id));
  // Every second pass in another key, so that not all are equal.
  const passes = (song: Song, n: number): Song => ({
    ...song,
    form: Array.from({ length: n }, (_, i) => ({
      id: `o${i + 900}`,
      sectionId: "s1",
      ...(i % 2 ? { transpose: 2 } : {}),
    })),
  });
  const busy = (song: Song) => Form.busy(song, Fact.memory().at(song));
  const rows: [string, () => unknown, () => unknown][] = [
    ["analysis of a section", () => analyzeSection(short, "s1"), () => analyzeSection(long, "s1")],
    ["keys of the chords", () => Key.ofChords(read.short), () => Key.ofChords(read.long)],
    [
      "offers for one chord",
      () => Reharm.find({ song: short, section: "s1", chordIds: [nth(chordsOf(short), 5).id], range: 0.5 }),
      () => Reharm.find({ song: long, section: "s1", chordIds: [nth(chordsOf(long), 5).id], range: 0.5 }),
    ],
    [
      "whole sections",
      () => Reharm.section({ song: short, section: "s1", range: 0.5 }),
      () => Reharm.section({ song: long, section: "s1", range: 0.5 }),
    ],
    ["harmonizing by the bar", () => tune(short, "bar"), () => tune(long, "bar")],
    ["harmonizing freely", () => tune(short, "free"), () => tune(long, "free")],
    ["harmonizing by the beat", () => tune(short, "beat"), () => tune(long, "beat")],
    ["engraving all parts", () => engraved(short), () => engraved(long)],
    ["MusicXML", () => MusicXml.write(short), () => MusicXml.write(long)],
    ["times of 40 and 80 passes", () => Form.of(passes(short, 40)), () => Form.of(passes(short, 80))],
    ["how busy parts are in 40 and 80 passes", () => busy(passes(short, 40)), () => busy(passes(short, 80))],
  ];
  console.log("sixteen bars of two chords, and twice as many; times against slicing the sixteen");
  for (const [name, once, twice] of rows) {
    const [a, b] = [time(once, 3), time(twice, 3)];
    const times = `${(a / reference).toFixed(1)} × the slices (${a.toFixed(0)} ms here)`;
    console.log(`  ${name}: ${times}; doubled ${(b / a).toFixed(1)} ×`);
  }
}
