import { firstOf, nth, sure } from "../../src/base/list";
import { applyEdit } from "../../src/song/edits";
import { follow, followChange, withFollowing } from "../../src/judge/follow/follow";
import { must } from "../../src/base/result";
import { voiceSection } from "../../src/arrange/voicing/section";
import { writeLine } from "../../src/theory/chord/progression";
import { parseMeter } from "../../src/theory/time/meter";
import type { Edit } from "../../src/song/edits/list";
import type { Song } from "../../src/song/schema/song";
import { walk } from "../anyEdit";
import { goldenSong } from "../fixtures";
import { edit, songWith } from "../helpers";

const layouts = (song: Song, part = "keys") =>
  firstOf(song.sections).chords.map((c) => c.voicings?.[part]?.pitches.join(" "));
const settled = (song: Song, change: Edit, bass = false): Song => edit(song, withFollowing(song, change, { bass }));
const base = settled(songWith({}), { do: "setLine", section: "s1", line: "| C | Am | F | G7 |" });

test("layouts follow chords, instrument, style and tune; nothing follows what does not concern them", () => {
  expect(layouts(base)).toEqual(must(voiceSection(base, "s1", "keys")).chords.map((c) => c.pitches.join(" ")));
  for (const change of [
    { do: "setChord", section: "s1", chord: nth(firstOf(base.sections).chords, 1).id, symbol: "E7" },
    { do: "setPart", part: "keys", instrument: "organ", loop: false },
    { do: "setPlaying", part: "keys", voicing: { style: "spread" } },
    { do: "setPlaying", part: "keys", section: "s1", voicing: { register: 7 } },
  ] as Edit[]) {
    const after = settled(base, change);
    expect(layouts(after)).toEqual(must(voiceSection(after, "s1", "keys")).chords.map((c) => c.pitches.join(" ")));
  }
  for (const change of [
    { do: "setProfile", profile: "chorale" },
    { do: "setPart", part: "bass", muted: true },
    { do: "setPlaying", part: "keys", comp: { rhythm: "beats" } },
    { do: "setHit", section: "s1", drum: "kick", start: 0, velocity: 90 },
    { do: "setTempo", tempo: 80 },
  ] as Edit[])
    expect([change.do, follow(base, change)]).toEqual([change.do, []]);
});

test("a new part of the chords is laid out in every section; a pinned layout stays", () => {
  const two = settled(base, { do: "addSection", name: "Chorus", bars: 4, copyOf: "s1" });
  const pinned = edit(two, {
    do: "pinVoicing",
    section: "s1",
    part: "keys",
    chord: firstOf(firstOf(two.sections).chords).id,
    pitches: ["E3", "G3", "C4"],
  });
  const added = settled(pinned, {
    do: "addPart",
    name: "Guitar",
    role: "chords",
    instrument: "guitar",
    link: { kind: "voicing" },
  });
  const guitar = sure(added.parts.find((p) => p.name === "Guitar")).id;
  for (const section of added.sections)
    expect(section.chords.every((c) => c.voicings?.[guitar]?.pitches.length)).toBe(true);
  const moved = settled(added, {
    do: "setChord",
    section: "s1",
    chord: nth(firstOf(added.sections).chords, 1).id,
    symbol: "Ab",
  });
  expect(layouts(moved)[0]).toBe("E3 G3 C4");
});

test("block chords follow their tune, and go when it goes", () => {
  const tune = edit(base, {
    do: "setNotes",
    section: "s1",
    part: "melody",
    notes: [{ start: 0, duration: 960, pitch: "G5", velocity: 80 }],
  });
  const blocks = settled(tune, {
    do: "addPart",
    name: "Blocks",
    role: "chords",
    instrument: "electricPiano",
    link: { kind: "block", top: "melody" },
  });
  const part = sure(blocks.parts.find((p) => p.name === "Blocks")).id;
  const tops = (song: Song) => (firstOf(song.sections).notes[part] ?? []).at(-1)?.pitch;
  expect(tops(blocks)).toBe("G5");
  const id = firstOf(sure(firstOf(blocks.sections).notes.melody)).id;
  const moved = settled(blocks, { do: "changeNotes", section: "s1", part: "melody", notes: [{ id, pitch: "E5" }] });
  expect(tops(moved)).toBe("E5");
  expect(
    firstOf(settled(moved, { do: "removeNotes", section: "s1", part: "melody", notes: [id] }).sections).notes[part],
  ).toEqual([]);
});

test("a bass goes along with chords that change under it where that is wanted, and keeps what is pinned", () => {
  const played = edit(base, {
    do: "setNotes",
    section: "s1",
    part: "bass",
    notes: [
      { start: 1920, duration: 960, pitch: "A1", velocity: 90 },
      { start: 2880, duration: 960, pitch: "A1", velocity: 90, pinned: true },
    ],
  });
  const change: Edit = {
    do: "setChord",
    section: "s1",
    chord: nth(firstOf(played.sections).chords, 1).id,
    symbol: "Dm",
  };
  const bass = (song: Song) => sure(firstOf(song.sections).notes.bass).map((n) => n.pitch);
  expect(bass(settled(played, change))).toEqual(["A1", "A1"]);
  expect(bass(settled(played, change, true))).toEqual(["D2", "A1"]);
});

test("notes are named as the chord above them names them; a name of the user's own stays", () => {
  const named = edit(base, {
    do: "setNotes",
    section: "s1",
    part: "melody",
    notes: [
      { start: 1920, duration: 480, pitch: "G#4", velocity: 80 },
      { start: 2400, duration: 480, pitch: "Db5", velocity: 80 },
      { start: 5760, duration: 480, pitch: "G#4", velocity: 80 },
    ],
  });
  const over = (symbol: string, song: Song) =>
    settled(song, { do: "setChord", section: "s1", chord: nth(firstOf(song.sections).chords, 1).id, symbol });
  const pitches = (song: Song) => sure(firstOf(song.sections).notes.melody).map((n) => n.pitch);
  const e7 = over("E7", named);
  expect(pitches(over("Fm", e7))).toEqual(["Ab4", "Db5", "G#4"]);
  expect(pitches(over("E7", over("Fm", e7)))).toEqual(["G#4", "Db5", "G#4"]);
});

test("after what follows, nothing more follows: for any edits, from any song", () => {
  for (const [i, name] of ["every-setting", "another-key"].entries()) {
    let last = goldenSong(name);
    last = followChange(null, last).reduce((s, e) => edit(s, e), last);
    walk(
      last,
      {
        seed: 700 + i,
        length: 14,
        names: [
          "setChord",
          "setChords",
          "setPlaying",
          "setPart",
          "setLink",
          "changeNotes",
          "pinVoicing",
          "setKey",
          "addPart",
        ],
        apply(song, change) {
          const applied = applyEdit(song, change);
          if (!applied.ok) return song;
          return follow(song, change, { bass: i === 1 }).reduce((s, e) => edit(s, e), applied.value.song);
        },
      },
      (song, before, change) =>
        expect([change.do, followChange(before, song, { bass: false })]).toEqual([change.do, []]),
    );
  }
});

test("a song that is opened keeps its layouts, whatever the path would choose today; what has none is laid out", () => {
  const odd = edit(base, {
    do: "setVoicings",
    section: "s1",
    part: "keys",
    pitches: { [firstOf(firstOf(base.sections).chords).id]: ["C3", "G3", "E4"] },
  });
  const bare = {
    ...base,
    sections: base.sections.map((s) => ({ ...s, chords: s.chords.map(({ voicings: _, ...c }) => c) })),
  };
  expect(layouts(odd)[1]).toBeUndefined();
  const full = edit(base, {
    do: "setVoicings",
    section: "s1",
    part: "keys",
    pitches: Object.fromEntries(firstOf(base.sections).chords.map((c) => [c.id, ["C3", "G3", "E4"]])),
  });
  expect(followChange(null, full)).toEqual([]);
  expect(layouts(followChange(null, bare).reduce((s, e) => edit(s, e), bare))).toEqual(layouts(base));
  expect(writeLine(firstOf(base.sections).chords, must(parseMeter("4/4")), 4)).toBe("| C | Am | F | G7 |");
});
