import { writeMidi as encode, type MidiEvent } from "midi-file";
import { firstOf, nth, sure } from "../../src/base/list";
import { random } from "../../src/base/random";
import { must, type Result } from "../../src/base/result";
import { readFile } from "../../src/files/formats";
import { writeSongFile } from "../../src/files/json";
import { writeMidi } from "../../src/files/midi";
import { readMidi } from "../../src/files/midiRead";
import { songOfMidi } from "../../src/files/midiSong";
import { parseSong, type Opened } from "../../src/song/document";
import { LIMITS } from "../../src/song/schema/scalars";
import type { Song } from "../../src/song/schema/song";
import { demoSongs } from "../demos";
import { textOf, VERSION1 } from "../fixtures";
import { songWith } from "../helpers";

interface Loose {
  [field: string]: Loose;
}

const opened = (song: unknown): Result<Opened> =>
  readFile("orchard.json", new TextEncoder().encode(typeof song === "string" ? song : JSON.stringify(song)));
/** The song with something in it broken. */
function broken(song: Song, harm: (loose: Loose) => void): Opened {
  const copy = JSON.parse(writeSongFile(song)) as Loose;
  harm(copy);
  const back = must(opened(copy));
  expect(must(parseSong(JSON.parse(JSON.stringify(back.song))))).toEqual(back.song);
  return back;
}
const set = (at: unknown, to: Record<string, unknown>): void => void Object.assign(at as object, to);
const bassOf = (song: Song) => sure(firstOf(song.sections).notes.bass);

const SONG = songWith({
  line: "| C | F | G7 | C |",
  bass: ["0 C2 1", "1 E2 1", "2 G2 1", "3 A2 1", "4 F2 4"],
  kicks: [
    [0, 100],
    [2, 100],
  ],
});

test("a whole file is opened as it is, and nothing is told", () => {
  for (const song of demoSongs()) expect(must(opened(song))).toEqual({ song, mended: [] });
});

test("notes without a pitch, and with one that is none, are left out and told once, by where they stood", () => {
  const { song, mended } = broken(SONG, (s) => {
    const bass = s.sections?.[0]?.notes?.bass as unknown as Record<string, unknown>[];
    delete nth(bass, 1).pitch;
    set(bass[3], { pitch: "H9", velocity: 0.5 });
  });
  expect(bassOf(song).map((n) => n.pitch)).toEqual(["C2", "G2", "F2"]);
  expect(mended).toHaveLength(1);
  expect(mended[0]).toMatch(/^Verse, Bass, 2 notes were left out, first note [24] \(/);
  expect(
    broken(SONG, (s) => void delete (s.sections?.[0]?.notes?.bass?.[1] as { pitch?: unknown }).pitch).mended,
  ).toEqual(["Verse, Bass, note 2 was left out (it has no pitch)."]);
});

test("names are cut where they are longer than they may be, and not before", () => {
  const name = (length: number) =>
    broken(SONG, (s) => {
      set(s, { title: "t".repeat(length) });
      set(s.parts?.[1], { name: "p".repeat(length) });
    });
  const cut = name(300);
  expect([cut.song.title.length, nth(cut.song.parts, 1).name.length]).toEqual([LIMITS.title, LIMITS.title]);
  expect(cut.mended).toHaveLength(2);
  expect(cut.mended.join(" ")).toContain("Title was cut to 200 characters");
  expect(name(LIMITS.title).mended).toEqual([]);
  expect(name(LIMITS.title + 1).mended).toHaveLength(2);
});

test("600 bars become the most there can be; what lay past them is kept beyond the end", () => {
  const { song, mended } = broken(SONG, (s) => {
    set(s.sections?.[0], { bars: 600 });
    set(s.sections?.[0]?.notes?.bass?.[4], { start: 599 * 1920 });
  });
  const verse = firstOf(song.sections);
  expect([verse.bars, bassOf(song).length, verse.beyond?.notes?.bass?.length]).toEqual([LIMITS.bars, 4, 1]);
  expect(mended).toEqual(["Verse, bars became 512 (was 600)."]);
  const atEnd = broken(SONG, (s) => set(s.sections?.[0], { bars: LIMITS.bars }));
  expect([atEnd.mended, firstOf(atEnd.song.sections).beyond]).toEqual([[], undefined]);
});

test.each<[what: string, harm: (s: Loose) => void, told: string]>([
  ["a velocity past its end", (s) => set(s.sections?.[0]?.notes?.bass?.[0], { velocity: 200 }), "velocity became 127"],
  ["a velocity between two", (s) => set(s.sections?.[0]?.notes?.bass?.[0], { velocity: 90.4 }), "velocity became 90"],
  ["a place that is none", (s) => set(s.sections?.[0]?.notes?.bass?.[0], { start: 1e12 }), "note 1 was left out"],
  [
    "a chord nobody can read",
    (s) => set(s.sections?.[0]?.chords?.[1], { symbol: "?" }),
    'chord 2 was left out ("?": a chord begins',
  ],
  ["a key nobody can read", (s) => set(s, { key: "H sharpish" }), "Key was taken to be C major"],
  ["no tempo", (s) => delete (s as { tempo?: unknown }).tempo, "Tempo was taken to be 96 (it has no tempo)"],
  ["a balance of text", (s) => set(s.parts?.[0], { pan: "left" }), "Voice, pan was left out (its pan is not a number)"],
  ["a pass of no section", (s) => set(s, { form: [{ id: "o9", sectionId: "gone" }] }), "Pass 1 was left out"],
  ["notes of nobody", (s) => set(s.sections?.[0]?.notes, { ghost: [] }), "Verse, ghost was left out"],
  [
    "a layout for nobody",
    (s) => set(s.sections?.[0]?.chords?.[0], { voicings: { ghost: { pitches: ["C4"] } } }),
    "ghost was left out",
  ],
  [
    "a layout with a tone that is none",
    (s) => set(s.sections?.[0]?.chords?.[0], { voicings: { keys: { pitches: ["C4", "X"] } } }),
    "keys was left out",
  ],
  [
    "a section that is a text",
    (s) => (s.sections as unknown as unknown[]).push("Bridge"),
    "Section 2 was left out (it is none that can be read)",
  ],
  [
    "two notes of one id",
    (s) => set(s.sections?.[0]?.notes?.bass?.[1], { id: s.sections?.[0]?.notes?.bass?.[0]?.id }),
    "given anew",
  ],
  ["a part without a name", (s) => delete (s.parts?.[1] as { name?: unknown }).name, "name was taken to be Unnamed"],
  [
    "a note that says not how loud",
    (s) => delete (s.sections?.[0]?.notes?.bass?.[1] as { velocity?: unknown }).velocity,
    "note 2, velocity was taken to be 80",
  ],
  ["a school nobody keeps", (s) => set(s, { profile: "zydeco" }), "(it is none of chorale, band, jazz, loop)"],
  [
    "an instrument nobody knows",
    (s) => set(s.parts?.[1], { instrument: "kazoo of doom" }),
    "Piano, instrument was taken to be a piano",
  ],
])("%s: mended and told", (_, harm, told) => {
  const { mended } = broken(SONG, harm);
  expect(mended.join("\n")).toContain(told);
});

test("what cannot be mended is refused with its first reason: no section, no version, no song", () => {
  const code = (x: unknown) => {
    const read = opened(x);
    return read.ok ? "opened" : read.error.message;
  };
  expect(code({ ...SONG, sections: [] })).toContain("sections: a song has at least one section");
  expect(code({ ...SONG, version: "2" })).toContain("no version number");
  expect(code("[]")).toBe("A song is a JSON object");
});

test("files of the first version are mended as well", () => {
  const old = JSON.parse(textOf(firstOf(VERSION1))) as Loose;
  set(old, { title: "t".repeat(300) });
  const { song, mended } = must(opened(old));
  expect([song.title.length, mended.length]).toEqual([LIMITS.title, 1]);
});

/** A MIDI file of the registry package's own encoder, and some bytes of it changed. */
const bytesOf = (...tracks: MidiEvent[][]): Uint8Array =>
  Uint8Array.from(encode({ header: { format: 1, numTracks: tracks.length, ticksPerBeat: 480 }, tracks }));
const END: MidiEvent = { deltaTime: 0, type: "endOfTrack", meta: true };
const noteAt = (deltaTime: number, noteNumber: number, length = 480): MidiEvent[] => [
  { deltaTime, type: "noteOn", channel: 0, noteNumber, velocity: 90 },
  { deltaTime: length, type: "noteOff", channel: 0, noteNumber, velocity: 0 },
];

test("a note event without its pitch at the end of a track is left out, and told", () => {
  const whole = bytesOf([...noteAt(0, 60), ...noteAt(0, 64)]);
  // A last note-on whose pitch and velocity the track has no room for.
  const cut = Uint8Array.from([...whole, 0, 0x91]);
  const chunk = new DataView(cut.buffer);
  chunk.setUint32(18, chunk.getUint32(18) + 2);
  const contents = must(readMidi(cut));
  expect(nth(contents.tracks, 0).notes.map((n) => n.midi)).toEqual([60, 64]);
  expect(contents.mended).toEqual(["Track 1: 1 note without a pitch was left out, the first after 2 beats."]);
});

test("a MIDI file of 600 bars and of long names becomes two sections with names one can read", () => {
  const title: MidiEvent = { deltaTime: 0, type: "trackName", meta: true, text: "n".repeat(300) };
  const every = Array.from({ length: 600 }, (_, bar) => noteAt(bar ? 1440 : 0, 60 + (bar % 12))).flat();
  const { song, mended } = must(songOfMidi(must(readMidi(bytesOf([title, ...every, END]))), "long"));
  expect(song.sections.map((s) => [s.name, s.bars])).toEqual([
    ["Part 1", 512],
    ["Part 2", 88],
  ]);
  const counts = song.sections.map((s) => Object.values(s.notes).flat().length);
  expect(counts).toEqual([512, 88]);
  expect(song.form.map((p) => p.sectionId)).toEqual(song.sections.map((s) => s.id));
  expect([song.title.length, firstOf(song.parts).name.length].sort()).toEqual([200, 200]);
  expect(mended).toHaveLength(3);
  const short = must(songOfMidi(must(readMidi(bytesOf([...every.slice(0, 1024), END]))), "short"));
  expect([short.song.sections.length, short.mended]).toEqual([1, []]);
});

test("of more notes than a song has, the bars that fit are taken", () => {
  const many = Array.from({ length: LIMITS.notes + 40 }, (_, i) => noteAt(0, 40 + (i % 40), 60)).flat();
  const { song, mended } = must(songOfMidi(must(readMidi(bytesOf([...many, END]))), "many"));
  // 32 notes a bar: 625 bars hold 20 000.
  expect(song.sections.map((s) => s.bars)).toEqual([512, 113]);
  expect(mended[0]).toBe("The first 625 bars of 627 were taken: a song has 20000 notes at the most.");
});

test("whatever is broken in a file, it is opened as a song that can be stored, or refused in words", () => {
  const chance = random(11);
  const pick = <T>(list: readonly T[]): T => nth(list, Math.floor(chance() * list.length));
  const files: [string, Uint8Array][] = demoSongs()
    .slice(0, 2)
    .flatMap((song): [string, Uint8Array][] => [
      ["orchard.json", new TextEncoder().encode(JSON.stringify(song))],
      ["orchard.mid", writeMidi(song, { swing: "straight" })],
    ]);
  const ODD = [null, -1, 1e9, 0.5, "", "x".repeat(500), [], {}, true];
  let mendedOnes = 0;
  for (let i = 0; i < 40; i++) {
    // Most of a MIDI file's time is naming its chords: fewer of them.
    const [name, whole] = nth(files, i % 10 ? 0 : 3);
    let bytes = Uint8Array.from(whole);
    if (name.endsWith(".mid"))
      for (let k = 0; k < 4; k++) bytes[14 + Math.floor(chance() * (bytes.length - 14))] = chance() * 256;
    else {
      // A value anywhere in the document becomes an odd one.
      const document = JSON.parse(new TextDecoder().decode(whole)) as unknown;
      let at = document as Record<string, unknown>;
      for (let depth = 0; depth < 7; depth++) {
        const key = pick(Object.keys(at).filter((k) => k !== "version"));
        const next = at[key];
        if (typeof next !== "object" || next === null || !Object.keys(next).length || chance() < 0.15) {
          at[key] = pick(ODD);
          break;
        }
        at = next as Record<string, unknown>;
      }
      bytes = new TextEncoder().encode(JSON.stringify(document));
    }
    const read = readFile(name, bytes);
    if (!read.ok) expect(read.error.message.length).toBeGreaterThan(10);
    else {
      expect(parseSong(JSON.parse(JSON.stringify(read.value.song))).ok).toBe(true);
      if (read.value.mended.length) mendedOnes++;
    }
  }
  expect(mendedOnes).toBeGreaterThan(8);
});
