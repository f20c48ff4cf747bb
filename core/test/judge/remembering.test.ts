import { firstOf, nth, sure } from "../../src/base/list";
import { random } from "../../src/base/random";
import { checkSong, createChecker } from "../../src/judge/check/check";
import type { Finding } from "../../src/judge/check/rule";
import { applyEdit, type Edit } from "../../src/song/edits";
import type { Song } from "../../src/song/schema/song";
import { pitchMidi, pitchName } from "../../src/theory/pitch/pitch";
import { BAND_SONGS } from "./bandSongs";
import { songOf } from "./bandSong";
import { onKeys, playedBy } from "./ensembles";
import { cleanSong, INJECTORS } from "./putFaults";

/** So many edits of each song; more by hand: `EDITS=2500 npx jest remembering`. */
const EDITS = Number(process.env.EDITS ?? 10);

const plain = (list: readonly Finding[]): string[] =>
  list.map((f) => `${f.id} ${f.severity} ${f.message} ${f.places.map((p) => JSON.stringify(p.fixes)).join()}`);

const NAMES = ["C", "C#", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"];
const named = (midi: number): string => pitchName(midi, nth(NAMES, ((midi % 12) + 12) % 12));

/** One change as hands make it: a note moves, comes, goes or lasts otherwise; a chord, a hit, a player's settings. */
function anyChange(song: Song, pick: (n: number) => number): Edit {
  const section = nth(song.sections, pick(song.sections.length));
  const at = { section: section.id };
  const own = Object.entries(section.notes).filter(([, notes]) => notes.length);
  const [part, notes] = own.length ? nth(own, pick(own.length)) : ["", []];
  const note = notes[pick(notes.length)];
  const chord = section.chords[pick(section.chords.length)];
  const kind = pick(16);
  if (kind === 0 && chord)
    return { do: "setChord", ...at, chord: chord.id, symbol: nth(["Am", "C7", "F", "Dm7"], pick(4)) };
  if (kind === 1) return { do: "setHit", ...at, drum: "kick", start: 240 * pick(section.bars * 8), velocity: 100 };
  if (kind === 2) {
    const who = nth(song.parts, pick(song.parts.length));
    const settings = [{ range: ["G2", "C6"] }, { name: `${who.name}’` }, { muted: !who.muted }, { level: -pick(9) }];
    return { do: "setPart", part: who.id, ...nth(settings, pick(4)) } as Edit;
  }
  if (kind === 3) return { do: "setProfile", profile: nth(["chorale", "band", "jazz"] as const, pick(3)) };
  if (!note) return { do: "setHit", ...at, drum: "snare", start: 0, velocity: 90 };
  // The part lies elsewhere from here on: others are outer voices, or upper ones, though nothing changed nearby.
  if (kind === 8) {
    const by = pick(2) ? 12 : -12;
    const rest = notes.filter((n) => n.start >= note.start);
    return {
      ...{ do: "changeNotes", ...at, part },
      notes: rest.map((n) => ({ id: n.id, pitch: named(pitchMidi(n.pitch) + by) })),
    };
  }
  if (kind === 4) return { do: "removeNotes", ...at, part, notes: [note.id] };
  if (kind === 5) {
    const start = note.start + note.duration;
    return { do: "addNote", ...at, part, note: { ...note, start, duration: 480 } };
  }
  const changed = { id: note.id, pitch: named(pitchMidi(note.pitch) + pick(15) - 7) };
  if (kind === 6) return { do: "changeNotes", ...at, part, notes: [{ id: note.id, duration: 240 * (1 + pick(8)) }] };
  if (kind === 7)
    return { do: "changeNotes", ...at, part, notes: [{ id: note.id, start: Math.max(0, note.start - 240) }] };
  return { do: "changeNotes", ...at, part, notes: [changed] };
}

const quartet = (form: number): Song => {
  const { song, parts } = cleanSong(form, 0);
  return { ...playedBy(song, parts, "strings"), profile: "chorale" };
};
const keys = (form: number): Song => {
  const { song, parts } = cleanSong(form, 0);
  return { ...onKeys(song, parts), profile: "chorale" };
};

test.each([
  ["a choir", () => ({ ...cleanSong(1, 0).song, profile: "chorale" as const }), EDITS],
  ["strings", () => quartet(2), EDITS],
  ["one player’s chords", () => keys(0), 4 * EDITS],
  ["a band over several sections", () => songOf(firstOf(BAND_SONGS)), EDITS],
  ["another band", () => songOf(nth(BAND_SONGS, 3)), EDITS],
])(
  "findings and ways out of %s, remembered over many changes, are those that are worked out anew",
  (name, make, edits) => {
    const next = random(name.length * 7);
    const pick = (n: number) => Math.floor(next() * Math.max(1, n));
    const checker = createChecker();
    const songs = [make()];
    let made = 0;
    while (made < edits) {
      const song = sure(songs.at(-1));
      // Now and then back to how it was, as undo does.
      const back = songs.length > 4 && pick(8) === 0;
      const after = back ? null : applyEdit(song, anyChange(song, pick));
      if (back) songs.splice(pick(3) ? -3 : 1);
      else if (after?.ok) songs.push(after.value.song);
      else continue;
      made++;
      const now = sure(songs.at(-1));
      for (const { id } of now.sections)
        expect([made, plain(checker.section(now, id))]).toEqual([made, plain(checkSong(now, { section: id }))]);
    }
  },
);

/** Places of a song with their ways out. */
const waysIn = (found: readonly Finding[]): Map<string, string> =>
  new Map(found.flatMap((f) => f.places.map((p) => [`${p.tick} ${p.id}`, JSON.stringify(p.fixes)])));

/** In how many places the ways out are others after a change, where the fault is the same; `remembered` must see it. */
function otherWays(song: Song, change: Edit, before: number): number {
  const checker = createChecker();
  const was = waysIn(checker.section(song, "s1"));
  const after = applyEdit(song, change);
  if (!after.ok) return 0;
  const fresh = checkSong(after.value.song, { section: "s1" });
  expect(plain(checker.section(after.value.song, "s1"))).toEqual(plain(fresh));
  return [...waysIn(fresh)].filter(([id, ways]) => Number(id.split(" ")[0]) < before && (was.get(id) ?? ways) !== ways)
    .length;
}

/** A song with a fault of each kind put into its first bars, one after the other. */
function* faulty(form: number, pick: (n: number) => number): Generator<{ song: Song; parts: string[] }> {
  const { song, parts } = cleanSong(form, 0);
  for (const put of Object.values(INJECTORS)) {
    const made = put({ song, parts, pick });
    if (made) yield { song: { ...playedBy(made.song, parts, "strings"), profile: "chorale" }, parts };
  }
}

const notesFrom = (song: Song, part: string, from: number) =>
  (firstOf(song.sections).notes[part] ?? []).filter((n) => n.start >= from);

test("what a part does far away makes other ways here: who lies outside, and who above whom", () => {
  const next = random(3);
  const pick = (n: number) => Math.floor(next() * n);
  let others = 0;
  for (const { song, parts } of faulty(8, pick))
    for (const part of parts.slice(1, 3))
      for (const by of [-24, 12]) {
        const far = notesFrom(song, part, 1920);
        const notes = far.map((n) => ({ id: n.id, pitch: named(pitchMidi(n.pitch) + by) }));
        // The first chord, whose neighbor is the last of its bar.
        others += otherWays(song, { do: "changeNotes", section: "s1", part, notes }, 960);
      }
  expect(others).toBeGreaterThan(0);
});

test("what follows over the bar line makes other ways before it", () => {
  const next = random(4);
  const pick = (n: number) => Math.floor(next() * n);
  let others = 0;
  for (const { song, parts } of faulty(2, pick))
    for (const part of parts) {
      const bar = 1920 * (1 + pick(4));
      const [note] = notesFrom(song, part, bar);
      if (!note) continue;
      const pitch = named(pitchMidi(note.pitch) + nth([-4, -2, 2, 4], pick(4)));
      others += otherWays(song, { do: "changeNotes", section: "s1", part, notes: [{ id: note.id, pitch }] }, bar);
    }
  expect(others).toBeGreaterThan(0);
});
