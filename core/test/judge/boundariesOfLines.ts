import type { Song } from "../../src/song/schema/song";
import { edit, songWith } from "../helpers";
import { withLines } from "./lines";

/** Drums that play one bar so many times. */
const drums = (bars: number): Song => {
  const song = edit(songWith({}), { do: "setSection", section: "s1", bars });
  return Array.from({ length: bars }, (_, b) => b).reduce(
    (s, b) => edit(s, { do: "setHit", section: "s1", drum: "snare", start: b * 1920 + 480, velocity: 80 }),
    song,
  );
};

/** A tune of half notes without a rest, so many of them. */
const halves = (count: number) => Array.from({ length: count }, (_, i) => `${2 * i} ${i % 2 ? "C5" : "B4"} 2`);

/** Just inside and just outside of what the checks of lines allow. */
export const LINES: [what: string, rule: string, inside: Song, outside: Song][] = [
  [
    "a tone of the chord may lie a semitone beside another one of it; one that is none may not",
    "clash",
    edit(withLines("| Cmaj7 |", { Tune: ["0 C5 4"], Bass: ["0 C2 4"] }), {
      do: "addPart",
      name: "Fiddle",
      role: "counter",
      instrument: "violin",
      notes: { s1: [{ start: 0, duration: 1920, pitch: "B4", velocity: 80 }] },
    }),
    edit(withLines("| C |", { Tune: ["0 C5 4"], Bass: ["0 C2 4"] }), {
      do: "addPart",
      name: "Fiddle",
      role: "counter",
      instrument: "violin",
      notes: { s1: [{ start: 0, duration: 1920, pitch: "B4", velocity: 80 }] },
    }),
  ],
  [
    "the outer voices may go the same way into a fifth where the upper one steps, not where it leaps",
    "direct-perfects",
    withLines("| C | F |", { Tune: ["0 B4 4", "4 C5 4"], Bass: ["0 C2 4", "4 F2 4"] }),
    withLines("| C | F |", { Tune: ["0 E4 4", "4 C5 4"], Bass: ["0 C2 4", "4 F2 4"] }),
  ],
  [
    "upper voices may lie an octave apart, not a ninth",
    "voice-spacing",
    withLines("| C |", { Tune: ["0 E5 4"], Alto: ["0 E4 4"], Tenor: ["0 C4 4"] }),
    withLines("| C |", { Tune: ["0 G5 4"], Alto: ["0 E4 4"], Tenor: ["0 C4 4"] }),
  ],
  [
    "the leading tone rises, or in an inner voice falls to the fifth",
    "leading-tone",
    withLines("| G7 | C |", { Tune: ["0 D5 4", "4 C5 4"], Alto: ["0 B4 4", "4 G4 4"], Bass: ["0 G2 4", "4 C2 4"] }),
    withLines("| G7 | C |", { Tune: ["0 B4 4", "4 G4 4"], Alto: ["0 D4 4", "4 C4 4"], Bass: ["0 G2 4", "4 C2 4"] }),
  ],
  [
    "the seventh falls by step, or stays where the next chord holds it",
    "seventh",
    withLines("| G7 | C |", { Tune: ["0 F4 4", "4 E4 4"], Bass: ["0 G2 4", "4 C2 4"] }),
    withLines("| G7 | C |", { Tune: ["0 F4 4", "4 G4 4"], Bass: ["0 G2 4", "4 C2 4"] }),
  ],
  [
    "the root of a dominant may be doubled, its third may not",
    "doubled-leading-tone",
    withLines("| G7 |", { Tune: ["0 G4 4"], Alto: ["0 B3 4"], Bass: ["0 G2 4"] }),
    withLines("| G7 |", { Tune: ["0 B4 4"], Alto: ["0 B3 4"], Bass: ["0 G2 4"] }),
  ],
  [
    "one line may take a chromatic step; between two lines it is a false relation",
    "false-relation",
    withLines("| F | D |", { Tune: ["0 F4 4", "4 F#4 4"], Alto: ["0 A3 4", "4 A3 4"] }),
    withLines("| F | D |", { Tune: ["0 F4 4", "4 D4 4"], Alto: ["0 C4 4", "4 F#4 4"] }),
  ],
  [
    "the fifth of a triad stands in the bass before the dominant, not where it leads nowhere",
    "six-four",
    withLines("| F | C | G7 |", { Tune: ["0 A4 4", "4 G4 4", "8 F4 4"], Bass: ["0 F2 4", "4 G2 4", "8 G2 4"] }),
    withLines("| Dm | C | F |", { Tune: ["0 A4 4", "4 G4 4", "8 A4 4"], Bass: ["0 D2 4", "4 G2 4", "8 F2 4"] }),
  ],
  [
    "a sixth may be leapt, a seventh is told",
    "wide-leap",
    withLines("| C |", { Tune: ["0 C4 2", "2 A4 2"] }),
    withLines("| C |", { Tune: ["0 C4 2", "2 B4 2"] }),
  ],
  [
    "after a sixth a step on may follow, another leap on may not",
    "leap-not-recovered",
    withLines("| C |", { Tune: ["0 C4 2", "2 A4 1", "3 B4 1"] }),
    withLines("| C |", { Tune: ["0 C4 2", "2 A4 1", "3 C5 1"] }),
  ],
  [
    "a voice sings one note after another, not two",
    "polyphony",
    songWith({ line: "| C |", melody: ["0 C4 1", "1 E4 1"] }),
    songWith({ line: "| C |", melody: ["0 C4 2", "1 E4 1"] }),
  ],
  [
    "eight seconds are one breath, more are not",
    "breath",
    // At 96 a half note lasts 1.25 seconds.
    songWith({ line: "| Cmaj7 | % | % | % |", melody: halves(6) }),
    songWith({ line: "| Cmaj7 | % | % | % |", melody: halves(8) }),
  ],
  ["eleven bars alike go, twelve are told", "same-again", drums(11), drums(12)],
];
