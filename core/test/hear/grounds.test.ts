import { firstOf, lastOf, nth, sure } from "../../src/base/list";
import { analyzeSection } from "../../src/hear/harmony/analyze";
import { bassLines } from "../../src/write/bass/write";
import { checkSong } from "../../src/judge/check/check";
import { findKeysOfChords } from "../../src/hear/harmony/keys";
import { follow } from "../../src/judge/follow/follow";
import { must } from "../../src/base/result";
import { parseChord } from "../../src/theory/chord/parse";
import { PROFILES } from "../../src/song/schema/playing";
import { reharmonizations } from "../../src/arrange/reharm/reharmonize";
import { voiceSection } from "../../src/arrange/voicing/section";
import { writeLine } from "../../src/theory/chord/progression";
import { parseMeter } from "../../src/theory/time/meter";
import type { Edit } from "../../src/song/edits/list";
import type { Song } from "../../src/song/schema/song";
import { edit, songWith } from "../helpers";

/**
 * Grounds and schemes that have been played for centuries, as any history of music or harmony textbook prints them
 * (from memory): their numerals are not a matter of taste. Grounds of the sixteenth and seventeenth century are
 * passamezzo, romanesca, folia, bergamasca and lament.
 */
const GROUNDS: readonly {
  name: string;
  key: string;
  meter?: string;
  line: string;
  roman: string;
  ends?: string;
  fits?: string;
}[] = [
  {
    name: "passamezzo antico",
    key: "G minor",
    line: "| Gm | F | Gm | D | Bb | F | Gm D | Gm |",
    roman: "i VII i V III VII i V i",
    ends: "perfect",
  },
  {
    name: "passamezzo moderno",
    key: "G major",
    line: "| G | C | G | D | G | C | G D | G |",
    roman: "I IV I V I IV I V I",
    ends: "perfect",
  },
  {
    name: "romanesca",
    key: "G minor",
    line: "| Bb | F | Gm | D | Bb | F | Gm D | Gm |",
    roman: "III VII i V III VII i V i",
    ends: "perfect",
  },
  {
    name: "folia",
    key: "D minor",
    meter: "3/4",
    line: "| Dm | A7 | Dm | C | F | C | Dm | A7 | Dm | A7 | Dm | C | F | C | A7 | Dm |",
    roman: "i V7 i VII III VII i V7 i V7 i VII III VII V7 i",
    ends: "perfect",
  },
  { name: "bergamasca", key: "G major", line: "| G | C | D | G |", roman: "I IV V I", ends: "perfect" },
  {
    name: "a canon over eight bass notes",
    key: "D major",
    line: "| D A | Bm F#m | G D | G A |",
    roman: "I V vi iii IV I IV V",
    ends: "half",
  },
  {
    name: "descending tetrachord",
    key: "A minor",
    line: "| Am | G | F | E |",
    roman: "i VII VI V",
    ends: "phrygian half",
  },
  {
    name: "lament over its bass",
    key: "A minor",
    line: "| Am | Em/G | F | E |",
    roman: "i v6 VI V",
    ends: "phrygian half",
  },
  {
    name: "circle of fifths",
    key: "A minor",
    line: "| Am | Dm | G | C | F | Bdim | E | Am |",
    roman: "i iv VII III VI ii° V i",
    ends: "perfect",
  },
  {
    name: "circle of fifths in sevenths",
    key: "C major",
    line: "| Cmaj7 | Fmaj7 | Bm7b5 | Em7 | Am7 | Dm7 | G7 | Cmaj7 |",
    roman: "Imaj7 IVmaj7 viiø7 iii7 vi7 ii7 V7 Imaj7",
    ends: "perfect",
  },
  {
    name: "dominants in a row",
    key: "C major",
    line: "| C | A7 | D7 | G7 | C |",
    roman: "I V7/ii V7/V V7 I",
    ends: "perfect",
  },
  {
    name: "bridge of four dominants",
    key: "Bb major",
    line: "| D7 | G7 | C7 | F7 | Bb |",
    roman: "V7/vi V7/ii V7/V V7 I",
    ends: "perfect",
  },
  { name: "one, six, four, five", key: "C major", line: "| C | Am | F | G |", roman: "I vi IV V", ends: "half" },
  { name: "five after one, six, four", key: "G major", line: "| G | D | Em | C |", roman: "I V vi IV" },
  {
    name: "two, five, one in minor",
    key: "C minor",
    line: "| Dm7b5 | G7(b9) | Cm7 |",
    roman: "iiø7 V7(b9) i7",
    ends: "perfect",
  },
  {
    name: "minor with its four and five",
    key: "C minor",
    line: "| Cm7 | Fm7 | Cm7 | Ab7 | G7 | Cm7 |",
    roman: "i7 iv7 i7 VI7 V7 i7",
    ends: "perfect",
  },
  { name: "Neapolitan sixth", key: "A minor", line: "| Am | Bb/D | E7 | Am |", roman: "i bII6 V7 i", ends: "perfect" },
  {
    name: "the four after two, minor",
    key: "Eb major",
    line: "| Ebmaj7 | Abm7 Db7 | Ebmaj7 |",
    roman: "Imaj7 iv7 bVII7 Imaj7",
    ends: "backdoor",
  },
  { name: "mixolydian", key: "D mixolydian", line: "| D | C | G | D |", roman: "I bVII IV I", ends: "plagal" },
  { name: "the same in major", key: "D major", line: "| D | C | G | D |", roman: "I bVII IV I", ends: "plagal" },
  { name: "dorian", key: "D dorian", line: "| Dm | G | Dm | C |", roman: "i IV i VII" },
  {
    name: "diminished between two degrees",
    key: "C major",
    line: "| C | C7 | F | F#dim7 | C/G | A7 | D7 | G7 | C |",
    roman: "I V7/IV IV #iv°7 I64 V7/ii V7/V V7 I",
    ends: "perfect",
  },
];

const songOf = ({ line, key, meter = "4/4" }: (typeof GROUNDS)[number]): Song => songWith({ line, key, meter });
const laidOut = (song: Song, change: Edit): Song => edit(song, change, ...follow(song, change));

describe.each(GROUNDS.map((g) => [g.name, g] as const))("%s", (_, ground) => {
  const song = songOf(ground);
  const report = analyzeSection(song, "s1");

  test("its numerals and its ending", () => {
    expect(report.chords.map((c) => c.roman).join(" ")).toBe(ground.roman);
    if (ground.ends) expect(lastOf(report.cadences).kind).toBe(ground.ends);
  });

  test("is one key throughout", () => {
    expect(report.regions).toEqual([]);
  });

  test("in every other key it is the same, name by name", () => {
    const line = (text: string) =>
      analyzeSection(songWith({ line: text, key: moved(ground.key), meter: ground.meter ?? "4/4" }), "s1");
    // A whole tone up, every name by the same letters.
    const up = (name: string) => sure(UP[name]);
    const moved = (key: string) => key.replace(/^[A-G][b#]?/, up);
    const text = ground.line.replace(
      /(^|[ |/])([A-G][b#]?)/g,
      (_all, before: string, name: string) => before + up(name),
    );
    const there = line(text);
    expect(there.chords.map((c) => [c.roman, c.category])).toEqual(report.chords.map((c) => [c.roman, c.category]));
    expect(there.cadences.map((c) => c.kind)).toEqual(report.cadences.map((c) => c.kind));
  });

  test("its line reads back, and every chord can be laid out, given a bass and another harmony", () => {
    const { chords, bars } = firstOf(song.sections);
    const meter = must(parseMeter(song.meter));
    expect(
      firstOf(edit(song, { do: "setLine", section: "s1", line: writeLine(chords, meter, bars) }).sections).chords,
    ).toEqual(chords);
    const voiced = must(voiceSection(song, "s1", "keys"));
    voiced.chords.forEach((v, i) => {
      const tones = must(parseChord(nth(chords, i).symbol));
      expect([nth(chords, i).symbol, v.pitches.length]).toEqual([nth(chords, i).symbol, 4]);
      expect(tones.tones.length).toBeGreaterThanOrEqual(3);
    });
    const [bass] = must(bassLines(song, { section: "s1", part: "bass", style: "root-anchored", seed: 1 }));
    expect(sure(bass).notes.length).toBeGreaterThanOrEqual(chords.length / 2);
    const offers = must(reharmonizations({ song, section: "s1", chordIds: [nth(chords, 1).id], range: 0.5 }));
    expect(offers.length).toBeGreaterThan(0);
  });

  test("played as it is laid out, no school finds a fault in the chords alone", () => {
    const full = laidOut(songWith({ key: ground.key, meter: ground.meter ?? "4/4" }), {
      do: "setLine",
      section: "s1",
      line: ground.line,
    });
    for (const profile of PROFILES.filter((p) => p !== "chorale")) {
      const faults = checkSong(edit(full, { do: "setProfile", profile })).filter((f) => f.severity === "fault");
      expect([profile, faults.map((f) => f.message)]).toEqual([profile, []]);
    }
  });
});

const UP: Record<string, string> = {
  C: "D",
  "C#": "D#",
  Db: "Eb",
  D: "E",
  "D#": "E#",
  Eb: "F",
  E: "F#",
  F: "G",
  "F#": "G#",
  Gb: "Ab",
  G: "A",
  "G#": "A#",
  Ab: "Bb",
  A: "B",
  "A#": "B#",
  Bb: "C",
  B: "C#",
};

test("the key of a ground that ends on its tonic is found from its chords", () => {
  for (const ground of GROUNDS.filter((g) => g.ends === "perfect" && g.name !== "bridge of four dominants")) {
    const chords = firstOf(songOf(ground).sections).chords.map((c) => ({
      chord: must(parseChord(c.symbol)),
      duration: c.duration,
    }));
    const [best] = findKeysOfChords(chords);
    expect([ground.name, [sure(best).key, ...sure(best).equal].includes(ground.key)]).toEqual([ground.name, true]);
  }
});
