import { firstOf, sure } from "../../src/base/list";
import { must } from "../../src/base/result";
import { agreeOnAccents } from "../../src/arrange/groove/agree";
import { DRUM_PATTERNS, patternLanes, withFill, withVariation } from "../../src/arrange/groove/patterns";
import { harmonizations } from "../../src/arrange/reharm/harmonize";
import { reharmonizations } from "../../src/arrange/reharm/reharmonize";
import { reharmonizeSection } from "../../src/arrange/reharm/section";
import { judgeProgression } from "../../src/arrange/reharm/verdict";
import { roomForVoice } from "../../src/arrange/room/room";
import { chooseCapo } from "../../src/arrange/voicing/capo";
import { VOICING_STYLES } from "../../src/arrange/voicing/styles";
import { voicedProgressions } from "../../src/arrange/voicing/path";
import type { Lane } from "../../src/song/schema";
import { parseMeter } from "../../src/theory/time/meter";
import { demoSongs } from "../demos";
import { edit, songWith } from "../helpers";
import { expectKept } from "../kept";

const ROWS = {
  jazz: ["Dm9", "G13", "Cmaj9", "A7(b9)", "Dm7b5", "G7(#5)", "Cm6", "Cm(maj7)"],
  songs: ["C", "G/B", "Am", "F", "Fm6", "C/G", "Gsus4", "G"],
  blues: ["E9", "A13", "E7(#9)", "B7(b13)", "F#m7/E", "D#dim7", "E6/9"],
};

test("layouts of every style on the instruments that play it", () => {
  const found: Record<string, string[]> = {};
  for (const style of VOICING_STYLES)
    for (const instrument of ["piano", "guitar", "strings", "vibraphone", "ukulele"])
      for (const [name, chords] of Object.entries(ROWS)) {
        const voiced = voicedProgressions({ chords, instrument, style: style.id, k: 2 });
        found[`${style.id}, ${instrument}, ${name}`] = voiced.ok
          ? voiced.value.map((p) => p.voicings.map((v) => v.join(" ")).join(" | "))
          : [voiced.error.message];
      }
  expectKept("voicing", found);
});

test("layouts under the notes of a tune, in every style that takes one", () => {
  const found: Record<string, string[]> = {};
  const chords = ["Cmaj7", "A7", "Dm7", "G7", "C6", "Fm6", "Cmaj7"];
  for (const style of VOICING_STYLES)
    for (const voices of [4, 5]) {
      const outer = Object.fromEntries(["C5", "B4", "C5", "E5", "D5", "C5", "C5"].map((top, i) => [i, { top }]));
      const voiced = voicedProgressions({ chords, instrument: "piano", style: style.id, k: 2, outer, voices });
      found[`${style.id}, ${voices}`] = voiced.ok
        ? voiced.value.map((p) => p.voicings.map((v) => v.join(" ")).join(" | "))
        : [voiced.error.message];
    }
  expectKept("underTune", found);
});

const TUNE = [
  "0 E4 1",
  "1 G4 1",
  "2 A4 1.5",
  "3.5 G4 .5",
  "4 F4 2",
  "6 D4 2",
  "8 B3 1",
  "9 D4 1",
  "10 G4 2",
  "12 E4 4",
];
const PROGRESSIONS: [key: string, line: string][] = [
  ["C major", "| C | Dm7 | G7 | C |"],
  ["A minor", "| Am | F | E7 | Am |"],
  ["Eb major", "| Ebmaj7 | Cm7 | Fm7 Bb7 | Eb6 |"],
];

test("other chords for a place and for a section, close and adventurous, and why", () => {
  const found: Record<string, string[]> = {};
  for (const [key, line] of PROGRESSIONS) {
    const song = songWith({ key, line, ...(key === "C major" ? { melody: TUNE } : {}) });
    for (const range of [0.1, 0.5, 0.9]) {
      for (const chord of firstOf(song.sections).chords.slice(0, 3))
        found[`${key} ${range} ${chord.symbol}`] = must(
          reharmonizations({ song, section: "s1", chordIds: [chord.id], range }),
        )
          .slice(0, 6)
          .map((c) => `${c.title}: ${c.chords.map((e) => e.symbol).join(" ")} ${c.adventure.toFixed(2)}`);
      found[`${key} ${range} all`] = must(reharmonizeSection({ song, section: "s1", range })).map((p) =>
        p.events.map((e) => e.symbol).join(" "),
      );
    }
    const verdict = judgeProgression(song, "s1");
    found[`${key} verdict`] = [JSON.stringify(verdict)];
  }
  expectKept("reharm", found);
});

test("chords for a tune and over a bass, by the bar, the half bar and freely", () => {
  const found: Record<string, string[]> = {};
  const bass = ["0 C2 4", "4 A1 4", "8 D2 2", "10 G1 2", "12 C2 4"];
  const song = songWith({ line: "| % | % | % | % |".replace(/%/g, "C"), melody: TUNE, bass });
  for (const as of ["melody", "bass"] as const)
    for (const rhythm of ["bar", "half bar", "free"] as const)
      for (const color of [0.1, 0.7])
        found[`${as} ${rhythm} ${color}`] = must(
          harmonizations({ song, section: "s1", part: as, rhythm, color }, as),
        ).map((h) => h.events.map((e) => e.symbol).join(" "));
  expectKept("harmonize", found);
});

const hits = (lanes: readonly Lane[]): string[] =>
  lanes.filter((l) => l.hits.length).map((l) => `${l.drum} ${l.hits.map((h) => `${h.start}:${h.velocity}`).join(" ")}`);

test("drum patterns in three meters, with a fill, and varied", () => {
  const found: Record<string, string[]> = {};
  for (const pattern of DRUM_PATTERNS)
    for (const name of ["4/4", "3/4", "6/8"]) {
      const meter = must(parseMeter(name));
      const lanes = patternLanes(pattern, meter, 2);
      found[`${pattern.id} ${name}`] = hits(lanes);
      if (name !== "4/4") continue;
      found[`${pattern.id} filled`] = hits(withFill(lanes, meter, 1, { length: 2, seed: 5 }));
      found[`${pattern.id} varied`] = hits(withVariation(lanes, meter, 2, { length: 8 * meter.bar, seed: 4 }));
    }
  expectKept("groove", found);
});

test("accents that are agreed on, room for the voice, and capos in the demo songs", () => {
  const found: Record<string, string[]> = {};
  for (const song of demoSongs())
    for (const section of song.sections) {
      const place = `${song.title}, ${section.name}`;
      const agreed = agreeOnAccents(song, section.id);
      found[`${place}, accents`] = agreed.ok ? [JSON.stringify(agreed.value)] : [agreed.error.message];
      const voice = sure(song.parts.find((p) => p.role === "vocal" || p.role === "melody"));
      const room = roomForVoice(song, { section: section.id, part: voice.id });
      found[`${place}, room`] = room.ok ? room.value.parts.map((p) => JSON.stringify(p)) : [room.error.message];
    }
  const guitar = edit(songWith({ key: "Eb major", line: "| Eb | Ab | Bb7 | Cm |" }), {
    do: "setPart",
    part: "keys",
    instrument: "guitar",
  });
  found.capo = must(chooseCapo(guitar, "keys")).map((c) => JSON.stringify(c));
  expectKept("places", found);
});
