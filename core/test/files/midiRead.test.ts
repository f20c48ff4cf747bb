import { firstOf, nth, sure } from "../../src/base/list";
import { writeMidi as encode, type MidiEvent } from "midi-file";
import { applyEdit } from "../../src/song/edits";
import { drumNotes, importMidi, type MidiChoices } from "../../src/files/midiImport";
import { must } from "../../src/base/result";
import { newSong } from "../../src/song/document";
import { readMidi } from "../../src/files/midiRead";
import { realize } from "../../src/song/realize";
import { writeLine } from "../../src/theory/chord/progression";
import { parseMeter } from "../../src/theory/time/meter";
import { writeMidi } from "../../src/files/midi";
import type { Song } from "../../src/song/schema/song";
import { demoSongs } from "../demos";

const meter = must(parseMeter("4/4"));
const choices = (more: Partial<MidiChoices>): MidiChoices => ({
  chords: [],
  bars: [0, 8],
  unit: "bar",
  tempo: true,
  meter: true,
  file: "band.mid",
  ...more,
});

/** A file built by an independent encoder (registry package `midi-file`): events as [tick, …]. */
function file(tracks: [number, Omit<MidiEvent, "deltaTime">][][], ticksPerBeat = 96): Uint8Array {
  return Uint8Array.from(
    encode({
      header: { format: 1, numTracks: tracks.length, ticksPerBeat },
      tracks: tracks.map((events) => {
        let at = 0;
        return [...events]
          .sort((a, b) => a[0] - b[0])
          .map(([tick, event]) => {
            const deltaTime = tick - at;
            at = tick;
            return { ...event, deltaTime } as MidiEvent;
          });
      }),
    }),
  );
}
const note = (
  tick: number,
  noteNumber: number,
  length: number,
  { channel = 0, velocity = 80 }: { channel?: number | undefined; velocity?: number | undefined } = {},
): [number, Omit<MidiEvent, "deltaTime">][] => [
  [tick, { type: "noteOn", noteNumber, velocity, channel } as never],
  [tick + length, { type: "noteOff", noteNumber, velocity: 0, channel } as never],
];
const chord = (tick: number, notes: number[], length: number) => notes.flatMap((n) => note(tick, n, length));

test("what we write reads back: tracks, notes, tempo, meter, key", () => {
  for (const song of demoSongs()) {
    const read = must(readMidi(writeMidi(song, { swing: "straight" })));
    const real = realize(song);
    expect(firstOf(read.tempos).bpm).toBeCloseTo(song.tempo, 1);
    expect(firstOf(read.meters).text).toBe(song.meter);
    expect(firstOf(read.keys).key).toBe(song.key);
    for (const part of real.parts) {
      if (part.role === "drums") continue;
      const track = sure(read.tracks.find((t) => t.name === part.name));
      expect(track.notes.map((n) => n.midi).sort()).toEqual(part.notes.map((n) => n.midi).sort());
    }
    expect(read.tracks.filter((t) => t.drums)).toHaveLength(1);
  }
});

test("ticks are rescaled, overlapping notes of one pitch end in order, an open note lasts to the end", () => {
  const bytes = file([
    [
      ...note(0, 60, 96),
      [48, { type: "noteOn", noteNumber: 60, velocity: 70, channel: 0 } as never],
      [144, { type: "noteOff", noteNumber: 60, velocity: 0, channel: 0 } as never],
      [96, { type: "noteOn", noteNumber: 67, velocity: 70, channel: 0 } as never],
      [384, { type: "endOfTrack" } as never],
    ],
  ]);
  const { tracks, tempos, meters } = must(readMidi(bytes));
  expect(firstOf(tracks).notes.map((n) => [n.midi, n.start, n.duration])).toEqual([
    [60, 0, 480],
    [60, 240, 480],
    [67, 480, 1440],
  ]);
  expect([tempos, meters]).toEqual([[{ tick: 0, bpm: 120 }], [{ tick: 0, text: "4/4" }]]);
  expect(tracks[0]).toMatchObject({ channel: 1, drums: false, lowest: 60, highest: 67 });
});

test.each([
  ["text", Uint8Array.from([...Buffer.from("not midi")]), "midi.file"],
  ["a file cut off", writeMidi(firstOf(demoSongs()), { swing: "straight" }).slice(0, 60), "midi.file"],
  ["a file without notes", file([[[0, { type: "endOfTrack" } as never]]]), "midi.empty"],
])("%s is refused", (_, bytes, code) => {
  expect(readMidi(bytes)).toMatchObject({ ok: false, error: { code, hint: expect.any(String) } });
});

describe("import", () => {
  const song = must(newSong({ title: "Import", key: "D minor" }));

  test("our own groove song comes back: chords by the half bar, tune, bass and drums", () => {
    const [, loop] = demoSongs();
    // Once, as the section is.
    const cider = { ...sure(loop), form: sure(loop).form.slice(1, 2) };
    const contents = must(readMidi(writeMidi(cider, { swing: "straight" })));
    const id = (name: string) => sure(contents.tracks.find((t) => t.name === name)).id;
    const plan = must(
      importMidi(
        song,
        "s1",
        contents,
        choices({
          chords: [id("Electric piano")],
          melody: id("Clarinet"),
          bass: id("Bass"),
          drums: sure(contents.tracks.find((t) => t.drums)).id,
          unit: "half bar",
          key: true,
        }),
      ),
    );
    const done = firstOf(must(applyEdit(song, plan.edit)).song.sections);
    // The piano leaves roots to the bass: named with it, the written progression comes back, and in bars 2 and 6 what
    // the bass makes of it.
    expect(writeLine(done.chords, meter, 8)).toBe(
      "| Dm9 | Gm7 Gm7/F | Bbmaj9 | A7sus4 A7 | Dm9 | Fmaj7/C Fmaj7 | Bbmaj9 | Em7b5 A7(b9) |",
    );
    expect(sure(done.notes.melody).map((n) => [n.start, n.pitch])).toEqual(
      sure(firstOf(cider.sections).notes.melody).map((n) => [n.start, n.pitch]),
    );
    expect(done.notes.bass).toHaveLength(sure(firstOf(cider.sections).notes.bass).length);
    expect(sure(done.groove.lanes.find((l) => l.drum === "kick")).hits).toEqual(
      sure(firstOf(cider.sections).groove.lanes.find((l) => l.drum === "kick")).hits,
    );
  });

  test("chords are named per beat or bar, doubt is kept, loose playing is notated on the grid", () => {
    const bytes = file([
      [
        ...chord(0, [48, 64, 67, 71], 380),
        ...chord(384, [50, 65, 67, 72], 380),
        ...chord(770, [55, 59, 62, 65], 90),
        ...chord(864, [56, 60, 63, 66], 280),
        ...note(1158, 72, 90),
      ],
    ]);
    const contents = must(readMidi(bytes));
    const bars = must(importMidi(song, "s1", contents, choices({ chords: ["0.1"], bars: [0, 3] })));
    expect(bars.chords.map((c) => c.symbol).slice(0, 2)).toEqual(["Cmaj7", expect.stringMatching(/^D|G/)]);
    expect(sure(nth(bars.chords, 2).readings).length).toBeGreaterThan(1);
    expect(bars.unsure).toBeGreaterThan(0);
    const beats = must(importMidi(song, "s1", contents, choices({ chords: ["0.1"], bars: [2, 3], unit: "beat" })));
    expect(beats.chords.map((c) => c.symbol)).toEqual(["G7", expect.stringMatching(/^(Ab|G#)7$/)]);
    const melody = must(importMidi(song, "s1", contents, choices({ melody: "0.1", bars: [3, 4] })));
    const [n] = sure(firstOf(must(applyEdit(song, melody.edit)).song.sections).notes.melody);
    // 6 of 96 ticks late: written on the beat, played late.
    expect(n).toMatchObject({ start: 0, offset: 30, pitch: "C5" });
  });

  test(
    "drum notes go to the lanes that are chosen, else as the song or General MIDI has them; off the grid is " +
      "kept; hits join on request",
    () => {
      const bytes = file([
        [
          ...note(0, 36, 10, { channel: 9 }),
          ...note(98, 67, 10, { channel: 9 }),
          ...note(192, 82, 10, { channel: 9 }),
          ...note(288, 60, 10, { channel: 9 }),
        ],
      ]);
      const contents = must(readMidi(bytes));
      const [track] = contents.tracks;
      expect(drumNotes(song, "s1", sure(track), { from: 0, to: 1920 }).map((n) => [n.note, n.lane])).toEqual([
        [36, "kick"],
        [60, null],
        [67, null],
        [82, "shaker"],
      ]);
      const lanes = (from: Song, extra: Partial<MidiChoices>) => {
        const plan = must(importMidi(from, "s1", contents, choices({ drums: sure(track).id, bars: [0, 1], ...extra })));
        const { groove } = firstOf(must(applyEdit(from, plan.edit)).song.sections);
        return {
          reported: plan.reported.join(),
          starts: Object.fromEntries(groove.lanes.map((l) => [l.drum, l.hits.map((h) => h.start)])),
        };
      };
      const own = must(
        applyEdit(song, {
          do: "setLane",
          section: "s1",
          drum: "conga",
          change: { note: 67, hits: [{ start: 240, velocity: 80 }] },
        }),
      ).song;
      const replaced = lanes(own, { drumMap: { 60: "free1", 82: null } });
      expect(replaced.starts).toMatchObject({ kick: [0], conga: [480], free1: [1440] });
      const conga = must(
        applyEdit(own, must(importMidi(own, "s1", contents, choices({ drums: sure(track).id, bars: [0, 1] }))).edit),
      ).song;
      expect(sure(firstOf(conga.sections).groove.lanes.find((l) => l.drum === "conga")).hits).toEqual([
        { start: 480, velocity: 80, offset: 10 },
      ]);
      expect(replaced.starts.shaker).toBeUndefined();
      expect(replaced.reported).not.toMatch(/drum note/);
      expect(lanes(own, { addDrums: true }).starts.conga).toEqual([240, 480]);
      expect(lanes(own, {}).reported).toMatch(/1 hit of drum note 60/);
    },
  );

  test("what cannot be kept is reported: later tempos and meters, other keys, drums without a lane", () => {
    const bytes = file([
      [
        [0, { type: "setTempo", microsecondsPerBeat: 500000 } as never],
        [400, { type: "setTempo", microsecondsPerBeat: 600000 } as never],
        [384, { type: "timeSignature", numerator: 3, denominator: 4, metronome: 24, thirtyseconds: 8 } as never],
        [0, { type: "keySignature", key: -3, scale: 0 } as never],
        [800, { type: "endOfTrack" } as never],
      ],
      [...note(0, 36, 10, { channel: 9 }), ...note(96, 65, 10, { channel: 9 }), ...chord(0, [48, 52, 55], 700)],
    ]);
    const plan = must(
      importMidi(song, "s1", must(readMidi(bytes)), choices({ chords: ["1.1"], drums: "1.10", bars: [0, 2] })),
    );
    expect(plan.reported.join("\n")).toMatch(
      new RegExp(
        [
          "Tempo changes .*100 from bar 2",
          "Meter changes .*3/4 from bar 2",
          "The file says Eb major; the section is in D minor",
          "1 hit of drum note 65",
        ].join("[^]*"),
      ),
    );
    expect(must(applyEdit(song, plan.edit)).song.tempo).toBe(120);
    const own = must(
      importMidi(song, "s1", must(readMidi(bytes)), choices({ chords: ["1.1"], bars: [0, 1], tempo: false })),
    );
    expect(own.reported.join()).toContain("The file plays at 120; the song stays at 96");
  });

  test.each([
    [{ chords: ["0.1"], bars: [9, 12] as [number, number] }, "midi.bars"],
    [{}, "midi.tracks"],
  ])("%j is refused", (more, code) => {
    expect(importMidi(song, "s1", must(readMidi(file([chord(0, [48, 52, 55], 96)]))), choices(more))).toMatchObject({
      ok: false,
      error: { code },
    });
  });
});
