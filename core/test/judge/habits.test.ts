import { firstOf, sure } from "../../src/base/list";
import { checkSong, habitsJudged } from "../../src/judge/check/check";
import type { Song } from "../../src/song/schema/song";
import { edit, songWith } from "../helpers";

/** So many bars with a kick on the first beat, of which some have a bass note there and the others one beat later. */
function offTheKick(bars: number, met: number): Song {
  const kicks = Array.from({ length: bars }, (_, b): [number, number] => [4 * b, 100]);
  const bass = Array.from({ length: bars }, (_, b) => `${4 * b + (b < met ? 0 : 1)} C2 1`);
  const long = edit(songWith({ line: `|${" C |".repeat(bars)}` }), { do: "setSection", section: "s1", bars });
  const song = kicks.reduce(
    (s, [beat, velocity]) => edit(s, { do: "setHit", section: "s1", drum: "kick", start: beat * 480, velocity }),
    long,
  );
  const notes = bass.map((text) => {
    const [beat, pitch] = text.split(" ");
    return { start: Number(beat) * 480, duration: 480, pitch: sure(pitch), velocity: 90 };
  });
  return edit(song, { do: "setNotes", section: "s1", part: "bass", notes });
}
const told = (song: Song) => sure(checkSong(song).find((f) => f.rule === "uncovered-accent"));

test("what happens at four fifths of its chances, and eight times at least, is a habit: a note with its count", () => {
  const habit = told(offTheKick(10, 2));
  expect([habit.severity, habit.amount, habit.habit]).toEqual([
    "note",
    "8 of 10",
    { times: 8, chances: 10, otherwise: "warning" },
  ]);
  expect(habit.message).toContain("8 of 10 times: a habit");
  expect(habit.places).toHaveLength(8);
  // Less than four fifths, or fewer than eight, are told as they are.
  expect([told(offTheKick(11, 3)).severity, told(offTheKick(11, 3)).habit]).toEqual(["warning", undefined]);
  expect([told(offTheKick(7, 0)).severity, told(offTheKick(7, 0)).amount]).toEqual(["warning", "7 places"]);
});

test("asked for, a habit is judged as what happens once: as grave, with its places, before what is lighter", () => {
  const found = checkSong(offTheKick(10, 2));
  const judged = habitsJudged(found);
  const habit = sure(judged.find((f) => f.rule === "uncovered-accent"));
  expect([habit.severity, habit.amount, habit.habit, habit.places.length]).toEqual([
    "warning",
    "8 places",
    undefined,
    8,
  ]);
  expect(habit.message).not.toContain("habit");
  expect(judged.map((f) => f.severity)).toEqual(
    judged
      .map((f) => f.severity)
      .toSorted()
      .toReversed(),
  );
  expect(judged).toHaveLength(found.length);
});

test("a name that was read off the notes and is not sure may be wrong: lighter, said, with the name that fits", () => {
  const bare = songWith({ line: "| C |", melody: ["0 F#4 4"], bass: ["0 C2 4"] });
  const chord = firstOf(firstOf(bare.sections).chords).id;
  const song = edit(bare, { do: "pinVoicing", section: "s1", part: "keys", chord, pitches: ["C3", "E3", "G3"] });
  const read = (certainty: number): Song => ({
    ...song,
    sections: song.sections.map((s) => ({ ...s, chords: s.chords.map((c) => ({ ...c, certainty })) })),
  });
  const long = (s: Song) => sure(checkSong(s).find((f) => f.rule === "long-outside"));
  expect([long(song).severity, long(read(0.75)).severity, long(read(0.74)).severity]).toEqual([
    "warning",
    "warning",
    "note",
  ]);
  expect(long(read(0.74)).message).toContain("The name C was read off the notes and may be wrong.");
  const [first] = long(read(0.5)).fixes;
  expect(sure(first).label).toMatch(/^Write C/);
  // Who writes a name knows it.
  const renamed = edit(read(0.5), sure(first).edit);
  expect(firstOf(firstOf(renamed.sections).chords).certainty).toBeUndefined();
  expect(checkSong(renamed).filter((f) => f.family === "vertical" && f.rule === "long-outside")).toEqual([]);
});

test("winds breathe too: a clarinet after twelve seconds, a trumpet after ten, a violin never", () => {
  const held = (instrument: string, beats: number) => {
    const song = edit(
      songWith({
        line: `|${" C |".repeat(8)}`,
        melody: Array.from({ length: beats }, (_, b) => `${b} ${b % 2 ? "E5" : "G4"} 1`),
      }),
      { do: "setTempo", tempo: 60 },
      { do: "setPart", part: "melody", instrument },
    );
    return checkSong(song).some((f) => f.rule === "breath");
  };
  expect([held("clarinet", 12), held("clarinet", 13)]).toEqual([false, true]);
  expect([held("trumpet", 10), held("trumpet", 11)]).toEqual([false, true]);
  expect(held("violin", 30)).toBe(false);
  expect([held("mezzo", 8), held("mezzo", 9)]).toEqual([false, true]);
});

test("in a chorale the long note that ends a line is a place to breathe; elsewhere a rest or the end of a clause is", () => {
  const lines = (long: number, profile: "chorale" | "band", words = false) => {
    const melody = [0, 1].flatMap((line) => [
      ...[0, 1, 2, 3].map((b) => `${line * (4 + long) + b} ${b % 2 ? "C5" : "B4"} 1`),
      `${line * (4 + long) + 4} G4 ${long}`,
    ]);
    const song = edit(
      songWith({ line: `|${" G |".repeat(4)}`, melody }),
      { do: "setTempo", tempo: 60 },
      { do: "setProfile", profile },
    );
    const tune = sure(firstOf(song.sections).notes.melody);
    const said = words
      ? edit(song, {
          do: "changeNotes",
          section: "s1",
          part: "melody",
          notes: [{ id: sure(tune[4]).id, lyrics: ["home,"] }],
        })
      : song;
    return checkSong(said).some((f) => f.rule === "breath");
  };
  expect([lines(2, "chorale"), lines(1.75, "chorale")]).toEqual([false, true]);
  expect([lines(2, "band"), lines(2, "band", true)]).toEqual([true, false]);
});
