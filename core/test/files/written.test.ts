import { headsOf } from "./heads";
import { firstOf, lastOf, nth, sure } from "../../src/base/list";
import fc from "fast-check";
import { engrave } from "../../src/files/notation/engrave";
import { engraveBlocks, pagesOf, tunePart } from "../../src/files/notation/pages";
import { ledgersOf, staffStep, voicesIn, type EngravedChord, type EngravedStaff } from "../../src/files/notation/staff";
import { must } from "../../src/base/result";
import { neckOf } from "../../src/theory/instrument/neck";
import { instrumentOf } from "../../src/theory/instrument/instruments";
import { parsePitch, pitchMidi } from "../../src/theory/pitch/pitch";
import { realize } from "../../src/song/realize";
import { tablature } from "../../src/files/notation/tab";
import type { Song } from "../../src/song/schema/song";
import { engraveForm } from "../../src/files/notation/engrave";
import { demoSongs } from "../demos";
import { edit, songWith } from "../helpers";

const MARKS: Record<string, string> = { "-2": "bb", "-1": "b", "0": "n", "1": "#", "2": "##" };
/** A chord with the signs before its heads, reminding ones in brackets. */
const withSigns = (c: EngravedChord) =>
  c.notes
    .map((n) => {
      const sign = n.accidental ? sure(MARKS[n.accidental.alter]) : "";
      const marked = () => {
        if (n.accidental) {
          if (n.accidental.courtesy) return `(${sign})`;
          return `[${sign}]`;
        }
        return "";
      };
      return `${n.pitch}${marked()}`;
    })
    .join("+") || "r";
const barsText = (staff: EngravedStaff) => staff.measures.map((bar) => bar.map(withSigns).join(" "));
const melodyOf = (song: Song, written = false) => firstOf(must(engrave(song, "s1", "melody", { written })).staves);
const line = (key: string, chords: string, melody: string[]) => songWith({ key, line: chords, melody });

// As players read them: common practice of copyists; the raised ninth as a minor third after Roemer, *The Art of Music
// Copying* (1985), from memory.
test.each<[what: string, key: string, chords: string, melody: string[], read: string]>([
  ["the raised ninth of B7", "E minor", "| B7(#9) |", ["0 B4 1", "1 C##5 1", "2 D#5 1", "3 F#5 1"], "B4 D5 D#5 F#5"],
  [
    "the seventh of a diminished chord",
    "C major",
    "| Cdim7 |",
    ["0 C5 1", "1 Eb5 1", "2 Gb5 1", "3 Bbb4 1"],
    "C5 Eb5 Gb5 A4",
  ],
  ["a double sharp that is a leading third", "G# minor", "| D#7 | G#m |", ["0 F##4 4", "4 G#4 4"], "F##4 G#4"],
  [
    "chromatic up by sharps",
    "C major",
    "| C | F |",
    ["0 C5 1", "1 Db5 1", "2 D5 1", "3 Eb5 1", "4 E5 4"],
    "C5 C#5 D5 D#5 E5",
  ],
  [
    "chromatic down by flats",
    "C major",
    "| C | C |",
    ["0 E5 1", "1 D#5 1", "2 D5 1", "3 C#5 1", "4 C5 4"],
    "E5 Eb5 D5 Db5 C5",
  ],
  ["a chord keeps its letters", "C major", "| C7 | F |", ["0 Bb4 2", "2 C5 2", "4 A4 4"], "Bb4 C5 A4"],
  ["a leading tone in minor", "D minor", "| A7 | Dm |", ["0 E5 2", "2 C#5 2", "4 D5 4"], "E5 C#5 D5"],
  [
    "a repeated note keeps its name",
    "C major",
    "| Am | Am |",
    ["0 G#4 1", "1 Ab4 1", "2 G#4 2", "4 A4 4"],
    "G#4 G#4 G#4 A4",
  ],
  ["no E sharp far from its keys", "C major", "| C | C |", ["0 C5 2", "2 E#5 2", "4 E5 4"], "C5 F5 E5"],
  ["E sharp where the chord says so", "F# minor", "| C#7 | F#m |", ["0 E#5 4", "4 F#5 4"], "E#5 F#5"],
  ["a flat ninth far from its key", "Ab major", "| Eb7(b9) | Ab |", ["0 Fb5 4", "4 C5 4"], "E5 C5"],
  ["a flat ninth that falls", "Ab major", "| Eb7(b9) | Ab |", ["0 Fb5 4", "4 Eb5 4"], "Fb5 Eb5"],
])("%s (%s): spelled as it is read", (...[, key, chords, melody, read]) => {
  const found = melodyOf(line(key, chords, melody)).measures.flatMap((bar) =>
    bar.flatMap((c) => c.notes.map((n) => n.pitch)),
  );
  expect(found.join(" ")).toBe(read);
});

// Gould, *Behind Bars* (2011), chapter on accidentals, from memory.
test.each<[what: string, key: string, melody: string[], bars: string[]]>([
  ["once a bar", "C major", ["0 F#4 1", "1 G4 1", "2 F#4 1", "3 G4 1"], ["F#4[#] G4 F#4 G4", "r"]],
  ["taken back in the bar", "C major", ["0 F#4 1", "1 G4 1", "2 F4 2"], ["F#4[#] G4 F4[n]", "r"]],
  ["reminded after the bar", "C major", ["0 F#4 2", "2 G4 2", "4 F4 4"], ["F#4[#] G4", "F4(n)"]],
  ["anew in the next bar", "C major", ["0 F#4 2", "2 G4 2", "4 F#4 4"], ["F#4[#] G4", "F#4[#]"]],
  ["in another octave", "C major", ["0 Bb4 2", "2 A4 1", "3 B3 1"], ["Bb4[b] A4 B3(n)", "r"]],
  ["none where a tie leads, then said", "C major", ["0 C5 2", "2 F#5 3", "5 F#5 3"], ["C5 F#5[#]", "F#5 F#5[#] F#5"]],
  ["by the signature", "D major", ["0 F#4 1", "1 C5 1", "2 C#5 2"], ["F#4 C5[n] C#5[#]", "r"]],
])("accidentals: %s (%s)", (_, key, melody, bars) => {
  expect(barsText(melodyOf(songWith({ key, line: "| N.C. | N.C. |", melody })))).toEqual(bars);
});

test("read with its signature and signs alone, every note of a staff has its pitch", () => {
  const NAMES = ["C", "C#", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"];
  fc.assert(
    fc.property(
      fc.constantFrom("C major", "Db major", "E major", "G# minor", "Bb minor", "F# major"),
      fc.array(fc.integer({ min: 57, max: 82 }), { minLength: 8, maxLength: 24 }),
      (key, heights) => {
        const melody = heights.map((m, i) => `${i} ${NAMES[m % 12]}${Math.floor(m / 12) - 1} 1`);
        const song = edit(line(key, "| C7(#9) | F#m7b5 | Bdim7 | Eb7(b9) |", []), {
          do: "setSection",
          section: "s1",
          bars: 6,
        });
        const own = edit(song, {
          do: "setNotes",
          section: "s1",
          part: "melody",
          notes: melody.map((t, i) => ({ start: i * 480, duration: 480, pitch: nth(t.split(" "), 1), velocity: 80 })),
        });
        const part = must(engrave(own, "s1", "melody"));
        const home = new Map(
          part.key.scale.map((n) => [sure(n[0]), [...n.slice(1)].reduce((sum, s) => sum + (s === "#" ? 1 : -1), 0)]),
        );
        const staff = firstOf(part.staves);
        staff.measures.forEach((_, k) => {
          const signs = new Map<string, number>();
          for (const n of voicesIn(staff, k).flatMap((v) => v.flatMap((c) => c.notes))) {
            const place = sure(n.pitch[0]) + n.pitch.replace(/^[A-G][b#x]*/, "");
            if (n.accidental) signs.set(place, n.accidental.alter);
            const alter = signs.get(place) ?? sure(home.get(sure(n.pitch[0])));
            const natural = must(parsePitch(place));
            expect(natural + alter + 12 * (nth(staff.readings, k).shift + staff.octave)).toBe(n.midi);
          }
        });
      },
    ),
    { numRuns: 60, seed: 19 },
  );
});

test("no more than four ledger lines: bars change their clef or go under a line of octaves, and sound as before", () => {
  for (const [instrument, pitches] of [
    ["cello", ["C2", "E3", "A4", "C5", "E5", "G5", "A5", "C3"]],
    ["violin", ["G3", "E5", "A6", "C7", "E7", "G7", "B6", "A4"]],
    ["viola", ["C3", "E4", "C6", "E6", "D6", "A5", "C4", "C3"]],
    ["trombone", ["E2", "G3", "B4", "Bb4", "F2", "C4", "A3", "E2"]],
  ] as const) {
    const melody = pitches.map((p, i) => `${i * 4} ${p} 4`);
    const song = edit(
      songWith({ melody: [] }),
      { do: "setSection", section: "s1", bars: 8 },
      { do: "setPart", part: "melody", instrument },
    );
    const own = edit(song, {
      do: "setNotes",
      section: "s1",
      part: "melody",
      notes: melody.map((t) => ({
        start: Number(t.split(" ")[0]) * 480,
        duration: 1920,
        pitch: nth(t.split(" "), 1),
        velocity: 80,
      })),
    });
    const staff = melodyOf(own);
    staff.measures.forEach((bar, k) => {
      const { clef, shift } = nth(staff.readings, k);
      for (const n of bar.flatMap((c) => c.notes)) {
        expect([instrument, n.pitch, clef, ledgersOf(staffStep(n.pitch), clef) <= 4]).toEqual([
          instrument,
          n.pitch,
          clef,
          true,
        ]);
        expect(pitchMidi(n.pitch) + 12 * (shift + staff.octave)).toBe(n.midi);
      }
    });
  }
});

const MANY = (velocities: number[]) =>
  edit(
    songWith({ melody: [] }),
    { do: "setSection", section: "s1", bars: 4 },
    {
      do: "setNotes",
      section: "s1",
      part: "melody",
      notes: velocities.map((velocity, i) => ({ start: i * 480, duration: 480, pitch: "C5", velocity })),
    },
  );
const loud = (song: Song) => melodyOf(song).measures.map((bar) => bar.flatMap((c) => c.dynamic ?? []).join());

test(
  "loudness is said where it steps, not where single notes are accented, and not where it is the usual one " +
    "throughout",
  () => {
    expect(loud(MANY([80, 80, 80, 80, 80, 80, 80, 80, 110, 110, 110, 110, 50, 50, 50, 50]))).toEqual([
      "mf",
      "",
      "ff",
      "p",
    ]);
    expect(loud(MANY([90, 70, 80, 70, 92, 71, 80, 72, 88, 70, 79, 70, 90, 70, 80, 70]))).toEqual(["", "", "", ""]);
    expect(loud(MANY(Array<number>(16).fill(30)))).toEqual(["pp", "", "", ""]);
  },
);

test("words: syllables that go on, lines as long as one is held, verse by verse", () => {
  const base = line("C major", "| C | F |", ["0 C5 1", "1 D5 1", "2 E5 1", "3 F5 1", "4 G5 4"]);
  const ids = sure(firstOf(base.sections).notes.melody).map((n) => n.id);
  const song = edit(base, {
    do: "changeNotes",
    section: "s1",
    part: "melody",
    notes: [["ap-", "mead-"], ["ples", "ow"], ["fall"], ["_"], ["now", "then"]].map((lyrics, i) => ({
      id: nth(ids, i),
      lyrics,
    })),
  });
  const words = melodyOf(song)
    .measures.flat()
    .flatMap((c) => (c.words ? [c.words] : []));
  expect(
    words.map((w) =>
      w.map((s) => s && `${s.joins ? "-" : ""}${s.text}${s.goesOn ? "-" : ""}${s.until === null ? "" : `>${s.until}`}`),
    ),
  ).toEqual([["ap-", "mead-"], ["-ples", "-ow"], ["fall>1440"], ["now", "then"]]);
});

test("a glide is read where its line ends; comping becomes slashes with its rhythm or the beats", () => {
  const base = line("C major", "| C | F |", ["0 C5 1.5", "1.5 D5 0.5", "2 E5 2"]);
  const song = edit(base, {
    do: "changeNotes",
    section: "s1",
    part: "melody",
    notes: [{ id: firstOf(sure(firstOf(base.sections).notes.melody)).id, slide: { kind: "glide", to: "D5" } }],
  });
  expect(firstOf(firstOf(firstOf(melodyOf(song).measures)).notes).slide).toBe("D5");
  const real = realize(song, { section: "s1" });
  const values = (layout: "rhythm" | "slashes") =>
    firstOf(firstOf(firstOf(must(engraveForm(song, real, "melody", { layout }))).staves).measures).map(
      (c) => `${firstOf(c.notes).head} ${c.value}${".".repeat(c.dots)}`,
    );
  expect(values("rhythm")).toEqual(["slash q.", "slash 8", "slash h"]);
  expect(values("slashes")).toEqual(["slash q", "slash q", "slash q", "slash q"]);
});

test("strings and frets sound what is written, what a tie holds stays on its string", () => {
  const song = edit(songWith({ bass: ["0 E2 1", "1 G2 1", "2 A2 4", "6 D3 2"] }), {
    do: "setSection",
    section: "s1",
    bars: 2,
  });
  const part = sure(song.parts.find((p) => p.id === "bass"));
  const neck = sure(neckOf(instrumentOf(part.instrument, song)));
  const staff = firstOf(must(engrave(song, "s1", "bass")).staves);
  const tab = tablature(staff, neck);
  staff.measures.forEach((bar, k) =>
    bar.forEach((c, i) => {
      const moment = nth(tab.measures, k)[i];
      expect(moment?.places.map((p) => nth(neck.strings, p.string) + p.fret)).toEqual(
        c.notes.length ? c.notes.map((n) => n.midi) : undefined,
      );
    }),
  );
  expect(nth(tab.measures, 1)[0]).toEqual({ ...lastOf(firstOf(tab.measures)), held: true });
});

test("pages: each section once with a road map, or pass by pass with what is repeated at once in repeat signs", () => {
  const song: Song = {
    ...line("C major", "| C | F |", ["0 C5 4"]),
    form: [
      { id: "p1", sectionId: "s1" },
      { id: "p2", sectionId: "s1" },
      { id: "p3", sectionId: "s1", transpose: 2 },
      { id: "p4", sectionId: "s1" },
    ],
  };
  const name = firstOf(song.sections).name;
  const through = pagesOf(song, "through");
  expect(through.blocks.map((b) => [b.name, b.times, b.first, b.key.tonic])).toEqual([
    [name, 2, 1, "C"],
    [`${name}, 3rd time`, 1, 3, "D"],
    [name, 1, 5, "C"],
  ]);
  const once = pagesOf(song, "once");
  expect(once.blocks.map((b) => [b.name, b.times])).toEqual([
    [name, 1],
    [`${name}, 3rd time`, 1],
  ]);
  expect(once.form).toEqual([
    { name, times: 2 },
    { name: `${name}, 3rd time`, times: 1 },
    { name, times: 1 },
  ]);
  const [, moved] = must(engraveBlocks(song, once, "melody"));
  expect(firstOf(firstOf(firstOf(firstOf(sure(moved).staves).measures)).notes).pitch).toBe("D5");
  expect(nth(once.blocks, 1).chords.map((c) => c.symbol)).toEqual(["D", "G"]);
  // A part that is out in one pass makes no other part's page different.
  const out: Song = { ...song, form: [firstOf(song.form), { ...nth(song.form, 1), muted: ["bass"] }] };
  expect([undefined, ["melody"], ["bass"]].map((about) => pagesOf(out, "once", about).blocks.length)).toEqual([
    2, 1, 2,
  ]);
  expect(must(tunePart(song)).id).toBe("melody");
  expect(tunePart(songWith({})).ok).toBe(false);
});

test("passes that stand by themselves have their own upbeat; in the form it stands in the bar before", () => {
  const base = line("C major", "| C | F |", ["-1 G4 1", "0 C5 4"]);
  const song: Song = {
    ...base,
    form: [
      { id: "p1", sectionId: "s1" },
      { id: "p2", sectionId: "s1", transpose: 5 },
    ],
  };
  const real = realize(song);
  const apart = must(engraveForm(song, real, "melody", { apart: true }));
  expect(apart.map((p) => firstOf(p.staves).pickup.map((c) => firstOf(c.notes).pitch))).toEqual([["G4"], ["C5"]]);
  const joined = must(engraveForm(song, real, "melody"));
  expect(firstOf(nth(joined, 1).staves).pickup).toEqual([]);
  expect(firstOf(lastOf(lastOf(firstOf(firstOf(joined).staves).measures)).notes).pitch).toBe("C5");
});

/** First bars of the demo songs as they were checked by eye, as text: [song, section, part, staff, bar]. */
const FIRST_BARS: [string, string, string, number, string][] = [
  ["Lanterns on Row Nine", "Verse", "Orla, voice", 0, "G4:q. F4:8 G4:q Bb4:q"],
  ["Lanterns on Row Nine", "Verse", "Piano", 1, "F3+G3+Bb3:w"],
  ["Lanterns on Row Nine", "Verse", "Bass", 0, "Eb3:h Eb3:h"],
  [
    "Lanterns on Row Nine",
    "Verse",
    "Drums",
    0,
    "G5:8 G5:8 C5+G5:8 G5:8 G5:8 G5:8 C5+G5:8 G5:8 // F4:q r:8 F4:8 F4:q r:q",
  ],
  ["Lanterns on Row Nine", "Chorus", "Wren, voice", 0, "Ab4:q. G4:8 Ab4:q C5:q"],
  ["Cider Press Strut", "Strut", "Clarinet", 0, "r:q r:8 B4:8 D5:8 F#5:q r:8"],
  ["Cider Press Strut", "Strut", "Electric piano", 0, "E4+C5:w"],
  ["Cider Press Strut", "Strut", "Bass", 0, "D3:q r:8 D3~:8 D3:8. D3:16 r:8 D3:8"],
  [
    "Cider Press Strut",
    "Strut",
    "Drums",
    0,
    "G5:8 G5:8 E5+G5:8 G5:8 G5:8 G5:8 E5+G5:8 G5:8 // F4:q r:8 F4:8 r:8 r:16 F4:16 r:q",
  ],
  ["Hayloft Waltz", "Round", "Strings", 0, "F#5:h."],
  ["Hayloft Waltz", "Round", "Tam, voice", 0, "G4:h B4:q"],
  ["Hayloft Waltz", "Round", "Guitar", 0, "r:q G3+B3+D4+G4+B4+F#5:q' G3+B3+D4+G4+B4+F#5:q'"],
  ["Hayloft Waltz", "Round", "Bass", 0, "G2:q D3:q G3:q"],
  ["Hayloft Waltz", "Round", "Drums", 0, "r:q C5:q C5:q // F4:q r:q r:q"],
  ["Sorting Shed Stomp", "Shed", "Vi, voice", 0, "r:h G4:8 A4:8 B4:q"],
  ["Sorting Shed Stomp", "Shed", "Organ", 0, "r:8 D4+E4+B4:8' r:8 D4+E4+B4:8' r:8 D4+E4+B4:8' r:8 D4+E4+B4:8'"],
  ["Sorting Shed Stomp", "Shed", "Organ", 1, "r:8 G3:8' r:8 G3:8' r:8 G3:8' r:8 G3:8'"],
  ["Sorting Shed Stomp", "Shed", "Bass", 0, "E2:8 E3:8' r:8 E2:8' r:8 E3:16 E2:16 r:8 E3:8'"],
  ["Sorting Shed Stomp", "Tailgate", "Sub", 0, "C3:8 r:8 r:8 C3:8 r:q C3:q'"],
];
const plain = (bar: readonly EngravedChord[]) =>
  bar
    .map((c) => [headsOf(c), ":", c.value, ".".repeat(c.dots), c.articulation === "staccato" ? "'" : ""].join(""))
    .join(" ");

test.each(FIRST_BARS)("%s, %s, %s, staff %d", (...[title, section, part, staff, expected]) => {
  const song = sure(demoSongs().find((s) => s.title === title));
  const s = sure(song.sections.find((x) => x.name === section));
  const found = nth(
    must(engrave(song, s.id, sure(song.parts.find((p) => p.name === part)).id, { written: true })).staves,
    staff,
  );
  expect(voicesIn(found, 0).map(plain).join(" // ")).toBe(expected);
});
