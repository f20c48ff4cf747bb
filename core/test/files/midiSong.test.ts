import { writeMidi as writeFile, type MidiEvent } from "midi-file";
import { firstOf, sure } from "../../src/base/list";
import { must } from "../../src/base/result";
import { readMidi } from "../../src/files/midiRead";
import { songOfMidi } from "../../src/files/midiSong";
import type { Song } from "../../src/song/schema/song";
import { edit, notesOf, songWith } from "../helpers";
import { writeMidi } from "../../src/files/midi";

/** The instrument that a file gives a line which was written for one, from its program, its range and its voices. */
function readAs(instrument: string, notes: string[]): string {
  const added = edit(songWith({ line: "| C | C |", bass: ["0 C2 4"] }), {
    do: "addPart",
    name: "Line",
    role: "counter",
    instrument,
    notes: { s1: notesOf(notes) },
  });
  const { song: read } = must(songOfMidi(must(readMidi(writeMidi(added, { swing: "straight" }))), "line.mid"));
  return sure(read.parts.find((p) => p.name.startsWith("Line"))).instrument;
}

test("a program is the instrument of that number; one that cannot play it is another that can", () => {
  const line = ["0 C5 1", "1 D5 1", "2 E5 1", "3 F5 1"];
  expect(readAs("clarinet", line)).toBe("clarinet");
  expect(readAs("flute", line)).toBe("flute");
  // Too high, too low, or several notes at once: none of them is a clarinet.
  expect(readAs("clarinet", ["0 C8 1", "1 B7 1"])).not.toBe("clarinet");
  expect(readAs("clarinet", ["0 C2 1", "1 D2 1"])).not.toBe("clarinet");
  expect(readAs("clarinet", ["0 C5 1", "0 E5 1", "0 G5 1"])).not.toBe("clarinet");
  expect(firstOf([readAs("flute", ["0 C3 1"])])).not.toBe("flute");
});

/** A track of the registry package's own encoder. */
const track = (name: string, channel: number, pitches: readonly number[]): MidiEvent[] => [
  { deltaTime: 0, type: "trackName", meta: true, text: name },
  ...pitches.flatMap((noteNumber): MidiEvent[] => [
    { deltaTime: 0, type: "noteOn", channel, noteNumber, velocity: 90 },
    { deltaTime: 480, type: "noteOff", channel, noteNumber, velocity: 0 },
  ]),
  { deltaTime: 0, type: "endOfTrack", meta: true },
];
const songOf = (...tracks: MidiEvent[][]) =>
  must(
    songOfMidi(
      must(
        readMidi(
          Uint8Array.from(writeFile({ header: { format: 1, numTracks: tracks.length, ticksPerBeat: 480 }, tracks })),
        ),
      ),
      "band",
    ),
  ).song;
const UP = [60, 62, 64, 65];

test("parts are called as their tracks; those of one name or none after what plays them, numbered where they share it", () => {
  const names = (...of: string[]) =>
    songOf(...of.map((name, i) => track(name, i, UP)))
      .parts.map((p) => p.name)
      .filter((n) => n !== "Drums");
  expect(names("Row one", "Row two").sort()).toEqual(["Row one", "Row two"]);
  expect(names("Track 1", "Row two").sort()).toEqual(["Grand piano", "Row two"]);
  expect(names("Row", "Row").sort()).toEqual(["Grand piano 1", "Grand piano 2"]);
});

test("a track that plays one drum is a drum, by its name and its pitches; a tune with such a name is a tune", () => {
  const beats = (song: Song, drum: string) =>
    firstOf(song.sections).groove.lanes.find((l) => l.drum === drum)?.hits.length;
  const song = songOf(
    track("Tune", 0, UP),
    track("HIP_Kick_8", 1, [60, 60]),
    track("Hat", 2, [61]),
    track("Drums", 9, [38]),
  );
  expect([beats(song, "kick"), beats(song, "closedHat"), beats(song, "snare")]).toEqual([2, 1, 1]);
  expect(song.parts.map((p) => p.name).sort()).toEqual(["Drums", "Tune"]);
  const sung = songOf(track("Tune", 0, UP), track("Snare song", 1, [60, 62, 64]), track("Snare", 2, [60, 62]));
  expect(sung.parts.map((p) => p.name).sort()).toEqual(["Drums", "Snare song", "Tune"]);
});
