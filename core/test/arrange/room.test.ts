import { sure } from "../../src/base/list";
import { applyEdit } from "../../src/song/edits";
import { clipOf, pasted } from "../../src/song/clip";
import { must } from "../../src/base/result";
import { parseMeter } from "../../src/theory/time/meter";
import { roomForVoice, roomOffers } from "../../src/arrange/room/room";
import { tightened } from "../../src/song/played";
import { withFollowing } from "../../src/judge/follow/follow";
import type { Edit } from "../../src/song/edits/list";
import type { Note } from "../../src/song/schema/material";
import type { Song } from "../../src/song/schema/song";
import { demoSongs } from "../demos";
import { edit, songWith } from "../helpers";

/** A voice over held chords, written out for a pad. */
function padded(octave: number): Song {
  const song = edit(songWith({ line: "| C | F |", melody: ["0 G4 4", "4 A4 4"] }), {
    do: "addPart",
    name: "Pad",
    role: "counter",
    instrument: "pad",
  });
  const pad = sure(song.parts.find((p) => p.name === "Pad")).id;
  const chord = (start: number, names: string[]) =>
    names.map((n) => ({ start, duration: 1920, pitch: `${n}${octave}`, velocity: 60 }));
  return edit(song, {
    do: "setNotes",
    section: "s1",
    part: pad,
    notes: [...chord(0, ["C", "E", "G"]), ...chord(1920, ["C", "F", "A"])],
  });
}
const padOf = (song: Song) => {
  const id = sure(song.parts.find((p) => p.name === "Pad")).id;
  return sure(must(roomForVoice(song, { section: "s1", part: "melody" })).parts.find((p) => p.part === id));
};

test("a pad held in the voice's octave is in its way all the time; an octave lower it is not", () => {
  expect(padOf(padded(4))).toMatchObject({ conflict: 1, attacks: 2, attacksABar: 1, octaves: [4], top: "A4" });
  expect(padOf(padded(3))).toMatchObject({ conflict: 0, octaves: [3], top: "A3" });
  expect(must(roomForVoice(padded(3), { section: "s1", part: "melody" })).lowest).toBe("G4");
});

test(
  "what is offered helps as much as it says, in songs with layouts as well, and nothing is offered where nothing " +
    "is in the way",
  () => {
    const pad = padded(4);
    const offers = roomOffers(pad, { section: "s1", voice: "melody", part: padOf(pad).part });
    expect(offers.map((o) => [o.id, o.conflict])).toEqual(
      expect.arrayContaining([
        ["octave", 0],
        ["rest", 0],
      ]),
    );
    expect(roomOffers(padded(3), { section: "s1", voice: "melody", part: padOf(padded(3)).part })).toEqual([]);
    let seen = 0;
    for (const song of demoSongs())
      for (const section of song.sections) {
        const voice = sure(song.parts.find((p) => p.role === "vocal" || p.role === "melody"));
        for (const row of must(roomForVoice(song, { section: section.id, part: voice.id })).parts)
          for (const offer of roomOffers(song, { section: section.id, voice: voice.id, part: row.part })) {
            const after = must(applyEdit(song, withFollowing(song, offer.edit))).song;
            const now = must(roomForVoice(after, { section: section.id, part: voice.id })).parts.find(
              (p) => p.part === row.part,
            );
            expect([song.title, row.name, offer.id, now?.conflict ?? 0, now?.attacks ?? 0]).toEqual([
              song.title,
              row.name,
              offer.id,
              offer.conflict,
              offer.attacks,
            ]);
            expect(offer.conflict < row.conflict || offer.attacks < row.attacks).toBe(true);
            seen++;
          }
      }
    expect(seen).toBeGreaterThan(5);
  },
);

test("written notes hold instead of striking again, or keep to the beats", () => {
  const busy = padded(4);
  const pad = padOf(busy).part;
  const notes = [0, 240, 480, 720, 960, 1440].map((start) => ({ start, duration: 240, pitch: "E4", velocity: 60 }));
  const song = edit(busy, { do: "setNotes", section: "s1", part: pad, notes } as Edit);
  const by = Object.fromEntries(roomOffers(song, { section: "s1", voice: "melody", part: pad }).map((o) => [o.id, o]));
  expect(by.fewer).toMatchObject({ attacks: 4 });
  const row = padOf(song);
  expect(by.hold === undefined || by.hold.conflict <= row.conflict + 0.01).toBe(true);
  expect(roomForVoice(song, { section: "none", part: "melody" })).toMatchObject({
    ok: false,
    error: { code: "room.part" },
  });
});

describe("copies of notes", () => {
  const meter = must(parseMeter("4/4"));
  const note = (id: string, start: number, duration: number, more: Partial<Note> = {}): Note => ({
    id,
    start,
    duration,
    pitch: "C4",
    velocity: 90,
    ...more,
  });
  test("a clip begins on its beat, or its bar where it is long, and is as long as whole beats or bars", () => {
    expect(clipOf([note("a", 720, 240), note("b", 960, 240)], meter)).toMatchObject({
      length: 960,
      notes: [{ start: 240 }, { start: 480 }],
    });
    expect(clipOf([note("a", 2160, 480), note("b", 3600, 480)], meter)).toMatchObject({
      length: 3840,
      notes: [{ start: 240 }, { start: 1680 }],
    });
    expect(
      clipOf([note("a", 0, 480, { reason: { id: "lasts" }, pinned: true, lyrics: ["la"] })], meter).notes[0],
    ).toEqual({
      start: 0,
      duration: 480,
      pitch: "C4",
      velocity: 90,
      lyrics: ["la"],
    });
  });
  test("what stands where it is set down gives way but for pins, and what is held into it ends there", () => {
    const stored = [
      note("a", 0, 2400),
      note("b", 1920, 480),
      note("p", 2400, 480, { pinned: true }),
      note("c", 3840, 480),
    ];
    const clip = clipOf([note("x", 0, 480), note("y", 480, 480)], meter);
    const { kept, added, gone } = pasted(stored, clip, 1920, 3840 + 480);
    expect(kept.map((n) => [n.id, n.duration])).toEqual([
      ["a", 1920],
      ["p", 480],
      ["c", 480],
    ]);
    expect([added.map((n) => n.start), gone]).toEqual([[1920, 2400], 1]);
    expect(pasted(stored, clip, 3840, 4200).added.map((n) => n.start)).toEqual([3840]);
  });
  test("notes are set on the grid later, by how much", () => {
    const late = [note("a", 0, 480, { offset: 60 }), note("b", 500, 240)];
    expect(tightened(late, { grid: 240, strength: 1 })).toEqual([
      { id: "a", start: 0, offset: null },
      { id: "b", start: 480, offset: null },
    ]);
    expect(tightened(late, { grid: 240, strength: 0.5 })).toEqual([
      { id: "a", start: 0, offset: 30 },
      { id: "b", start: 480, offset: 10 },
    ]);
  });
});
