import fc from "fast-check";
import { firstOf, nth, sure } from "../../src/base/list";
import { must } from "../../src/base/result";
import { parseSong } from "../../src/song/document";
import { sharing } from "../../src/base/plain";
import { joinSongs } from "../../src/song/join";
import { applyEdit } from "../../src/song/edits";
import type { Edit } from "../../src/song/edits/list";
import type { Song } from "../../src/song/schema/song";
import { anyEdit } from "../anyEdit";
import { demoSongs } from "../demos";
import { edit, songWith } from "../helpers";

/** A song as it comes from the server: nothing in it is shared. */
const sent = (song: Song): Song => JSON.parse(JSON.stringify(song)) as Song;
const BASE = edit(
  songWith({
    line: "| C | Am | F | G7 |",
    bass: ["0 C2 1", "4 A1 1", "8 F1 1"],
    melody: ["0 E4 4"],
    kicks: [[0, 100]],
  }),
  { do: "addSection", name: "Chorus", bars: 4 },
);
const bass = (song: Song) => sure(firstOf(song.sections).notes.bass);
const chordIds = firstOf(BASE.sections).chords.map((c) => c.id);
const noteIds = bass(BASE).map((n) => n.id);
const note = (start: number, pitch: string): Edit => ({
  do: "addNote",
  section: "s1",
  part: "bass",
  note: { start, duration: 480, pitch, velocity: 90 },
});
const join = (mine: Edit[], theirs: Edit[]) => sure(joinSongs(BASE, edit(BASE, ...mine), sent(edit(BASE, ...theirs))));

test.each<[what: string, mine: Edit, theirs: Edit]>([
  ["two settings", { do: "setTempo", tempo: 120 }, { do: "setTitle", title: "Windfall" }],
  [
    "two chords of a section",
    { do: "setChord", section: "s1", chord: nth(chordIds, 0), symbol: "Cmaj7" },
    { do: "setChord", section: "s1", chord: nth(chordIds, 2), symbol: "Dm7" },
  ],
  [
    "two notes of a line",
    { do: "changeNotes", section: "s1", part: "bass", notes: [{ id: nth(noteIds, 0), pitch: "E2" }] },
    { do: "changeNotes", section: "s1", part: "bass", notes: [{ id: nth(noteIds, 1), pitch: "C2" }] },
  ],
  ["a note and a hit", note(480, "G2"), { do: "setHit", section: "s1", drum: "kick", start: 960, velocity: 90 }],
  [
    "two hits of a lane",
    { do: "setHit", section: "s1", drum: "kick", start: 480, velocity: 90 },
    { do: "setHit", section: "s1", drum: "kick", start: 960, velocity: 90 },
  ],
  [
    "a part and a section",
    { do: "setPart", part: "keys", name: "Harmonium" },
    { do: "setSection", section: "s1", name: "Row one" },
  ],
  [
    "a chord line and a tune",
    { do: "setLine", section: "s1", line: "| Dm7 | G7 | C | C |" },
    { do: "setTempo", tempo: 90 },
  ],
])("%s: what one window changed joins what another changed, as if one had done both", (_, mine, theirs) => {
  const { song, apart } = join([mine], [theirs]);
  expect(apart).toEqual([]);
  const both = edit(BASE, theirs, mine);
  const bare = (s: Song) =>
    JSON.parse(JSON.stringify({ ...s, nextId: 0 }, (k, v: unknown) => (k === "id" ? 0 : v))) as unknown;
  expect(bare(song)).toEqual(bare(both));
  expect(must(parseSong(sent(song)))).toEqual(song);
});

test("two notes that were given one id by two windows are both there, under ids of their own", () => {
  const { song, apart } = join([note(480, "G2")], [note(960, "A2")]);
  expect(apart).toEqual([]);
  expect(bass(song).map((n) => n.pitch)).toEqual(["C2", "G2", "A2", "A1", "F1"]);
  expect(new Set(bass(song).map((n) => n.id)).size).toBe(5);
  expect(applyEdit(song, note(1440, "B2")).ok).toBe(true);
});

test("notes of two parts that were given one id are told apart as well", () => {
  const { song, apart } = join([note(480, "G2")], [{ ...note(960, "C5"), part: "melody" } as Edit]);
  expect(apart).toEqual([]);
  expect([bass(song).length, firstOf(song.sections).notes.melody?.length]).toEqual([4, 2]);
});

test.each<[what: string, mine: Edit, theirs: Edit, apart: string]>([
  ["the tempo", { do: "setTempo", tempo: 120 }, { do: "setTempo", tempo: 140 }, "the tempo"],
  [
    "one chord",
    { do: "setChord", section: "s1", chord: nth(chordIds, 0), symbol: "Cmaj7" },
    { do: "setChord", section: "s1", chord: nth(chordIds, 0), symbol: "Em" },
    "Verse: chords",
  ],
  [
    "chords over one stretch",
    { do: "setLine", section: "s1", line: "| Dm7 | G7 | C | C |" },
    { do: "setLine", section: "s1", line: "| Em7 A7 | G7 | C | C |" },
    "Verse: chords",
  ],
  [
    "a note that the other removed",
    { do: "changeNotes", section: "s1", part: "bass", notes: [{ id: nth(noteIds, 0), pitch: "E2" }] },
    { do: "removeNotes", section: "s1", part: "bass", notes: [nth(noteIds, 0)] },
    "Verse: Bass",
  ],
  ["a name", { do: "setPart", part: "keys", name: "A" }, { do: "setPart", part: "keys", name: "B" }, "A"],
])("%s: where both changed the same thing, this window's stands and it is told", (_, mine, theirs, where) => {
  const { song, apart } = join([mine], [theirs]);
  expect(apart).toEqual([where]);
  const own = edit(BASE, mine);
  expect([song.tempo, firstOf(song.sections).chords.map((c) => c.symbol), bass(song).map((n) => n.pitch)]).toEqual([
    own.tempo,
    firstOf(own.sections).chords.map((c) => c.symbol),
    bass(own).map((n) => n.pitch),
  ]);
});

test("sections in an order that one changed keep it, with what the other added behind what it stood behind", () => {
  const [verse, chorus] = BASE.form.map((p) => p.id);
  const { song, apart } = join(
    [{ do: "movePass", pass: sure(chorus), to: 0 }],
    [{ do: "addSection", name: "Bridge", bars: 4 }],
  );
  expect(apart).toEqual([]);
  expect(song.form.map((p) => p.id).slice(0, 2)).not.toEqual([verse, chorus]);
  expect(song.form).toHaveLength(3);
  expect(song.sections.map((s) => s.name)).toEqual(["Verse", "Chorus", "Bridge"]);
});

test("notes for a part that the other removed make no song", () => {
  expect(joinSongs(BASE, edit(BASE, note(480, "G2")), sent(edit(BASE, { do: "removePart", part: "bass" })))).toBeNull();
});

test("of any edits: nothing against something gives that, and what joins can be stored", () => {
  const [song] = [nth(demoSongs(), 1)];
  let joined = 0;
  const changed = fc.sample(anyEdit(song), { seed: 3, numRuns: 300 }).flatMap((e) => {
    const made = applyEdit(song, e);
    return made.ok && made.value.song !== song ? [made.value.song] : [];
  });
  expect(changed.length).toBeGreaterThan(60);
  changed.forEach((mine, i) => {
    const theirs = sharing(song, sent(nth(changed, (i * 7 + 1) % changed.length)));
    expect(sure(joinSongs(song, mine, sent(song))).song).toEqual({
      ...mine,
      nextId: Math.max(mine.nextId, song.nextId),
    });
    expect(sure(joinSongs(song, song, theirs)).song.sections).toEqual(theirs.sections);
    const both = joinSongs(song, mine, theirs);
    if (!both) return;
    joined++;
    expect(must(parseSong(sent(both.song)))).toEqual(both.song);
  });
  expect(joined / changed.length).toBeGreaterThan(0.8);
});

test("what says the same is shared: a note that moved leaves all other lists as they were", () => {
  const [song] = demoSongs();
  if (!song) throw new Error("no song");
  expect(sharing(song, sent(song))).toBe(song);
  const moved = sent({ ...song, tempo: song.tempo + 1 });
  const shared = sharing(song, moved);
  expect(shared).toEqual(moved);
  expect(shared.sections).toBe(song.sections);
});
