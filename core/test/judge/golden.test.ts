import { firstOf } from "../../src/base/list";
import { checkSong } from "../../src/judge/check/check";
import { overviewOf } from "../../src/judge/check/overview";
import { follow } from "../../src/judge/follow/follow";
import type { Profile } from "../../src/song/schema";
import { demoSongs } from "../demos";
import { goldenSong, VERSION1 } from "../fixtures";
import { expectKept } from "../kept";

const SONGS = [...demoSongs(), ...VERSION1.map(goldenSong)];

test("what each school finds in the songs, and what it offers", () => {
  const found: Record<string, string[]> = {};
  for (const song of SONGS)
    for (const profile of ["band", "chorale", "jazz"] as Profile[])
      found[`${song.title}, ${profile}`] = checkSong(song, { profile }).map(
        (f) => `${f.severity} ${f.rule} ${f.message} [${f.fixes.map((x) => x.label).join("; ")}]`,
      );
  expectKept("findings", found);
});

test("what follows when a chord changes or a tune moves", () => {
  const found: Record<string, string[]> = {};
  for (const song of SONGS) {
    const section = firstOf(song.sections);
    const chord = section.chords[1];
    found[`${song.title}, overview`] = [JSON.stringify(overviewOf(song))];
    if (!chord) continue;
    const edits = follow(song, { do: "setChord", section: section.id, chord: chord.id, symbol: "Dm9" }, { bass: true });
    found[song.title] = edits.map((e) => JSON.stringify(e));
  }
  expectKept("follow", found);
});
