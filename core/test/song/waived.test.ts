import { firstOf, sure } from "../../src/base/list";
import { checkSong } from "../../src/judge/check/check";
import type { Song } from "../../src/song/schema/song";
import type { Edit } from "../../src/song/edits/list";
import { edit, songWith } from "../helpers";

/** A tune that rubs against the piano's C, left with a reason. */
const bare = songWith({ line: "| C | C |", melody: ["0 C#5 2", "2 E5 2", "4 C#5 2"], bass: ["0 C2 4", "4 C2 4"] });
const keyed = firstOf(bare.sections).chords.reduce(
  (s, c) => edit(s, { do: "pinVoicing", section: "s1", part: "keys", chord: c.id, pitches: ["C4", "E4", "G4"] }),
  bare,
);
const outside = (song: Song) => checkSong(song).filter((f) => f.rule === "long-outside");
const first = sure(firstOf(outside(keyed)).places[0]);
const left = edit(keyed, { do: "waive", finding: first.id, duration: first.duration, reason: "a blue note" });
const tune = sure(firstOf(left.sections).notes.melody);
const change = (...notes: { id: string; pitch?: string; start?: number; duration?: number }[]): Edit => ({
  do: "changeNotes",
  section: "s1",
  part: "melody",
  notes,
});
const ticks = (song: Song, waived: boolean) =>
  outside(song)
    .filter((f) => (f.waived !== undefined) === waived)
    .flatMap((f) => f.places.map((p) => p.tick));

test("a place that is left is left alone: another place, another pitch, a longer note are told again", () => {
  expect([ticks(left, true), ticks(left, false)]).toEqual([[0], [1920]]);
  const [note] = tune;
  const told = (e: Edit) => ticks(edit(left, e), false);
  expect(told(change({ id: sure(note).id, pitch: "D#5" }))).toEqual([0, 1920]);
  expect(told(change({ id: sure(note).id, duration: 961 }))).toEqual([0, 1920]);
  expect(told(change({ id: sure(note).id, duration: 959 }))).toEqual([1920]);
});

test("a waiver goes along when its notes are written anew, moved in time or transposed, and stays when others are", () => {
  const id = sure(tune[0]).id;
  const about = (song: Song) => firstOf(song.waivers).about;
  expect(about(left)).toBe("0|C#5");
  expect(about(edit(left, change({ id, pitch: "Db5" })))).toBe("0|Db5");
  expect(about(edit(left, change({ id, start: 240 })))).toBe("240|C#5");
  expect(about(edit(left, change({ id: sure(tune[1]).id, pitch: "F5" })))).toBe("0|C#5");
  // One note with another pitch is another matter; all of them moved are the same one.
  expect(about(edit(left, change({ id, pitch: "D#5" })))).toBe("0|C#5");
  const up = ["D#5", "F#5", "D#5"].map((pitch, i) => ({ id: sure(tune[i]).id, pitch }));
  expect(about(edit(left, change(...up)))).toBe("0|D#5");
  expect(about(edit(left, { do: "transpose", key: "D major", semitones: 2 }))).toBe("0|D#5");
  for (const song of [edit(left, change({ id, pitch: "Db5" })), edit(left, change({ id, start: 240 }))])
    expect(ticks(song, true)).toHaveLength(1);
});

test("of a pair both must move alike: one that moves against the other makes another matter", () => {
  const two = edit(
    songWith({ line: "| C |", melody: ["0 C5 4"], bass: ["0 C2 4"] }),
    {
      do: "addPart",
      name: "Alto",
      role: "vocal",
      instrument: "alto",
      notes: { s1: [{ start: 0, duration: 1920, pitch: "B4", velocity: 80 }] },
    },
    { do: "setPart", part: "melody", instrument: "soprano" },
  );
  const rub = sure(checkSong(two).find((f) => f.rule === "voice-clash"));
  const kept = edit(two, { do: "waive", finding: rub.id, reason: "wanted" });
  const [alto, melody] = [sure(rub.where.parts[0]), "melody"];
  const note = (part: string) => sure(firstOf(kept.sections).notes[part]?.[0]).id;
  const to = (part: string, pitch: string): Edit => ({
    do: "changeNotes",
    section: "s1",
    part,
    notes: [{ id: note(part), pitch }],
  });
  const both = edit(kept, { do: "all", label: "up", edits: [to(melody, "D5"), to(alto, "C#5")] });
  expect(firstOf(both.waivers).about.split("|")[1]?.split(" ").sort()).toEqual(["C#5", "D5"]);
  const one = edit(kept, to(alto, "Bb4"));
  expect(firstOf(one.waivers).about).toBe(firstOf(kept.waivers).about);
});
