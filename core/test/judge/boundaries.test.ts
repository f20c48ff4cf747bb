import { firstOf, lastOf, sure } from "../../src/base/list";
import { checkSong } from "../../src/judge/check/check";
import { RULES } from "../../src/judge/check/rules";
import type { Profile } from "../../src/song/schema/playing";
import type { Song } from "../../src/song/schema/song";
import { BANDS } from "./boundariesOfBands";
import { LINES } from "./boundariesOfLines";
import { VOICES } from "./boundariesOfVoices";
import { TOGETHER } from "./boundariesTogether";
import { edit, notesOf, songWith } from "../helpers";

/** Just inside and just outside of what each check allows. */
const found = (song: Song, rule: string): boolean => {
  // By a school in which the rule counts.
  const { severity } = sure(RULES.find((r) => r.id === rule));
  const profile = severity[song.profile] === "off" ? "chorale" : song.profile;
  return checkSong(song, { profile }).some((f) => f.rule === rule);
};
const keys = (song: Song, ...pitches: string[]): Song =>
  edit(song, {
    do: "pinVoicing",
    section: "s1",
    part: "keys",
    chord: firstOf(firstOf(song.sections).chords).id,
    pitches,
  });
const instrument = (song: Song, part: string, name: string): Song =>
  edit(song, { do: "setPart", part, instrument: name });

/** A second bass sound beside the first. */
const twoBasses = (first: string[], second: string[]): Song => {
  const song = edit(songWith({ line: "| C |", bass: first }), {
    do: "addPart",
    name: "Sub",
    role: "bass",
    instrument: "subBass",
  });
  const part = sure(song.parts.find((p) => p.name === "Sub")).id;
  return edit(song, {
    do: "setNotes",
    section: "s1",
    part,
    notes: notesOf(second),
  });
};

/** A second voice under the first. */
const twoVoices = (line: string, first: string[], second: string[]): Song => {
  const song = edit(songWith({ line, melody: first }), {
    do: "addPart",
    name: "Second",
    role: "vocal",
    instrument: "alto",
  });
  const part = sure(song.parts.find((p) => p.name === "Second")).id;
  const notes = notesOf(second);
  return edit(song, { do: "setNotes", section: "s1", part, notes });
};

/** A bass and a trombone that hold two notes. */
const withBoth = (low: string, high: string): Song => {
  const added = edit(songWith({ line: "| C |", bass: [`0 ${low} 4`] }), {
    do: "addPart",
    name: "Trombone",
    role: "counter",
    instrument: "trombone",
  });
  const part = lastOf(added.parts).id;
  return edit(added, { do: "setNotes", section: "s1", part, notes: notesOf([`0 ${high} 4`]) });
};

/** Eight notes of B major. */
const SHARP = ["B4", "C#5", "D#5", "F#5", "D#5", "C#5", "A#4", "B4"].map((pitch, i) => `${i} ${pitch} 1`);

const cases: [what: string, rule: string, inside: Song, outside: Song][] = [
  [
    "a bass tone outside the chord: half a beat passes, more does not",
    "long-outside",
    songWith({ line: "| C |", bass: ["0 C#2 0.5", "0.5 C2 1"] }),
    songWith({ line: "| C |", bass: ["0 C#2 0.75", "0.75 C2 1"] }),
  ],
  [
    "a melody tone outside the chord: under a beat passes, a beat does not",
    "long-outside",
    songWith({ line: "| C |", melody: ["0 F#4 0.5", "0.5 A#4 0.5"] }),
    songWith({ line: "| C |", melody: ["0 F#4 1", "1 A#4 1"] }),
  ],
  [
    "a ninth colors the melody, and is foreign in the bass",
    "long-outside",
    songWith({ line: "| C |", melody: ["0 D5 3"] }),
    songWith({ line: "| C |", bass: ["0 D2 3"] }),
  ],
  [
    "an anticipation of one beat has a name, a longer one has none",
    "long-outside",
    songWith({ line: "| C | F |", melody: ["3 F4 1", "4 F4 1"] }),
    songWith({ line: "| C | F |", melody: ["2 F4 2", "4 F4 1"] }),
  ],
  [
    "where there is no chord nothing is foreign",
    "long-outside",
    songWith({ line: "| N.C. |", bass: ["0 C#2 3"] }),
    songWith({ line: "| C |", bass: ["0 C#2 3"] }),
  ],
  [
    "a soft kick off the beat need not be met, a loud one must",
    "uncovered-accent",
    songWith({
      line: "| C |",
      kicks: [
        [0, 90],
        [1.5, 95],
      ],
      bass: ["0 C2 1"],
    }),
    songWith({
      line: "| C |",
      kicks: [
        [0, 90],
        [1.5, 96],
      ],
      bass: ["0 C2 1"],
    }),
  ],
  [
    "a part that has no notes yet is not blamed for its silence",
    "uncovered-accent",
    songWith({ line: "| C |", kicks: [[0, 100]] }),
    songWith({ line: "| C |", kicks: [[0, 100]], bass: ["1 C2 1"] }),
  ],
  [
    "bass and chords may meet, not cross",
    "bass-above-chords",
    keys(songWith({ line: "| C |", bass: ["0 C3 1"] }), "C3", "E3", "G3"),
    keys(songWith({ line: "| C |", bass: ["0 C4 1"] }), "E3", "G3", "C5"),
  ],
  [
    "contrary fifths are none, similar ones are",
    "parallels",
    songWith({ line: "| C | G |", bass: ["0 C2 4", "4 G1 4"], melody: ["0 G4 4", "4 D5 4"] }),
    songWith({ line: "| C | D |", bass: ["0 C2 4", "4 D2 4"], melody: ["0 G4 4", "4 A4 4"] }),
  ],
  [
    "a fifth from B flat 1 up is clear, a semitone lower is not",
    "low-intervals",
    instrument(keys(songWith({ line: "| Bb |", bass: ["0 Bb1 1"] }), "F2", "D4"), "bass", "bassGuitar"),
    instrument(keys(songWith({ line: "| A |", bass: ["0 A1 1"] }), "E2", "C#4"), "bass", "bassGuitar"),
  ],
  [
    "the open E string is the last note of the bass guitar",
    "out-of-range",
    songWith({ line: "| E |", bass: ["0 E1 1"] }),
    songWith({ line: "| Eb |", bass: ["0 Eb1 1"] }),
  ],
  [
    "two beats at the top pass, longer is mentioned",
    "high-voice",
    songWith({ line: "| F |", melody: ["0 F5 2"] }),
    songWith({ line: "| F |", melody: ["0 F5 2.5"] }),
  ],
  [
    "a key two thirds of whose chords are its own stands, one that has none does not",
    "key-contradicted",
    songWith({ line: "| C | F | Bb7 | C |" }),
    songWith({ line: "| Ebmaj7 | Cm7 | Fm7 | Bb7 |" }),
  ],
  [
    "without chords the notes decide: seven say nothing yet, eight do",
    "key-contradicted",
    songWith({ melody: SHARP.slice(0, 7) }),
    songWith({ melody: SHARP }),
  ],
  [
    "two bass sounds an octave apart are one voice; at the same low pitch they are not",
    "bass-layers",
    twoBasses(["0 C2 1", "1 G1 1"], ["0 C3 1", "1 G2 1"]),
    twoBasses(["0 C2 1"], ["0 C2 1"]),
  ],
  [
    "a fifth may be followed by a sixth, not by another fifth the same way",
    "voice-parallels",
    twoVoices("| C | F |", ["0 G4 4", "4 A4 4"], ["0 C4 4", "4 C4 4"]),
    twoVoices("| C | F |", ["0 G4 4", "4 A4 4"], ["0 C4 4", "4 D4 4"]),
  ],
  [
    "the lower voice may come up to the upper one, not above it",
    "voice-crossing",
    twoVoices("| C |", ["0 G4 1", "1 E4 1", "2 G4 2"], ["0 C4 1", "1 C4 1", "2 E4 2"]),
    twoVoices("| C |", ["0 G4 1", "1 E4 1", "2 G4 2"], ["0 C4 1", "1 G4 1", "2 E4 2"]),
  ],
  [
    "a voice may come to where its neighbor stands, not past where it just was",
    "voice-overlap",
    twoVoices("| C |", ["0 E4 2", "2 G4 2"], ["0 C4 2", "2 E4 2"]),
    twoVoices("| C |", ["0 E4 2", "2 A4 2"], ["0 C4 2", "2 G4 2"]),
  ],
  [
    "a major seventh chord holds its semitone; elsewhere two voices a semitone apart rub",
    "voice-clash",
    twoVoices("| Cmaj7 |", ["0 C5 4"], ["0 B4 4"]),
    twoVoices("| C |", ["0 C5 4"], ["0 B4 4"]),
  ],
  [
    "for half a beat two voices may meet, for a beat it is told",
    "voice-unison",
    twoVoices("| C |", ["0 E4 0.5", "0.5 G4 3"], ["0 E4 0.5", "0.5 C4 3"]),
    twoVoices("| C |", ["0 E4 1", "1 G4 3"], ["0 E4 1", "1 C4 3"]),
  ],
  [
    "attacks nearer than a thirty-second are one, a thirty-second apart they are two",
    "bass-layers",
    twoBasses(["0 C2 1"], ["0.1229 C3 1"]),
    twoBasses(["0 C2 1"], ["0.125 C3 1"]),
  ],
  [
    "layers that differ for less than a thirty-second take turns",
    "bass-layers",
    twoBasses(["0 C2 1"], ["0.8771 A2 1"]),
    twoBasses(["0 C2 1"], ["0.875 A2 1"]),
  ],
  [
    "two low notes share half a beat: shorter ones do not fill the low octave",
    "bass-layers",
    twoBasses(["0 C2 0.49"], ["0 C2 0.49"]),
    twoBasses(["0 C2 0.5"], ["0 C2 0.5"]),
  ],
  [
    "from E2 up two full voices are clear, a semitone lower they are not",
    "bass-layers",
    twoBasses(["0 E2 1"], ["0 E2 1"]),
    twoBasses(["0 Eb2 1"], ["0 Eb2 1"]),
  ],
  [
    "layers that take turns may differ, at once they may not",
    "bass-layers",
    twoBasses(["0 C2 1"], ["1 A2 1"]),
    twoBasses(["0 C2 1"], ["0.5 A2 1"]),
  ],
];

cases.push(...LINES, ...BANDS, ...VOICES, ...TOGETHER);

test.each(cases)("%s (%s)", (_, rule, inside, outside) => {
  expect([found(inside, rule), found(outside, rule)]).toEqual([false, true]);
});

test("a close low interval is opened downwards as far as the lowest string of a bass, no lower", () => {
  const lowered = (low: string, high: string) =>
    checkSong(withBoth(low, high))
      .filter((f) => f.rule === "low-intervals")
      .flatMap((f) => f.fixes.map((x) => x.label));
  expect(lowered("E2", "A2")).toContain("Bass: E2 to E1");
  const under = lowered("Eb2", "Ab2");
  expect(under.length).toBeGreaterThan(0);
  expect(under).not.toContain("Bass: Eb2 to Eb1");
});

test("every rule has a severity in every profile, and is silent where it is off", () => {
  for (const rule of RULES)
    for (const profile of ["chorale", "band", "jazz", "loop"] as Profile[]) {
      const song = sure(cases.find((c) => c[1] === rule.id))[3];
      const severities = checkSong(song, { profile })
        .filter((f) => f.rule === rule.id)
        .map((f) => f.severity);
      if (rule.severity[profile] === "off") expect(severities).toEqual([]);
      else expect(new Set(severities)).toEqual(new Set([rule.severity[profile]]));
    }
});
