import { nth } from "../../src/base/list";
import { must, ok, type Result } from "../../src/base/result";
import type { BassSettings } from "../../src/write/bass/settings";
import { BASS_STYLES } from "../../src/write/bass/styles";
import { bassLines } from "../../src/write/bass/write";
import { counterLines } from "../../src/write/counter/write";
import { vocalLines } from "../../src/write/vocal/write";
import { GRID, gridSong } from "../../../bench/bassGrid";
import { COUNTER_GRID, counterSong } from "../../../bench/counterGrid";
import { vocalSong, VOCAL_GRID } from "./vocalGrid";
import { expectKept, markOf } from "../kept";

/** Lines without the number they were found with: what is played and said of it is marked. */
const unnumbered = <L extends { found?: number }>(lines: Result<L[]>) =>
  lines.ok ? ok(lines.value.map(({ found: _, ...line }) => line)) : lines;

/** Settings of a bass, one after another over the grid. */
const SETTINGS: readonly Partial<BassSettings>[] = [
  {},
  { density: 0.2, gate: "cut", rests: true, pitches: 2 },
  { density: 0.9, gate: "ring", slides: "some", ownFigure: true },
  { density: 0.6, overMajor: "third", octaves: "none", length: "short", variation: 0.9 },
];

test("bass lines over the grid of meters, kicks and rows, with settings of all kinds", () => {
  const found: Record<string, string[]> = {};
  for (const style of BASS_STYLES)
    found[style.id] = GRID.filter((c) => c.style === style.id)
      .filter((_, i) => i % 97 === 11)
      .map((c, i) => {
        const settings = nth(SETTINGS, i % SETTINGS.length);
        const lines = bassLines(gridSong(c), { section: "s1", part: "bass", style: c.style, seed: i, settings });
        return `${c.meter} ${c.kick} ${c.key} ${markOf(must(unnumbered(lines)))}`;
      });
  expectKept("bassWide", found);
});

test("counter melodies over the grid of meters, tunes and rows", () => {
  const found: Record<string, string[]> = {};
  COUNTER_GRID.forEach((c, i) => {
    if (i % 19 !== 5) return;
    const lines = counterLines(counterSong(c), { section: "s1", part: "answer", style: c.style, seed: i });
    (found[c.style] ??= []).push(`${c.meter} ${c.tune} ${c.key} ${markOf(unnumbered(lines))}`);
  });
  expectKept("counterWide", found);
});

test("voices over the grid of schools, meters, tunes and rows", () => {
  const found: Record<string, string[]> = {};
  VOCAL_GRID.forEach((c, i) => {
    if (i % 13 !== 4) return;
    const lines = vocalLines(vocalSong(c), {
      ...{ section: "s1", part: "beside", lead: "melody", school: c.school, voices: c.voices, seed: i },
    });
    (found[c.school] ??= []).push(`${c.meter} ${c.tune} ${c.key} ${c.voices} ${markOf(unnumbered(lines))}`);
  });
  expectKept("vocalWide", found);
});
