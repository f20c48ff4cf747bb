import { headsOf } from "./heads";
import { firstOf, sure } from "../../src/base/list";
import { applyEdit } from "../../src/song/edits";
import { engrave, engraveGrand } from "../../src/files/notation/engrave";
import { INSTRUMENTS, instrumentOf, midiRange } from "../../src/theory/instrument/instruments";
import { must } from "../../src/base/result";
import { parseSong } from "../../src/song/document";
import { pitchMidi } from "../../src/theory/pitch/pitch";
import { realize } from "../../src/song/realize";
import type { OwnInstrument } from "../../src/song/schema/song";
import { edit, songWith } from "../helpers";

/** Marks of shortness as the table writes them. */
const SHORT = { staccato: "'", tenuto: "_", none: "" };

const line = (melody: string[], meter = "4/4", key = "C major") => songWith({ line: "| C | F |", melody, meter, key });
const text = (song: ReturnType<typeof line>, part = "melody", written = false) =>
  must(engrave(song, "s1", part, { written })).staves.map((s) =>
    s.measures.map((m) =>
      m
        .map((c) =>
          [headsOf(c), ":", c.value, ".".repeat(c.dots), c.triplet ? "t" : "", SHORT[c.articulation ?? "none"]].join(
            "",
          ),
        )
        .join(" "),
    ),
  );

test.each<[string, string[], string, string]>([
  ["plain values", ["0 C5 1", "1 D5 0.5", "1.5 E5 0.5", "2 F5 2"], "4/4", "C5:q D5:8 E5:8 F5:h"],
  ["a dotted quarter on the beat", ["0 C5 1.5", "1.5 D5 0.5", "2 E5 2"], "4/4", "C5:q. D5:8 E5:h"],
  ["what crosses the middle of the bar is tied there", ["0 C5 1", "1 D5 2", "3 E5 1"], "4/4", "C5:q D5~:q D5:q E5:q"],
  [
    "a syncopation over one beat stays whole",
    ["0 C5 0.5", "0.5 D5 1", "1.5 E5 0.5", "2 F5 2"],
    "4/4",
    "C5:8 D5:q E5:8 F5:h",
  ],
  [
    "triplets",
    ["0 C5 0.3333", "0.3333 D5 0.3334", "0.6667 E5 0.3333", "1 F5 3"],
    "4/4",
    "C5:8t D5:8t E5:8t F5~:q F5:h",
  ],
  ["six eight is felt in two", ["0 C5 1.5", "1.5 D5 1", "2.5 E5 0.5"], "6/8", "C5:q. D5:q E5:8"],
  ["seven eight keeps its groups", ["0 C5 1", "1 D5 1", "2 E5 1.5"], "7/8", "C5:q D5:q E5:q."],
  ["rests fill the bar", ["1 C5 0.5"], "4/4", "r:q C5:q' r:h"],
])("%s", (_, notes, meter, bar) => {
  expect(firstOf(text(line(notes, meter)))[0]).toBe(bar);
});

test(
  "every bar is full, a note over the bar line is tied, chords are written together, an upbeat stands before the " +
    "first bar",
  () => {
    const song = line(["-0.5 G4 0.5", "0 C5 5", "5 E5 1", "5 G5 1"]);
    const part = must(engrave(song, "s1", "melody"));
    for (const measure of firstOf(part.staves).measures)
      expect(measure.reduce((sum, c) => sum + c.ticks, 0)).toBe(1920);
    expect(text(song)[0]).toEqual(["C5~:w", "C5:q E5+G5:q r:h"]);
    expect(firstOf(part.staves).pickup.map((c) => firstOf(c.notes).pitch)).toEqual(["G4"]);
  },
);

test(
  "transposing instruments read their own key and notes; an octave clef keeps the key (orchestration handbooks, " +
    "values from memory)",
  () => {
    const song = line(["0 Eb4 2", "2 G4 1", "3 F#4 0.5", "3.5 G4 0.5"], "4/4", "Eb major");
    const on = (instrument: string) => edit(song, { do: "setPart", part: "melody", instrument });
    const clarinet = must(engrave(on("clarinet"), "s1", "melody", { written: true }));
    expect([clarinet.key.tonic, clarinet.key.signature]).toEqual(["F", -1]);
    expect(firstOf(text(on("clarinet"), "melody", true))[0]).toBe("F4:h A4:q G#4:8 A4:8");
    expect(firstOf(text(on("altoSax"), "melody", true))[0]).toBe("C5:h E5:q D#5:8 E5:8");
    expect(firstOf(text(on("tenorSax"), "melody", true))[0]).toBe("F5:h A5:q G#5:8 A5:8");
    expect(firstOf(text(on("guitar"), "melody", true))[0]).toBe("Eb5:h G5:q F#5:8 G5:8");
    expect(firstOf(text(on("clarinet")))[0]).toBe("Eb4:h G4:q F#4:8 G4:8");
  },
);

test("a keyboard is written on two staves, parted at middle C; nothing is lost between them", () => {
  const song = edit(
    line([]),
    { do: "setNotes", section: "s1", part: "bass", notes: [] },
    {
      do: "pinVoicing",
      section: "s1",
      part: "keys",
      chord: firstOf(firstOf(line([]).sections).chords).id,
      pitches: ["E3", "B3", "C4", "G4"],
    },
  );
  const [upper, lower] = text(song, "keys");
  // B and C stay together: two staves would tear the second apart.
  expect([sure(upper)[0], sure(lower)[0]]).toEqual(["B3+C4+G4:w", "E3:w"]);
  expect(sure(realize(song, { section: "s1" }).parts.find((p) => p.id === "keys")).notes).toHaveLength(4);
  // Everything on two staves: the tune and the bass join the piano.
  const all = edit(
    song,
    { do: "setNotes", section: "s1", part: "melody", notes: [{ start: 0, duration: 1920, pitch: "E5", velocity: 80 }] },
    { do: "setNotes", section: "s1", part: "bass", notes: [{ start: 0, duration: 960, pitch: "C2", velocity: 80 }] },
  );
  const grand = must(engraveGrand(all, "s1"));
  expect(grand.staves.map((s) => firstOf(s.measures).map((c) => c.notes.map((n) => n.pitch).join("+")))).toEqual([
    ["B3+C4+G4+E5"],
    ["C2+E3"],
  ]);
});

test("the instrument table is whole: ease within range, strings within range, the pitches instruments are known by", () => {
  for (const i of INSTRUMENTS) {
    const [low, high] = midiRange(i.range);
    const [from, to] = midiRange(i.comfortable);
    expect([i.id, low <= from && from < to && to <= high, i.source.length > 5, i.polyphony >= 1]).toEqual([
      i.id,
      true,
      true,
      true,
    ]);
    if (i.held.by === "frets") {
      expect([i.id, Math.min(...i.held.strings.map(pitchMidi))]).toEqual([i.id, low]);
      const top = Math.max(...i.held.strings.map(pitchMidi)) + i.held.frets;
      expect([i.id, high <= top]).toEqual([i.id, true]);
    }
  }
  const wanted =
    "piano electricPiano organ pad nylonGuitar guitar electricGuitar ukulele doubleBass bassGuitar bassGuitar5 " +
    "subBass violin viola cello strings flute clarinet altoSax tenorSax trumpet trombone vibraphone steelPan " +
    "soprano mezzo alto tenor baritone bassVoice";
  expect(INSTRUMENTS.map((i) => i.id)).toEqual(expect.arrayContaining(wanted.split(" ")));
  expect(
    ["clarinet", "altoSax", "tenorSax", "trumpet", "guitar", "doubleBass", "flute"].map(
      (id) => instrumentOf(id).transposition,
    ),
  ).toEqual([-2, -9, -14, -2, -12, -12, 0]);
});

test("a song's own instrument: made, changed, kept in the file, refused where it is wrong or still played", () => {
  const own = {
    ...structuredClone(instrumentOf("violin")),
    id: "own1",
    title: "Barn fiddle",
    comfortable: ["A3", "D5"],
  } as OwnInstrument;
  const song = edit(
    line([]),
    { do: "setInstrument", instrument: own },
    { do: "setPart", part: "melody", instrument: "own1" },
  );
  expect(instrumentOf("own1", song).title).toBe("Barn fiddle");
  expect(must(parseSong(JSON.stringify(song))).instruments).toEqual([own]);
  expect(applyEdit(song, { do: "removeInstrument", instrument: "own1" })).toMatchObject({
    ok: false,
    error: { message: expect.stringContaining("Voice") },
  });
  expect(applyEdit(song, { do: "setInstrument", instrument: { ...own, range: ["C6", "C4"] } })).toMatchObject({
    ok: false,
    error: { message: expect.stringContaining("lower end") },
  });
  // One with a known id changes that instrument for this song alone, and can be given back.
  const changed = edit(song, {
    do: "setInstrument",
    instrument: { ...structuredClone(instrumentOf("piano")), comfortable: ["C3", "C5"] } as OwnInstrument,
  });
  expect(instrumentOf("piano", changed).comfortable).toEqual(["C3", "C5"]);
  const back = edit(changed, { do: "removeInstrument", instrument: "piano" });
  expect(instrumentOf("piano", back).comfortable).toEqual(["C2", "C6"]);
});
