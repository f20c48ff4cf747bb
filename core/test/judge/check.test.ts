import { nth, sure } from "../../src/base/list";
import { BASS_STYLES } from "../../src/write/bass/styles";
import { checkSong } from "../../src/judge/check/check";
import { RULES } from "../../src/judge/check/rules";
import type { Finding } from "../../src/judge/check/rule";
import type { Song } from "../../src/song/schema/song";
import { edit, songWith } from "../helpers";

describe("findings", () => {
  const rules = (song: Song) => checkSong(song).map((f) => f.rule);
  const cases: [string, Song, string][] = [
    ["a bass note held outside its chord", songWith({ line: "| C | F |", bass: ["0 C#2 1"] }), "long-outside"],
    ["a chord that changes under a held note", songWith({ line: "| C | B7 |", bass: ["0 C2 8"] }), "long-outside"],
    [
      "a main kick without bass",
      songWith({
        line: "| C | C |",
        kicks: [
          [0, 100],
          [2, 80],
        ],
        bass: ["0 C2 1"],
      }),
      "uncovered-accent",
    ],
    [
      "bass above the chords",
      edit(songWith({ line: "| C |", bass: ["0 G4 2"] }), {
        do: "setVoicings",
        section: "s1",
        part: "keys",
        pitches: { c1: ["E4", "G4", "C5"] },
      }),
      "bass-above-chords",
    ],
    [
      "parallel octaves of the outer voices",
      songWith({ line: "| C | D |", bass: ["0 C2 4", "4 D2 4"], melody: ["0 C5 4", "4 D5 4"] }),
      "parallels",
    ],
    [
      "a third too low",
      edit(songWith({ line: "| C |", bass: ["0 C2 4"] }), {
        do: "pinVoicing",
        section: "s1",
        part: "keys",
        chord: "c1",
        pitches: ["E2", "G3", "C4"],
      }),
      "low-intervals",
    ],
    ["a note no bass guitar has", songWith({ line: "| C |", bass: ["0 C1 1"] }), "out-of-range"],
    ["a long high note", songWith({ line: "| F | F |", melody: ["0 F5 4"] }), "high-voice"],
  ];
  test.each(cases)("%s: found, with place, measure, source, and fixes that cure it", (_, song, rule) => {
    const found = sure(checkSong(song).find((f): f is Finding => f.rule === rule));
    expect(found).toMatchObject({
      where: { section: "s1" },
      amount: expect.stringMatching(/\w/),
      source: expect.stringMatching(/\w/),
      message: expect.stringMatching(/\w/),
    });
    expect(found.fixes.length).toBeGreaterThan(0);
    for (const fix of found.fixes) expect(checkSong(edit(song, fix.edit)).filter((f) => f.id === found.id)).toEqual([]);
  });
  test("pedals, anticipations and resolved suspensions are excepted by name; clean music has no finding", () => {
    expect(rules(songWith({ line: "| C | D | C |", bass: ["0 C2 12"] }))).toEqual([]);
    expect(rules(songWith({ line: "| F | C |", melody: ["2 F4 3", "5 E4 1"] }))).toEqual([]);
    expect(
      rules(
        songWith({
          line: "| C | F |",
          kicks: [
            [0, 100],
            [4, 100],
          ],
          bass: ["0 C2 2", "4 F2 2"],
        }),
      ),
    ).toEqual([]);
  });
  test("profiles weigh differently and a waiver keeps its reason", () => {
    const song = nth(cases, 4)[1];
    const by = (profile: "chorale" | "band" | "jazz" | "loop") =>
      checkSong(song, { profile }).find((f) => f.rule === "parallels")?.severity;
    expect([by("chorale"), by("band"), by("jazz"), by("loop")]).toEqual(["fault", "note", undefined, undefined]);
    const [finding] = checkSong(song);
    expect(
      sure(
        checkSong(edit(song, { do: "waive", finding: sure(finding).id, reason: "wanted" })).find(
          (f) => f.id === sure(finding).id,
        ),
      ).waived,
    ).toBe("wanted");
  });
  test("every rule and style explains itself", () => {
    for (const item of [...RULES, ...BASS_STYLES])
      expect([item.title, item.explanation.length > 40, item.source.length > 5]).toEqual([
        expect.any(String),
        true,
        true,
      ]);
  });
});
