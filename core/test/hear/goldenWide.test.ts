import { firstOf } from "../../src/base/list";
import { must } from "../../src/base/result";
import { factsOf } from "../../src/facts/memory";
import { accentMap } from "../../src/hear/accents/accentMap";
import { analyzeSection } from "../../src/hear/harmony/analyze";
import { pairReport } from "../../src/hear/line/between";
import { tuneAt } from "../../src/hear/line/facts";
import { tuneInShort, tuneReport } from "../../src/hear/line/report";
import { breathsOf } from "../../src/hear/singer/breaths";
import { byPower, fitKey } from "../../src/hear/singer/fit";
import { sliceSong } from "../../src/hear/slice/slices";
import { bassLines } from "../../src/write/bass/write";
import { counterLines } from "../../src/write/counter/write";
import type { Song } from "../../src/song/schema/song";
import { COUNTER_GRID, counterSong } from "../../../bench/counterGrid";
import { edit } from "../helpers";
import { expectKept, markOf } from "../kept";

/** Tune, answer and bass over chords and drums: a song of the grid with what is written for it. */
function played(i: number): Song {
  const c = COUNTER_GRID[i] ?? firstOf(COUNTER_GRID);
  const song = counterSong(c);
  const bass = must(
    bassLines(song, { section: "s1", part: "bass", style: i % 2 ? "walking" : "kick-locked", seed: i }),
  );
  const answer = counterLines(song, { section: "s1", part: "answer", style: c.style, seed: i });
  return edit(
    song,
    { do: "setNotes", section: "s1", part: "bass", notes: firstOf(bass).notes },
    { do: "setNotes", section: "s1", part: "answer", notes: answer.ok ? firstOf(answer.value).notes : [] },
  );
}

test("roles, tunes, pairs, accents, keys and breaths in songs of all meters, rows and tunes of the grid", () => {
  const found: Record<string, string[]> = {};
  for (let i = 3; i < COUNTER_GRID.length; i += 41) {
    const song = played(i);
    const { slices, roles, real } = sliceSong(song, { section: "s1" });
    const read = factsOf(song);
    const [tune, answer, bass] = ["melody", "answer", "bass"].map((p) => read.get(tuneAt, "s1", p));
    if (!tune || !answer || !bass) throw new Error("a line is missing");
    const { meter, key } = song;
    found[`${i} ${meter} ${key}`] = [
      slices.map((s) => [s.start, s.chord?.symbol, s.sounding, s.notes.map((n) => n.note.midi)]),
      [...roles].map(([part, notes]) => [part, [...notes].map(([n, spans]) => [n.start, spans])]),
      [tune, answer, bass].map((t) => (t.notes.length ? [tuneInShort(t), tuneReport(t)] : [])),
      pairReport(tune.notes, answer.notes, { meter: tune.meter, chords: real.chords }),
      pairReport(tune.notes, bass.notes, { meter: tune.meter, chords: real.chords }),
      accentMap(song, "s1"),
      analyzeSection(song, "s1").chords.map((x) => [x.roman, x.function]),
      byPower(fitKey(song)).slice(0, 3),
      breathsOf(song, { section: "s1", part: "melody" }),
    ].map(markOf);
  }
  expectKept("hearWide", found);
});
