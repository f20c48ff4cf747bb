import { firstOf } from "../../src/base/list";
import type { Song } from "../../src/song/schema/song";
import { edit, songWith } from "../helpers";
import { band, withLines } from "./lines";

/** The piano of a song with so many layouts, a chord each. */
const piano = (line: string, layouts: readonly string[], more: { bass?: string[]; melody?: string[] } = {}): Song =>
  layouts.reduce(
    (song, pitches, i) => {
      const chord = firstOf(song.sections).chords[i]?.id ?? "";
      return edit(song, { do: "pinVoicing", section: "s1", part: "keys", chord, pitches: pitches.split(" ") });
    },
    songWith({ line, ...more }),
  );

/** Judged as four parts are. */
const strict = (song: Song): Song => edit(song, { do: "setProfile", profile: "chorale" });

/** A quartet of strings in half notes: first violin, second violin, viola and cello. */
const quartet = (line: string, ...[violin, second, viola, cello]: [string, string, string, string]): Song => {
  const halves = (text: string) => text.split(" ").map((pitch, i) => `${2 * i} ${pitch} 2`);
  return band(line, {
    Violin: ["melody", "violin", halves(violin)],
    Second: ["counter", "violin", halves(second)],
    Viola: ["counter", "viola", halves(viola)],
    Cello: ["bass", "cello", halves(cello)],
  });
};
/** Stabs of an eighth on every beat. */
const stabs = (line: string, ...pitches: string[]): Song =>
  band(line, {
    Tune: ["melody", "mezzo", ["0 G4 4"]],
    Stabs: ["chords", "organ", [0, 1, 2, 3].flatMap((b) => pitches.map((p) => `${b} ${p} 0.5`))],
    Bass: ["bass", "bassGuitar", ["0 C2 4"]],
  });

/** A bass in quarters that reaches the second chord, an F, with some notes. */
const walking = (...reached: string[]): Song =>
  songWith({
    line: "| C | F |",
    bass: ["C2", "E2", "G2", "A2", ...reached, ...["A2", "C3", "A2", "F2"].slice(reached.length)].map(
      (p, b) => `${b} ${p} 1`,
    ),
  });

/** Just inside and just outside of what is asked of voices, whoever has them. */
export const VOICES: [what: string, rule: string, inside: Song, outside: Song][] = [
  [
    "two strings that cross are told as two singers are",
    "voice-crossing",
    quartet("| C |", "E5 G5", "C5 E5", "G4 G4", "C3 C3"),
    quartet("| C |", "E5 C5", "C5 E5", "G4 G4", "C3 C3"),
  ],
  [
    "strings in parallel fifths inside the quartet",
    "voice-parallels",
    strict(quartet("| C F |", "E5 F5", "C5 C5", "G4 A4", "C3 F2")),
    strict(quartet("| C F |", "E5 F5", "G4 A4", "C4 D4", "C3 F2")),
  ],
  [
    "upper strings lie an octave apart at most",
    "voice-spacing",
    quartet("| C |", "E5 E5", "E4 E4", "G3 G3", "C3 C3"),
    quartet("| C |", "E5 G5", "E4 E4", "G3 G3", "C3 C3"),
  ],
  [
    "a string may come to where its neighbor was, not past it",
    "voice-overlap",
    quartet("| C |", "E5 G5", "C5 E5", "G4 G4", "C3 C3"),
    quartet("| C |", "C5 G5", "G4 E5", "E4 G4", "C3 C3"),
  ],
  [
    "voices inside the layouts of a piano move in parallel fifths, or by step against each other",
    "voice-parallels",
    strict(piano("| C | F |", ["C3 E4 G4 C5", "F3 C4 A4 C5"])),
    strict(piano("| C | Dm |", ["C3 G3 E4 C5", "D3 A3 F4 D5"])),
  ],
  [
    "into the same perfect interval by contrary motion, or into another one",
    "contrary-perfects",
    withLines("| C | G |", { Tune: ["0 G4 4", "4 B4 4"], Bass: ["0 C3 4", "4 G2 4"] }),
    withLines("| C | G |", { Tune: ["0 G4 4", "4 D5 4"], Bass: ["0 C3 4", "4 G2 4"] }),
  ],
  [
    "a perfect fifth may fall into a diminished one; a diminished one may not rise into a perfect one",
    "unequal-fifths",
    withLines("| C | Bdim |", { Tune: ["0 G4 4", "4 F4 4"], Bass: ["0 C3 4", "4 B2 4"] }),
    withLines("| Bdim | C |", { Tune: ["0 F4 4", "4 G4 4"], Bass: ["0 B2 4", "4 C3 4"] }),
  ],
  [
    "three semitones are a minor third or an augmented second, as they are written",
    "augmented-second",
    withLines("| Dm | F |", { Tune: ["0 F4 4", "4 A4 4"], Alto: ["0 D4 4", "4 F4 4"] }, { key: "A minor" }),
    withLines("| Dm | E7 |", { Tune: ["0 F4 4", "4 G#4 4"], Alto: ["0 D4 4", "4 D4 4"] }, { key: "A minor" }),
  ],
  [
    "the fourth of a cadential six-four falls, it does not rise",
    "six-four-fourth",
    withLines("| C/G | G |", { Tune: ["0 C5 4", "4 B4 4"], Bass: ["0 G2 4", "4 G2 4"] }),
    withLines("| C/G | G |", { Tune: ["0 C5 4", "4 D5 4"], Bass: ["0 G2 4", "4 G2 4"] }),
  ],
  [
    "a suspension may stand against its resolution in the bass a ninth below, nowhere nearer",
    "against-resolution",
    withLines("| F | C |", { Tune: ["0 C5 4", "4 C5 4"], Alto: ["0 F4 5", "5 E4 3"], Bass: ["0 F2 4", "4 E3 4"] }),
    withLines("| F | C |", { Tune: ["0 C5 4", "4 E5 4"], Alto: ["0 F4 5", "5 E4 3"], Bass: ["0 F2 4", "4 C3 4"] }),
  ],
  [
    "a major triad doubles its root, not its third",
    "doubled-third",
    withLines("| F |", { Tune: ["0 A4 4"], Alto: ["0 F4 4"], Tenor: ["0 C4 4"], Bass: ["0 F2 4"] }),
    withLines("| F |", { Tune: ["0 A4 4"], Alto: ["0 F4 4"], Tenor: ["0 A3 4"], Bass: ["0 F2 4"] }),
  ],
  [
    "somebody has the third, however shortly; where nobody has it the chord is bare",
    "missing-tone",
    piano("| C |", ["C3 G3 C4"], { melody: ["0 G4 2", "2 E4 0.5"] }),
    piano("| C |", ["C3 G3 C4"], { melody: ["0 G4 2", "2 D4 0.5"] }),
  ],
  [
    "the note after the stroke lies lowest",
    "written-bass",
    songWith({ line: "| C/E |", bass: ["0 E2 4"] }),
    songWith({ line: "| C/E |", bass: ["0 C2 4"] }),
  ],
  [
    "a bass may leave its written note for half of the chord, not for more",
    "written-bass",
    songWith({ line: "| C/E |", bass: ["0 C2 2", "2 E2 2"] }),
    songWith({ line: "| C/E |", bass: ["0 C2 2.25", "2.25 E2 1.75"] }),
  ],
  ["a bass that walks begins each chord with a tone of it", "long-outside", walking("F2"), walking("F#2")],
  [
    "a tone by which a bass that walks goes on by step may stand there",
    "long-outside",
    walking("G2", "A2"),
    walking("G2", "C3"),
  ],
  [
    "a bass that walks through the chord after its first note is as written",
    "written-bass",
    piano("| C |", ["C4 E4 G4"], { bass: ["0 C2 1", "1 E2 1", "2 G2 1", "3 E2 1"] }),
    piano("| C |", ["C4 E4 G4"], { bass: ["0 G2 1", "1 E2 1", "2 G2 1", "3 E2 1"] }),
  ],
  [
    "a bass that sounds alone makes no inversion of what nobody plays",
    "written-bass",
    songWith({ line: "| C |", bass: ["0 G2 4"] }),
    piano("| C |", ["C4 E4 G4"], { bass: ["0 G2 4"] }),
  ],
  [
    "short stabs say as much as a held chord: a minor third in them under a major symbol",
    "other-chord",
    stabs("| C |", "C4", "E4", "G4"),
    stabs("| C |", "C4", "Eb4", "G4"),
  ],
  [
    "a raised fifth in the stabs makes another chord",
    "other-chord",
    stabs("| Caug |", "C4", "E4", "G#4"),
    edit(stabs("| C |", "C4", "E4", "G#4"), { do: "setNotes", section: "s1", part: "melody", notes: [] }),
  ],
];
