import { firstOf, lastOf, nth, sure } from "../../src/base/list";
import { analyzeSection } from "../../src/hear/harmony/analyze";
import { chordPitchClasses } from "../../src/theory/chord/chord";
import { factsOf } from "../../src/facts/memory";
import { findKeys } from "../../src/hear/harmony/keys";
import { harmonizations } from "../../src/arrange/reharm/harmonize";
import { must } from "../../src/base/result";
import { parseChord } from "../../src/theory/chord/parse";
import { pitchMidi } from "../../src/theory/pitch/pitch";
import { realize } from "../../src/song/realize";
import { tuneAt } from "../../src/hear/line/facts";
import { tuneReport } from "../../src/hear/line/report";
import type { Edit } from "../../src/song/edits/list";
import type { NewNote } from "../../src/song/schema/material";
import type { Song } from "../../src/song/schema/song";
import { edit, songWith } from "../helpers";

/** Tunes that have belonged to everybody for long, written from memory: pitch and length in beats; a dash is a rest. */
const TUNES: readonly {
  name: string;
  source: string;
  key: string;
  meter: string;
  pickup?: number;
  notes: string;
  ends: string[];
}[] = [
  {
    name: "Ah, vous dirai-je, maman",
    source: "French, printed 1761",
    key: "C major",
    meter: "4/4",
    notes: "C5 1 C5 1 G5 1 G5 1 A5 1 A5 1 G5 2 F5 1 F5 1 E5 1 E5 1 D5 1 D5 1 C5 2",
    ends: ["C"],
  },
  {
    name: "Frère Jacques",
    source: "French round, eighteenth century",
    key: "F major",
    meter: "4/4",
    notes: "F4 1 G4 1 A4 1 F4 1 F4 1 G4 1 A4 1 F4 1 A4 1 Bb4 1 C5 2 A4 1 Bb4 1 C5 2 F4 1 C4 1 F4 2 F4 1 C4 1 F4 2",
    ends: ["F"],
  },
  {
    name: "Greensleeves",
    source: "English, registered 1580",
    key: "A minor",
    meter: "6/8",
    notes:
      "C5 1 D5 .5 E5 .75 F5 .25 E5 .5 D5 1 B4 .5 G4 .75 A4 .25 B4 .5 C5 1 A4 .5 A4 .75 G#4 .25 A4 .5 B4 1 G#4 " +
      ".5 E4 1.5 C5 1 D5 .5 E5 .75 F5 .25 E5 .5 D5 1 B4 .5 G4 .75 A4 .25 B4 .5 C5 .75 B4 .25 A4 .5 G#4 .75 F#4 " +
      ".25 G#4 .5 A4 3",
    ends: ["Am", "A"],
  },
  {
    name: "New Britain",
    source: "American, printed 1829",
    key: "G major",
    meter: "3/4",
    notes:
      "G4 2 B4 .5 G4 .5 B4 2 A4 1 G4 2 E4 1 D4 2 D4 1 G4 2 B4 .5 G4 .5 B4 2 A4 1 D5 3 D5 3 B4 2 D5 .5 B4 .5 D5 " +
      "2 B4 .5 A4 .5 G4 3 G4 3",
    ends: ["G"],
  },
  {
    name: "Auld Lang Syne",
    source: "Scots, this tune printed 1799",
    key: "F major",
    meter: "4/4",
    notes:
      "F4 1.5 F4 .5 F4 1 A4 1 G4 1.5 F4 .5 G4 1 A4 1 F4 1.5 F4 .5 A4 1 C5 1 D5 4 C5 1.5 A4 .5 A4 1 F4 1 G4 1.5 " +
      "F4 .5 G4 1 A4 1 F4 1.5 D4 .5 D4 1 C4 1 F4 4",
    ends: ["F"],
  },
  {
    name: "Scarborough Fair",
    source: "English, nineteenth-century collections",
    key: "D dorian",
    meter: "3/4",
    notes:
      "D4 2 D4 1 A4 2 A4 1 E4 1.5 F4 .5 E4 1 D4 3 A4 1 C5 1 D5 1 C5 1 A4 1 B4 1 G4 1 A4 2 D5 3 C5 1 A4 2 G4 1 " +
      "F4 1 E4 1 C4 3 D4 3",
    ends: ["Dm", "D", "Dm7", "D5"],
  },
];

const BEAT = 480;
function noted(text: string): NewNote[] {
  const words = text.split(" ");
  let start = 0;
  return Array.from({ length: words.length / 2 }, (_, i): NewNote => {
    const duration = Math.round(Number(words[2 * i + 1]) * BEAT);
    const note = { start, duration, pitch: nth(words, 2 * i), velocity: 90 };
    start += duration;
    return note;
  });
}

describe.each(TUNES.map((t) => [`${t.name} (${t.source})`, t] as const))("%s", (_, tune) => {
  const notes = noted(tune.notes);
  const end = lastOf(notes).start + lastOf(notes).duration;
  const bar = sure({ "4/4": 1920, "3/4": 1440, "6/8": 1440 }[tune.meter]);
  const song: Song = edit(
    songWith({ key: tune.key, meter: tune.meter }),
    { do: "setSection", section: "s1", bars: Math.ceil(end / bar) },
    { do: "setNotes", section: "s1", part: "melody", notes },
  );
  const found = must(harmonizations({ song, section: "s1", part: "melody", rhythm: "bar" }, "melody"));

  test("is in its key", () => {
    const [best] = findKeys(sure(realize(song, { section: "s1" }).parts.find((p) => p.id === "melody")).notes);
    const relatives = [sure(best).key, ...sure(best).equal];
    const [tonic, mode] = tune.key.split(" ");
    expect(relatives.some((k) => k.startsWith(`${tonic} `)) || mode === "dorian").toBe(true);
  });

  test("has chords that hold its long notes, end at home, and come to rest there", () => {
    expect(found.length).toBeGreaterThan(2);
    for (const { events: chords } of found) {
      const made = edit(song, {
        do: "setChords",
        section: "s1",
        from: 0,
        to: firstOf(song.sections).bars * bar,
        chords,
      } as Edit);
      const written = firstOf(made.sections).chords;
      expect([tune.name, tune.ends.some((e) => lastOf(written).symbol.startsWith(e))]).toEqual([tune.name, true]);
      // A note of a beat or more that begins with its chord is a tone of it, or hangs over a suspension.
      const long = notes.filter((n) => n.duration >= 960);
      const held = long.filter((n) => {
        const event = written.find((c) => c.start <= n.start && n.start < c.start + c.duration);
        const chord = event && must(parseChord(event.symbol));
        return chord && chordPitchClasses(chord).includes(pitchMidi(n.pitch) % 12);
      });
      expect([tune.name, held.length / Math.max(1, long.length) >= 0.5]).toEqual([tune.name, true]);
      const report = analyzeSection(made, "s1");
      expect(report.chords.filter((c) => c.category === "chromatic")).toEqual([]);
    }
  });

  test(
    "its report says what one can sing: as many phrases as rests divide it into, its own ends, a leap answered " +
      "or not",
    () => {
      const context = sure(factsOf(song).get(tuneAt, "s1", "melody"));
      const rows = new Map(tuneReport(context).map((m) => [m.id, m]));
      const midis = notes.map((n) => pitchMidi(n.pitch));
      const [low, high] = [
        nth(notes, midis.indexOf(Math.min(...midis))),
        nth(notes, midis.indexOf(Math.max(...midis))),
      ];
      expect(sure(rows.get("range")).value).toBe(
        `${low.pitch} to ${high.pitch}, ${Math.max(...midis) - Math.min(...midis)} semitones`,
      );
      // None of these tunes rests: each is one phrase, though a singer breathes.
      expect(sure(rows.get("phrases")).value).toMatch(/^one, of \d+\.\d s$/);
      const wide = midis.slice(1).filter((m, i) => Math.abs(m - nth(midis, i)) >= 5).length;
      expect(sure(rows.get("leaps")).value.startsWith(wide ? String(wide) : "none")).toBe(true);
      expect(Number.parseInt(sure(rows.get("pitches")).value, 10)).toBe(new Set(midis.map((m) => m % 12)).size);
      for (const row of rows.values())
        expect([row.id, row.how.length > 10, row.value.length > 0]).toEqual([row.id, true, true]);
    },
  );

  test("every alternative is another one", () => {
    const texts = found.map(({ events: chords }) => chords.map((c) => `${c.symbol}@${c.start}`).join(" "));
    expect(new Set(texts).size).toBe(texts.length);
  });
});
