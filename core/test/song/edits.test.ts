import { firstOf, lastOf, nth, sure } from "../../src/base/list";
import fc from "fast-check";
import { applyEdit } from "../../src/song/edits";
import { checkSong, createChecker } from "../../src/judge/check/check";
import { must } from "../../src/base/result";
import { parseSong } from "../../src/song/document";
import { voiceSection } from "../../src/arrange/voicing/section";
import type { Edit } from "../../src/song/edits/list";
import type { Finding } from "../../src/judge/check/rule";
import type { Song } from "../../src/song/schema/song";
import { demoSongs } from "../demos";
import { songWith } from "../helpers";

/** Songs are immutable: made once, they serve every test. */
const DEMO = demoSongs();

/** Edits of all kinds with values inside and outside what is allowed. */
const someEdit = (song: Song): fc.Arbitrary<Edit> => {
  const section = firstOf(song.sections);
  const parts = song.parts.map((p) => p.id);
  const notes = Object.entries(section.notes).flatMap(([part, list]) => list.map((n) => ({ part, id: n.id })));
  const start = fc.integer({ min: -3000, max: 20_000 });
  const pitch = fc.constantFrom("C2", "Eb2", "F#2", "G3", "Bb4", "C#5", "X9", "C12");
  const chord = fc.constantFrom(...section.chords.map((c) => c.id), "nope");
  const edits: fc.Arbitrary<Edit>[] = [
    fc.record({ do: fc.constant("setTempo" as const), tempo: fc.integer({ min: 0, max: 500 }) }),
    fc.record({ do: fc.constant("setKey" as const), key: fc.constantFrom("D minor", "F# dorian", "Q major") }),
    fc.record({ do: fc.constant("setMeter" as const), meter: fc.constantFrom("3/4", "4/4", "7/8 2+2+3", "9/9") }),
    fc.record({
      do: fc.constant("setSwing" as const),
      ratio: fc.constantFrom(0.4, 0.5, 0.6667, 0.9),
      unit: fc.constantFrom(8 as const, 16 as const),
    }),
    fc.record({
      do: fc.constant("setProfile" as const),
      profile: fc.constantFrom("chorale" as const, "jazz" as const, "loop" as const),
    }),
    fc.record({
      do: fc.constant("setLine" as const),
      section: fc.constant(section.id),
      line: fc.constantFrom("| Am7 | D9 . . G |", "| C | % | Fjj |", "", "| . C |"),
    }),
    fc.record({
      do: fc.constant("setChord" as const),
      section: fc.constant(section.id),
      chord,
      symbol: fc.constantFrom("Ab7", "N.C.", "Hm"),
    }),
    fc.record({
      do: fc.constant("setSection" as const),
      section: fc.constant(section.id),
      bars: fc.integer({ min: 0, max: 12 }),
    }),
    fc.record({
      do: fc.constant("addNote" as const),
      section: fc.constant(section.id),
      part: fc.constantFrom(...parts, "nobody"),
      note: fc.record({
        start,
        duration: fc.integer({ min: 0, max: 2000 }),
        pitch,
        velocity: fc.integer({ min: 0, max: 130 }),
      }),
    }),
    fc.record({
      do: fc.constant("setHit" as const),
      section: fc.constant(section.id),
      drum: fc.constantFrom("kick" as const, "clap" as const),
      start: fc.integer({ min: 0, max: 60 }).map((n) => n * 120),
      velocity: fc.constantFrom(null, 40, 100, 300),
    }),
    fc.record({
      do: fc.constant("setAccents" as const),
      section: fc.constant(section.id),
      accents: fc.constantFrom<number[] | null>(null, [0, 1920], []),
    }),
    fc.record({ do: fc.constant("setPart" as const), part: fc.constantFrom(...parts), muted: fc.boolean() }),
    fc.record({
      do: fc.constant("addSection" as const),
      name: fc.constant("Again"),
      bars: fc.constant(2),
      copyOf: fc.constant(section.id),
    }),
    fc.record({
      do: fc.constant("addPart" as const),
      name: fc.constant("Answer"),
      role: fc.constant("counter" as const),
      instrument: fc.constant("clarinet"),
    }),
  ];
  if (notes.length) {
    const note = fc.constantFrom(...notes);
    edits.push(
      note.chain((n) =>
        fc.record({
          do: fc.constant("changeNotes" as const),
          section: fc.constant(section.id),
          part: fc.constant(n.part),
          notes: fc.record({ id: fc.constant(n.id), pitch }).map((x) => [x]),
        }),
      ),
      note.map((n) => ({ do: "removeNotes" as const, section: section.id, part: n.part, notes: [n.id] })),
    );
  }
  return fc.oneof(...edits);
};

/** Plays a random row of edits, each chosen with the song it meets. */
const walk = (
  start: Song,
  seed: number,
  length: number,
  visit: (song: Song, before: Song, edit: Edit) => void,
): void => {
  let song = start;
  for (let i = 0; i < length; i++) {
    const [edit] = fc.sample(someEdit(song), { seed: seed * 1000 + i, numRuns: 1 });
    const result = applyEdit(song, sure(edit));
    if (!result.ok) expect(result.error.message).toMatch(/\w/);
    const next = result.ok ? result.value.song : song;
    visit(next, song, sure(edit));
    song = next;
  }
};

test("whatever is edited, the document stays valid, and the song before stays as it was", () => {
  for (let seed = 0; seed < 6; seed++)
    walk(
      songWith({ line: "| C | Am | F | G |", kicks: [[0, 100]], bass: ["0 C2 2"], melody: ["-0.5 G4 0.5"] }),
      seed,
      20,
      (song, before, edit) => {
        const frozen = JSON.stringify(before);
        const parsed = parseSong(JSON.parse(JSON.stringify(song)));
        expect([edit.do, parsed.ok ? "" : parsed.error.message]).toEqual([edit.do, ""]);
        expect(JSON.stringify(before)).toBe(frozen);
      },
    );
});

test("what did not change is shared with the song before, so that a history of songs is cheap", () => {
  const [song] = DEMO;
  const next = must(
    applyEdit(sure(song), { do: "setHit", section: "s1", drum: "kick", start: 120, velocity: 50 }),
  ).song;
  expect(next.sections[1]).toBe(sure(song).sections[1]);
  expect(firstOf(next.sections).notes).toBe(firstOf(sure(song).sections).notes);
  expect(firstOf(next.sections).chords).toBe(firstOf(sure(song).sections).chords);
  expect(next.parts).toBe(sure(song).parts);
});

test("a checker that remembers finds what a fresh one finds, after every one of many edits", () => {
  const plain = (list: Finding[]) =>
    list
      .map((f) => `${f.id} ${f.severity} ${f.message} ${f.waived ?? ""} ${f.fixes.map((x) => x.label).join()}`)
      .sort();
  for (let seed = 50; seed < 52; seed++) {
    const checker = createChecker();
    walk(nth(DEMO, seed % 2), seed, 12, (song) => {
      const fresh = checkSong(song).filter((f) => f.where.section === firstOf(song.sections).id);
      expect(plain(checker.section(song, firstOf(song.sections).id))).toEqual(plain(fresh));
    });
  }
});

test("every fix of every finding can be made and leaves a valid song with its own finding gone", () => {
  let seen = 0;
  for (let seed = 80; seed < 82; seed++) {
    const walked: Song[] = [];
    walk(nth(DEMO, seed % 2), seed, 12, (song) => void walked.push(song));
    const song = must(applyEdit(lastOf(walked), { do: "setProfile", profile: "chorale" })).song;
    for (const finding of checkSong(song).slice(0, 6))
      for (const fix of finding.fixes) {
        const result = applyEdit(song, fix.edit);
        expect([finding.message, fix.label, result.ok ? "" : result.error.message]).toEqual([
          finding.message,
          fix.label,
          "",
        ]);
        if (!result.ok) continue;
        expect(parseSong(JSON.parse(JSON.stringify(result.value.song))).ok).toBe(true);
        expect([finding.message, fix.label, checkSong(result.value.song).some((f) => f.id === finding.id)]).toEqual([
          finding.message,
          fix.label,
          false,
        ]);
        seen++;
      }
  }
  expect(seen).toBeGreaterThan(7);
});

test("stored voicings are those the search finds: the demo is voiced as the application would", () => {
  for (const song of DEMO)
    for (const section of song.sections) {
      const voiced = must(voiceSection(song, section.id, "keys"));
      const stored = section.chords.map((c) => c.voicings?.keys?.pitches.join(" "));
      expect(voiced.chords.map((c) => c.pitches.join(" "))).toEqual(stored);
      for (const [id, list] of Object.entries(voiced.alternatives)) {
        expect([id, list.length > 2]).toEqual([id, true]);
        for (const [i, a] of list.entries()) if (i) expect(a.cost).toBeGreaterThanOrEqual(nth(list, i - 1).cost);
      }
    }
});
