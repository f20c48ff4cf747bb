import { firstOf, nth, sure } from "../../src/base/list";
import { demoSongs } from "../demos";
import { accentsAt } from "../../src/hear/accents/facts";
import { bassLines } from "../../src/write/bass/write";
import { bassVerdictAt } from "../../src/write/bass/judge";
import { checkSong } from "../../src/judge/check/check";
import { countedBy } from "../../src/arrange/voicing/cost";
import { factsOf } from "../../src/facts/memory";
import { parallelPerfect } from "../../src/theory/motion/motion";
import { PROFILES } from "../../src/song/schema/playing";
import { realize } from "../../src/song/realize";
import { RULES } from "../../src/judge/check/rules";
import { soundingNames } from "../../src/hear/slice/slices";
import { threads } from "../../src/theory/motion/threads";
import { voicePaths } from "../../src/arrange/voicing/path";
import { must } from "../../src/base/result";
import { parseChord } from "../../src/theory/chord/parse";
import { pitchMidi } from "../../src/theory/pitch/pitch";
import type { Song } from "../../src/song/schema/song";
import { goldenSong, VERSION1 } from "../fixtures";
import { edit } from "../helpers";

/** What the application says of a song. */
function judgement(song: Song): unknown {
  const read = factsOf(song);
  return {
    findings: checkSong(song).map((f) => [f.id, f.severity, f.message, f.fixes.map((x) => x.label)]),
    accents: song.sections.map((s) => read.get(accentsAt, s.id)),
    bass: song.sections.flatMap((s) =>
      song.parts.filter((p) => p.role === "bass").map((p) => read.get(bassVerdictAt, s.id, p.id)),
    ),
    sounding: song.sections.map((s) => [...soundingNames(realize(song, { section: s.id })).values()]),
  };
}

describe("a muted part is judged like any other", () => {
  const songs = [...demoSongs(), ...VERSION1.map(goldenSong)];
  test.each(songs.map((s) => [s.title, s] as const))("%s", (_, song) => {
    const plain = edit(song, ...song.parts.map((p) => ({ do: "setPart" as const, part: p.id, muted: false })));
    const before = judgement(plain);
    for (const part of plain.parts) {
      const muted = edit(plain, { do: "setPart", part: part.id, muted: true });
      expect([part.name, judgement(muted)]).toEqual([part.name, before]);
    }
  });

  test("lines for the bass are the same whoever is muted", () => {
    const song = firstOf(demoSongs());
    const lines = (s: Song) =>
      must(bassLines(s, { section: "s1", part: "bass", style: "kick-locked", seed: 2 })).map((l) => l.notes);
    const before = lines(song);
    for (const part of song.parts)
      expect([part.name, lines(edit(song, { do: "setPart", part: part.id, muted: true }))]).toEqual([
        part.name,
        before,
      ]);
  });
});

test("who judges changes what is said, and nothing else", () => {
  const song = firstOf(demoSongs());
  for (const profile of PROFILES) {
    const judged = edit(song, { do: "setProfile", profile });
    expect({ ...judged, profile: song.profile }).toEqual(song);
    // As the school weighs the rule, or lighter where it is of a voice inside chords.
    const grades = ["fault", "warning", "note"];
    for (const f of checkSong(judged)) {
      const said = sure(RULES.find((r) => r.id === f.rule)).severity[profile];
      expect([f.rule, said]).not.toEqual([f.rule, "off"]);
      expect([f.rule, grades.indexOf(f.severity) >= grades.indexOf(said)]).toEqual([f.rule, true]);
    }
  }
});

describe("parallels are marked where they are counted", () => {
  const paths = (profile: (typeof PROFILES)[number]) =>
    firstOf(
      must(
        voicePaths(
          ["C", "Dm", "Em", "F", "G", "Am", "Bb", "C"].map((s) => must(parseChord(s))),
          { style: "spread", profile, weights: { parallels: 0.01, motion: 3 } },
        ),
      ),
    );

  test.each(PROFILES)("%s", (profile) => {
    const path = paths(profile);
    const counted = countedBy(profile);
    for (let i = 1; i < path.chords.length; i++) {
      const [a, b] = [nth(path.chords, i - 1), nth(path.chords, i)].map((c) => c.pitches.map(pitchMidi));
      const marked = threads(sure(a), sure(b), counted).filter((t) => t.parallel);
      const costs = (nth(path.chords, i).terms.parallels ?? 0) > 0;
      expect([profile, i, marked.length > 0]).toEqual([profile, i, costs]);
    }
  });

  test("every pair in four parts, the outermost elsewhere, none in loops", () => {
    const [a, b] = [
      [48, 55, 64, 72],
      [50, 57, 65, 74],
    ];
    expect(parallelPerfect(48, 50, 55, 57)).toBe("fifth");
    const marked = (counted: Parameters<typeof threads>[2]) =>
      threads(sure(a), sure(b), counted).map((t) => t.parallel);
    expect(marked("every")).toEqual(["fifth", "fifth", null, "octave"]);
    expect(marked("outer")).toEqual(["octave", null, null, "octave"]);
    expect(marked("none")).toEqual([null, null, null, null]);
    expect(PROFILES.map(countedBy)).toEqual(
      PROFILES.map((p) => {
        if (p === "chorale") return "every";
        if (p === "loop") return "none";
        return "outer";
      }),
    );
  });
});
