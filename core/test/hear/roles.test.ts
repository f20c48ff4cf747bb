import { nth, sure } from "../../src/base/list";
import { sliceSong, slices } from "../../src/hear/slice/slices";
import type { Song } from "../../src/song/schema/song";
import { songWith } from "../helpers";

describe("roles of notes", () => {
  const labels = (song: Song, part: string) => {
    const data = sliceSong(song, { section: "s1" });
    return sure(data.real.parts.find((p) => p.id === part)).notes.map((n) =>
      sure(sure(data.roles.get(part)).get(n))
        .map((s) => s.label)
        .join(">"),
    );
  };
  test("non-chord tones by how they are approached and left (any harmony textbook)", () => {
    expect(
      labels(
        songWith({ line: "| C | G |", melody: ["0 E4 1", "1 F4 0.5", "1.5 G4 1", "2.5 F#4 0.5", "3 G4 1"] }),
        "melody",
      ),
    ).toEqual(["3", "p", "5", "n", "5"]);
    expect(labels(songWith({ line: "| F | C |", melody: ["2 F4 3", "5 E4 1"] }), "melody")).toEqual(["R>s", "3"]);
    expect(labels(songWith({ line: "| G | C |", melody: ["0 B4 3.5", "3.5 C5 0.5", "4 C5 2"] }), "melody")).toEqual([
      "3",
      "an",
      "R",
    ]);
    expect(labels(songWith({ line: "| C | C |", melody: ["0 G4 1", "1 C#5 0.5", "1.5 C5 1"] }), "melody")).toEqual([
      "5",
      "app",
      "R",
    ]);
    expect(
      labels(songWith({ line: "| C | F |", bass: ["0 C2 3.5", "3.5 E2 0.5", "4 F2 2", "7.5 F#2 0.5"] }), "bass"),
    ).toEqual(["R", "3", "R", "×"]);
    expect(labels(songWith({ line: "| C | Dbmaj7 | C |", bass: ["0 C2 9"] }), "bass")[0]).toBe("R>7>R");
    expect(labels(songWith({ line: "| C | D | C |", bass: ["0 C2 9"] }), "bass")[0]).toBe("R>ped>R");
    // The loop: the last note leads into the first.
    expect(labels(songWith({ line: "| C | F |", bass: ["0 C2 1", "7.5 B1 0.5"] }), "bass")).toEqual(["R", "ap"]);
  });
  test("slices carry chord, kick, sounding bass and follow each other without gaps", () => {
    const song = songWith({
      line: "| C | F |",
      kicks: [
        [0, 80],
        [2.5, 70],
        [3.5, 100],
      ],
      bass: ["0 E2 3", "4 F2 4"],
    });
    const list = slices(song, { section: "s1" });
    list.slice(1).forEach((s, i) => expect(s.start).toBe(nth(list, i).start + nth(list, i).duration));
    expect(list[0]).toMatchObject({ sounding: "C/E", kick: { main: true } });
    expect(sure(sure(list.find((s) => s.start === 1200)).kick).main).toBe(false);
    expect(sure(sure(list.find((s) => s.start === 1680)).kick).main).toBe(true);
    expect(sure(list.find((s) => s.start === 1920)).sounding).toBe("F");
  });
});
