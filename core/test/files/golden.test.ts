import { firstOf } from "../../src/base/list";
import { must } from "../../src/base/result";
import { writeMidi } from "../../src/files/midi";
import { readMidi } from "../../src/files/midiRead";
import { songOfMidi } from "../../src/files/midiSong";
import { writeMusicXml } from "../../src/files/musicxml/write";
import { demoSongs } from "../demos";
import { goldenSong, VERSION1 } from "../fixtures";
import { expectKept, markOf } from "../kept";

const SONGS = [...demoSongs(), ...VERSION1.map(goldenSong)];

test("scores, measure by measure", () => {
  const found: Record<string, string[]> = {};
  for (const song of SONGS) {
    const text = writeMusicXml(song);
    const parts = text.split("<part ").slice(1);
    found[song.title] = [
      markOf(text.slice(0, text.indexOf("<part "))),
      ...parts.map((p) => p.split("<measure ").slice(1).map(markOf).join(" ")),
    ];
  }
  expectKept("musicxml", found);
});

test("MIDI files, track by track, and what is read back", () => {
  const found: Record<string, string[]> = {};
  for (const song of SONGS)
    for (const swing of ["straight", "played"] as const) {
      const bytes = writeMidi(song, { swing });
      const contents = must(readMidi(bytes));
      const { song: back } = must(songOfMidi(contents, "song.mid"));
      found[`${song.title}, ${swing}`] = [
        markOf(Buffer.from(bytes).toString("hex")),
        ...contents.tracks.map((t) => `${t.name} ${t.notes.length} ${markOf(JSON.stringify(t.notes))}`),
        `${back.key} ${back.meter} ${back.tempo}`,
        firstOf(back.sections)
          .chords.map((c) => `${c.start} ${c.symbol}`)
          .join(", "),
      ];
    }
  expectKept("midi", found);
});
