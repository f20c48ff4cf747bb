import { firstOf, nth, sure } from "../../src/base/list";
import { isDeepStrictEqual } from "node:util";
import fc from "fast-check";
import { applyEdit } from "../../src/song/edits";
import { EDITS, type Edit } from "../../src/song/edits/list";
import { must } from "../../src/base/result";
import { newSong, parseSong } from "../../src/song/document";
import type { Song } from "../../src/song/schema/song";
import { anyEdit, walk } from "../anyEdit";
import { goldenSong } from "../fixtures";
import { edit, songWith } from "../helpers";

/** Two sections that can be joined, and a log. */
const joinable = edit(
  songWith({ line: "| C | F | G | C |", bass: ["0 C2 4", "8 G2 4"] }),
  { do: "splitSection", section: "s1", at: 2 },
  { do: "logEntry", at: "2026-10-01T18:00:00Z", what: "Agreed: no repeat", section: "s1" },
);
const STARTS = [...["every-setting", "pickup", "glides", "transposing"].map(goldenSong), joinable];

/**
 * What an edit does is what the document allows: accepted, it leaves a song that reads back as it is; refused, it says
 * why.
 */
function judged(song: Song, change: Edit): boolean {
  const frozen = JSON.stringify(song);
  const result = applyEdit(song, change);
  expect(JSON.stringify(song) === frozen).toBe(true);
  if (!result.ok) {
    expect([change.do, result.error.message]).toEqual([change.do, expect.stringMatching(/\w{2}/)]);
    expect(result.error.code).toMatch(/^\w+\.\w+$/);
    return false;
  }
  const written = JSON.parse(JSON.stringify(result.value.song)) as unknown;
  const parsed = parseSong(written);
  expect([JSON.stringify(change), parsed.ok ? "" : parsed.error.message]).toEqual([JSON.stringify(change), ""]);
  // Jest's own comparison takes ten times as long.
  if (parsed.ok && !isDeepStrictEqual(parsed.value, written)) expect(parsed.value).toEqual(written);
  const text = JSON.stringify(written);
  expect(result.value.created.filter((id) => !text.includes(`"${id}"`))).toEqual([]);
  return true;
}

/** Edits of a kind on a song; more where none of them was accepted. */
const ENOUGH = 12;

test.each(EDITS.map((d) => d.name))(
  "%s: what is accepted can be kept, what is refused says why, generated from its schema",
  (name) => {
    let accepted = 0;
    for (const [i, song] of STARTS.entries())
      for (const [k, change] of fc.sample(anyEdit(song, name), { seed: 11 + i, numRuns: 32 }).entries())
        if (k < ENOUGH || !accepted) accepted += Number(judged(song, change));
    // A generator that only makes nonsense would prove nothing.
    expect(accepted).toBeGreaterThan(0);
  },
);

test("the same holds along rows of edits, and a counter that is too low never gives an id twice", () => {
  for (let seed = 0; seed < 4; seed++)
    walk(
      { ...nth(STARTS, seed), nextId: 1 },
      { seed, length: 40, apply: (s, e) => (judged(s, e) ? must(applyEdit(s, e)).song : s) },
      () => undefined,
    );
});

const base = edit(songWith({ line: "| C | F |", bass: ["0 C2 4", "4 F2 4"], kicks: [[0, 100]] }), {
  do: "addPart",
  name: "Pad",
  role: "chords",
  instrument: "pad",
  link: { kind: "pad", from: "keys" },
});
const at = { section: "s1", part: "keys" };
const hostile: [string, unknown][] = [
  ["an empty name of a part", { do: "setPart", part: "bass", name: "" }],
  ["a section of no bars", { do: "addSection", name: "B", bars: 0 }],
  ["a waiver of 2000 characters", { do: "waive", rule: "parallels", reason: "x".repeat(2000) }],
  ["a hit between ticks", { do: "setHit", section: "s1", drum: "kick", start: 0.5, velocity: 90 }],
  ["a hit before the section", { do: "setHit", section: "s1", drum: "kick", start: -120, velocity: 90 }],
  ["an accent between ticks", { do: "setAccents", section: "s1", accents: [0, 1.5] }],
  ["a pitch that is none among layouts", { do: "setVoicings", ...at, pitches: { c1: ["H4"] } }],
  ["a pinned pitch that is none", { do: "pinVoicing", ...at, chord: "c1", pitches: ["C4", ""] }],
  [
    "a part that plays after one that is not there",
    { do: "setLink", part: "keys", link: { kind: "pad", from: "nobody" } },
  ],
  ["a part that plays after itself", { do: "setLink", part: "keys", link: { kind: "pad", from: "keys" } }],
  [
    "layouts of a part that is not there",
    { do: "pinVoicing", section: "s1", part: "nobody", chord: "c1", pitches: ["C4"] },
  ],
  ["an instrument that is not there", { do: "setPart", part: "bass", instrument: "comb" }],
  [
    "two lanes of one drum",
    {
      do: "setDrums",
      section: "s1",
      lanes: [
        { drum: "kick", hits: [] },
        { drum: "kick", hits: [] },
      ],
    },
  ],
  ["a bar past the end", { do: "repeatDrums", section: "s1", bar: 9 }],
  ["a setting of another name", { do: "setPlaying", part: "bass", bass: { densety: 1 } }],
  ["a field of another name", { do: "setPart", part: "bass", mutd: true }],
  ["an edit of another name", { do: "setMood", mood: "late" }],
];
test.each(hostile)("%s is refused", (_, change) => expect(judged(base, change as Edit)).toBe(false));

test("what belongs to a section or a part goes with it, and nothing points at it any more", () => {
  let song = goldenSong("every-setting");
  const [first, second] = song.sections.map((s) => s.id);
  song = edit(song, { do: "setPlaying", part: "bass", pass: firstOf(song.form).id, bass: { density: 0.1 } });
  song = {
    ...song,
    singers: song.singers.map((s, i) => (i ? s : { ...s, partId: "melody" })),
    log: [
      {
        id: "l1",
        at: "2026-10-02",
        what: "kept the walking one",
        where: { sectionId: sure(first), parts: ["bass"] },
        takeId: firstOf(song.takes).id,
      },
    ],
    form: song.form.map((p) => ({
      ...p,
      muted: ["bass"],
      own: [{ bars: [0, 1] as [number, number], notes: { bass: [], melody: [] } }],
    })),
  };
  expect(parseSong(song).ok).toBe(true);
  const gone = (text: string) => JSON.stringify(text);
  for (const part of song.parts.map((p) => p.id)) {
    const left = edit(song, { do: "removePart", part });
    expect(parseSong(left).ok).toBe(true);
    // Ids that are also words of the document cannot be looked for.
    if (/^p\d+$/.test(part)) expect([part, JSON.stringify(left).includes(gone(part))]).toEqual([part, false]);
  }
  const left = edit(song, { do: "removeSection", section: sure(first) });
  expect(JSON.stringify(left)).not.toContain(gone(sure(first)));
  expect(left.waivers.every((w) => w.sectionId !== first)).toBe(true);
  expect(edit(left, { do: "addSection", name: "Again", bars: 2, copyOf: sure(second) }).sections[1]).toMatchObject({
    copyOf: second,
    playing: firstOf(left.sections).playing,
  });
});

test("an edit says what it made, what was asked for first", () => {
  const made = must(applyEdit(base, { do: "addPart", name: "Second bass", role: "bass", instrument: "subBass" }));
  expect(sure(made.song.parts.find((p) => p.id === made.created[0])).name).toBe("Second bass");
  const copied = must(applyEdit(base, { do: "addSection", name: "Chorus", bars: 2, copyOf: "s1" }));
  expect(copied.song.sections.at(-1)).toMatchObject({ id: copied.created[0], name: "Chorus" });
  const [section, , ...rest] = copied.created;
  const inside = sure(copied.song.sections.find((s) => s.id === section));
  expect([...inside.chords, ...Object.values(inside.notes).flat()].map((x) => x.id).sort()).toEqual([...rest].sort());
  expect(must(applyEdit(base, { do: "setTempo", tempo: 90 })).created).toEqual([]);
  const both = must(
    applyEdit(base, {
      do: "all",
      label: "two",
      edits: [
        { do: "addNote", section: "s1", part: "melody", note: { start: 0, duration: 480, pitch: "C5", velocity: 80 } },
        {
          do: "addNote",
          section: "s1",
          part: "melody",
          note: { start: 480, duration: 480, pitch: "D5", velocity: 80 },
        },
      ],
    }),
  );
  expect(sure(firstOf(both.song.sections).notes.melody).map((n) => n.id)).toEqual(both.created);
});

test("one bad edit among several leaves everything as it was", () => {
  const result = applyEdit(base, {
    do: "all",
    label: "half good",
    edits: [
      { do: "setTempo", tempo: 120 },
      { do: "setTempo", tempo: 1 },
    ],
  });
  expect(result).toMatchObject({ ok: false, error: { code: "edit.setTempo" } });
});

test("how something is played is inherited from the part, and a section or a pass may differ", () => {
  let song = must(newSong({ title: "Inherits" }));
  song = edit(
    song,
    {
      do: "setPlaying",
      part: "keys",
      voicing: { register: 3, weights: { motion: 2, hand: 3 } },
      comp: { rhythm: "beats" },
    },
    { do: "setPlaying", part: "keys", section: "s1", voicing: { weights: { hand: 0.5 } } },
    { do: "setPlaying", part: "keys", pass: "o1", comp: { rhythm: "offbeats" } },
  );
  expect(firstOf(song.form).playing).toEqual({ keys: { comp: { rhythm: "offbeats" } } });
  const given = edit(
    song,
    { do: "setPlaying", part: "keys", section: "s1", voicing: { weights: null } },
    { do: "setPlaying", part: "keys", pass: "o1", comp: { rhythm: null } },
    {
      do: "setPlaying",
      part: "keys",
      voicing: { weights: { motion: null, hand: null }, register: null },
      comp: { rhythm: null },
    },
  );
  expect([firstOf(given.sections).playing, firstOf(given.form).playing, nth(given.parts, 1).playing]).toEqual([
    undefined,
    undefined,
    {},
  ]);
  expect(applyEdit(song, { do: "setPlaying", part: "keys", section: "s1", pass: "o1", comp: { gate: 50 } }).ok).toBe(
    false,
  );
});
