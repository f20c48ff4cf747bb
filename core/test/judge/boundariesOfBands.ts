import { nth } from "../../src/base/list";
import type { Song } from "../../src/song/schema/song";
import { edit, songWith } from "../helpers";
import { band, everyBar, later, thenSection, withLines, type BandPart } from "./lines";

const EIGHT = "| C | F | G | C | C | F | G | C |";
/** A tune, a bass and two that accompany, each in every bar. */
const tune = (bars: number): BandPart => ["melody", "mezzo", everyBar(bars, ["0 E4 2", "2 G4 2"])];
const bass = (bars: number): BandPart => ["bass", "bassGuitar", everyBar(bars, ["0 C2 4"])];
const chords = (
  instrument: string,
  bars: number,
  starts: readonly number[],
  pitches = ["C4", "E4", "G4"],
): BandPart => [
  "chords",
  instrument,
  everyBar(
    bars,
    starts.flatMap((s) => pitches.map((p) => `${s} ${p} 0.5`)),
  ),
];
/** Another part with the rhythm of others. */
const sameRhythm = (
  role: BandPart[0],
  instrument: string,
  pitch: string,
  { bars, starts }: { bars: number; starts: readonly number[] },
): BandPart => [
  role,
  instrument,
  everyBar(
    bars,
    starts.map((s, i) => `${s} ${i % 2 ? "G4" : pitch} 0.5`),
  ),
];
const hits = (song: Song, drum: "kick", bars: number, beats: readonly number[]): Song =>
  Array.from({ length: bars }, (_, b) => beats.map((x) => (4 * b + x) * 480))
    .flat()
    .reduce((s, start) => edit(s, { do: "setHit", section: "s1", drum, start, velocity: 100 }), song);

/** A verse and a chorus of one bar each, for the seam between them. */
const seam = (end: string[], begin: string[], role: "Bass" | "Tune" = "Bass", line = "| Db |"): Song =>
  thenSection(
    band("| F |", {
      Tune: ["melody", "mezzo", role === "Tune" ? end : []],
      Bass: ["bass", "bassGuitar", role === "Bass" ? end : []],
    }),
    line,
    1,
    { [role]: begin },
  );

/** A section of four bars three times, the last time with something different. */
const thrice = (last: { muted?: string[] }): Song => {
  const song = edit(
    songWith({ line: "| C | Am | F | G |", bass: ["0 C2 4", "4 A1 4", "8 F2 4", "12 G2 4"], melody: ["0 E4 4"] }),
    { do: "addPass", section: "s1" },
    { do: "addPass", section: "s1" },
  );
  return last.muted ? edit(song, { do: "setPass", pass: nth(song.form, 2).id, muted: last.muted }) : song;
};

const guitar = (capo: number): Song =>
  edit(band("| C |", { Guitar: ["melody", "guitar", ["0 F2 1", "1 C3 1"]] }), {
    do: "setPlaying",
    part: "melody",
    voicing: capo ? { capo } : {},
  });

/** A line of notes with reasons; the last as it is given. */
const reasoned = (last: { reason?: { id: string; params?: Record<string, string> } }): Song =>
  edit(songWith({ line: "| C |" }), {
    do: "setNotes",
    section: "s1",
    part: "bass",
    notes: [0, 480, 960].map((start, i) => ({
      start,
      duration: 480,
      pitch: "C2",
      velocity: 90,
      ...(i < 2 ? { reason: { id: "rootOnBeat", params: { pitch: "C", chord: "C" } } } : last),
    })),
  });

/** Eight notes of a chorus lifted by so many semitones over the verse. */
const verseAndChorus = (chorus: readonly string[]): Song =>
  thenSection(band("| C | F | G | C |", { Tune: tune(4), Bass: bass(4) }), "| C | F | G | C |", 4, {
    Tune: everyBar(4, chorus),
    Bass: everyBar(4, ["0 C2 4"]),
  });

/** Just inside and just outside of what the checks of a band allow. */
export const BANDS: [what: string, rule: string, inside: Song, outside: Song][] = [
  [
    "the fourth of a sus chord is held from before and falls; one that is leapt to is not prepared",
    "suspension",
    withLines("| C | Gsus4 | G |", { Tune: ["0 C5 4", "4 C5 4", "8 B4 4"], Bass: ["0 C3 4", "4 G2 4", "8 G2 4"] }),
    withLines("| C | Gsus4 | G |", { Tune: ["0 G4 4", "4 C5 4", "8 B4 4"], Bass: ["0 C3 4", "4 G2 4", "8 G2 4"] }),
  ],
  [
    "the suspended fourth falls by step; where it leaps away it is not resolved",
    "suspension",
    withLines("| C | Gsus4 | G |", { Tune: ["0 C5 4", "4 C5 4", "8 B4 4"], Bass: ["0 C3 4", "4 G2 4", "8 G2 4"] }),
    withLines("| C | Gsus4 | G |", { Tune: ["0 C5 4", "4 C5 4", "8 D5 4"], Bass: ["0 C3 4", "4 G2 4", "8 G2 4"] }),
  ],
  [
    "a tone held into a chord for half a beat steps down; it may not leap away",
    "suspension",
    withLines("| C | Em |", { Tune: ["0 C5 4.5", "4.5 B4 3.5"], Bass: ["0 C3 4", "4 E3 4"] }),
    withLines("| C | Em |", { Tune: ["0 C5 4.5", "4.5 G4 3.5"], Bass: ["0 C3 4", "4 E3 4"] }),
  ],
  [
    "the third of a seventh chord may be doubled, its seventh may not",
    "doubled-tension",
    withLines("| Dm7 |", { Tune: ["0 F5 4"], Alto: ["0 F4 4"], Tenor: ["0 C4 4"] }),
    withLines("| Dm7 |", { Tune: ["0 C5 4"], Alto: ["0 F4 4"], Tenor: ["0 C4 4"] }),
  ],
  [
    "a third of its time above what is comfortable goes, half of it is told",
    "dwelling",
    songWith({ line: "| C | % | % |", melody: ["0 E5 4", "4 C5 4", "8 C5 4"] }),
    songWith({ line: "| C | % | % | % |", melody: ["0 E5 4", "4 C5 4", "8 E5 4", "12 C5 4"] }),
  ],
  [
    "two hands take two ninths, not five notes over four octaves",
    "reach",
    band("| C |", { Keys: ["chords", "piano", ["0 C3 4", "0 D4 4", "0 G4 4", "0 A5 4"]] }),
    band("| C |", { Keys: ["chords", "piano", ["0 C2 4", "0 G3 4", "0 E4 4", "0 C5 4", "0 G6 4"]] }),
  ],
  [
    "six strings hold an open chord, not six notes of which two need one string",
    "reach",
    band("| C |", { Strum: ["chords", "guitar", ["0 C3 4", "0 E3 4", "0 G3 4", "0 C4 4", "0 E4 4"]] }),
    band("| C |", { Strum: ["chords", "guitar", ["0 F2 4", "0 G2 4", "0 A2 4"]] }),
  ],
  [
    "a third that is missing is no other chord; the other third in two parts is",
    "other-chord",
    band("| C |", { Keys: ["chords", "piano", ["0 C4 4", "0 G4 4"]], Bass: ["bass", "bassGuitar", ["0 C2 4"]] }),
    band("| C |", {
      Keys: ["chords", "piano", ["0 C4 4", "0 Eb4 4", "0 G4 4"]],
      Bass: ["bass", "bassGuitar", ["0 C2 4"]],
    }),
  ],
  [
    "two that play chords may strike together an octave apart, not in one octave",
    "masking",
    band(EIGHT, {
      Keys: chords("piano", 8, [0, 1, 2, 3]),
      Strum: chords("guitar", 8, [0, 1, 2, 3], ["D3", "F3", "A3"]),
    }),
    band(EIGHT, {
      Keys: chords("piano", 8, [0, 1, 2, 3]),
      Strum: chords("guitar", 8, [0, 1, 2, 3], ["D4", "F4", "A4"]),
    }),
  ],
  [
    "a line over the tune for a quarter of its time goes, for all of it is told",
    "covered",
    band("| C |", { Tune: ["melody", "mezzo", ["0 E4 4"]], Pipe: ["counter", "flute", ["0 G4 1"]] }),
    band("| C |", { Tune: ["melody", "mezzo", ["0 E4 4"]], Pipe: ["counter", "flute", ["0 G4 4"]] }),
  ],
  [
    "three rhythms at once can be followed, four cannot",
    "crowded",
    band("| C | F |", {
      Tune: sameRhythm("melody", "mezzo", "C4", { bars: 2, starts: [0, 1, 2, 3] }),
      Pipe: sameRhythm("counter", "flute", "E5", { bars: 2, starts: [0.5, 1.5, 2.5] }),
      Bass: sameRhythm("bass", "bassGuitar", "C2", { bars: 2, starts: [0.25, 1.25, 2.25] }),
    }),
    band("| C | F |", {
      Tune: sameRhythm("melody", "mezzo", "C4", { bars: 2, starts: [0, 1, 2, 3] }),
      Pipe: sameRhythm("counter", "flute", "E5", { bars: 2, starts: [0.5, 1.5, 2.5] }),
      Reed: sameRhythm("counter", "clarinet", "E4", { bars: 2, starts: [0.75, 1.75, 2.75] }),
      Bass: sameRhythm("bass", "bassGuitar", "C2", { bars: 2, starts: [0.25, 1.25, 2.25] }),
    }),
  ],
  [
    "where one of five parts comes in later there is room",
    "nobody-rests",
    band(EIGHT, {
      Tune: tune(8),
      Pipe: ["counter", "flute", later(everyBar(7, ["0 G5 1"]), 4)],
      Reed: ["counter", "clarinet", everyBar(8, ["1 E4 1"])],
      Strum: chords("guitar", 8, [1, 3]),
      Bass: bass(8),
    }),
    band(EIGHT, {
      Tune: tune(8),
      Pipe: ["counter", "flute", everyBar(8, ["0 G5 1"])],
      Reed: ["counter", "clarinet", everyBar(8, ["1 E4 1"])],
      Strum: chords("guitar", 8, [1, 3]),
      Bass: bass(8),
    }),
  ],
  [
    "three parts may have one rhythm for eight bars, four may not",
    "all-together",
    band(EIGHT, {
      Tune: tune(8),
      Reed: ["counter", "clarinet", everyBar(8, ["0 C4 2", "2 E4 2"])],
      Bass: ["bass", "bassGuitar", everyBar(8, ["0 C2 2", "2 G2 2"])],
    }),
    band(EIGHT, {
      Tune: tune(8),
      Reed: ["counter", "clarinet", everyBar(8, ["0 C4 2", "2 E4 2"])],
      Pipe: ["counter", "flute", everyBar(8, ["0 E5 2", "2 C5 2"])],
      Bass: ["bass", "bassGuitar", everyBar(8, ["0 C2 2", "2 A2 2"])],
    }),
  ],
  [
    "bass and kick may fall together, not a sixteenth apart",
    "accents-miss",
    hits(band("| C | F |", { Bass: ["bass", "bassGuitar", everyBar(2, ["0 C2 1", "2 C2 1"])] }), "kick", 2, [0, 2]),
    hits(
      band("| C | F |", { Bass: ["bass", "bassGuitar", everyBar(2, ["0.25 C2 1", "2.25 C2 1"])] }),
      "kick",
      2,
      [0, 2],
    ),
  ],
  [
    "what comes twice note for note goes, three times is told",
    "repeated",
    band("| C | F | C | F | C | F | C | F |", { Tune: ["melody", "mezzo", everyBar(8, ["0 E4 2"])], Bass: bass(8) }),
    band("| C | F | G | Am | C | F | G | Am | C | F | G | Am |", {
      Tune: ["melody", "mezzo", [0, 16, 32].flatMap((b) => later(["0 E4 2", "4 F4 2", "8 G4 2", "12 A4 2"], b))],
    }),
  ],
  [
    "a dominant at the end leads back to the start, the chord of the start stands still",
    "loop-end",
    edit(songWith({ line: "| C | Am | F | G7 |" }), { do: "setProfile", profile: "loop" }),
    edit(songWith({ line: "| C | Am | F | C |" }), { do: "setProfile", profile: "loop" }),
  ],
  [
    "a bass may leap an octave over a seam, no more",
    "seam-motion",
    seam(["0 F1 4"], ["0 F2 4"]),
    seam(["0 F1 4"], ["0 Ab2 4"]),
  ],
  [
    "bass and tune may go apart over a seam, not in parallel octaves",
    "seam-parallels",
    thenSection(
      band("| F |", { Tune: ["melody", "mezzo", ["0 F4 4"]], Bass: ["bass", "bassGuitar", ["0 F2 4"]] }),
      "| G |",
      1,
      {
        Tune: ["0 D4 4"],
        Bass: ["0 G2 4"],
      },
    ),
    thenSection(
      band("| F |", { Tune: ["melody", "mezzo", ["0 F4 4"]], Bass: ["bass", "bassGuitar", ["0 F2 4"]] }),
      "| G |",
      1,
      {
        Tune: ["0 G4 4"],
        Bass: ["0 G2 4"],
      },
    ),
  ],
  [
    "a tone of the next chord may ring over the seam, a foreign one may not",
    "seam-held",
    seam(["0 F4 5"], [], "Tune"),
    seam(["0 A4 5"], [], "Tune"),
  ],
  [
    "a pickup begins where the part is free, not over its last note",
    "seam-pickup",
    seam(["0 A4 3"], ["-1 Ab4 1", "0 F4 4"], "Tune"),
    seam(["0 A4 4"], ["-1 Ab4 1", "0 F4 4"], "Tune"),
  ],
  [
    "a last note outside its chord leads by step into what follows, not past it",
    "seam-approach",
    seam(["0 F2 3", "3 D2 1"], ["0 Db2 4"]),
    seam(["0 F2 3", "3 E2 1"], ["0 Db2 4"]),
  ],
  [
    "a chorus that lies a fourth higher is another place, one that lies with the verse is not",
    "sections-alike",
    verseAndChorus(["0 A4 2", "2 C5 2"]),
    verseAndChorus(["0 G4 2", "2 E4 2"]),
  ],
  [
    "three passes with a part out of one are a variation, three that are the same in all parts are not",
    "pass-again",
    thrice({ muted: ["bass"] }),
    thrice({}),
  ],
  [
    "a line that fits its chords stays; a whole tone off it is in another key",
    "old-key",
    band("| C | F | G | C |", {
      Tune: [
        "melody",
        "choir",
        everyBar(1, ["0 C4 1", "1 E4 1", "2 G4 1", "3 E4 1", "4 F4 2", "6 A4 2", "8 G4 2", "10 B4 2"]),
      ],
    }),
    band("| C | F | G | C |", {
      Tune: [
        "melody",
        "choir",
        ["0 C#4 1", "1 E#4 1", "2 G#4 1", "3 E#4 1", "4 F#4 2", "6 A#4 2", "8 G#4 2", "10 B#4 2"],
      ],
    }),
  ],
  ["with a capo in fret 1 the lowest F is there, in fret 2 it is not", "capo", guitar(1), guitar(2)],
  [
    "a note that somebody wrote needs no reason; one that gives the reason of another note is told",
    "no-reason",
    reasoned({}),
    reasoned({ reason: { id: "rootOnBeat", params: { pitch: "F#", chord: "C" } } }),
  ],
  [
    "a reason that names the pitch is true, one that names another is not",
    "no-reason",
    reasoned({ reason: { id: "rootOnBeat", params: { pitch: "C", chord: "C" } } }),
    reasoned({ reason: { id: "rootOnBeat", params: { pitch: "D", chord: "C" } } }),
  ],
];
