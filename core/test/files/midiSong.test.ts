import { firstOf, sure } from "../../src/base/list";
import { must } from "../../src/base/result";
import { readMidi } from "../../src/files/midiRead";
import { songOfMidi } from "../../src/files/midiSong";
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
