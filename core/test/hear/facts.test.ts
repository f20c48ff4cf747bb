import { firstOf, sure } from "../../src/base/list";
import { accentsAt } from "../../src/hear/accents/facts";
import { agreementAt } from "../../src/arrange/groove/facts";
import { applyEdit } from "../../src/song/edits";
import { bassVerdictAt } from "../../src/write/bass/judge";
import { checkSong, createChecker } from "../../src/judge/check/check";
import { chordsAt, formRealized, hitsAt, notesAt, realizedAt } from "../../src/hear/sounding";
import { createMemory, type Memory } from "../../src/facts/memory";
import { harmonyAt } from "../../src/hear/harmony/facts";
import { kicksAt, rolesAt, slicesAt, soundingAt } from "../../src/hear/slice/facts";
import { passPlace, sectionPlace } from "../../src/song/place";
import { realize } from "../../src/song/realize";
import { sliceSong } from "../../src/hear/slice/slices";
import { verdictAt } from "../../src/arrange/reharm/facts";
import { tuneAt } from "../../src/hear/line/facts";
import { voicingAt } from "../../src/arrange/voicing/facts";
import type { Edit } from "../../src/song/edits/list";
import type { Finding } from "../../src/judge/check/rule";
import type { Song } from "../../src/song/schema/song";
import { walk } from "../anyEdit";
import { goldenSong } from "../fixtures";
import { BAND_SONGS } from "../judge/bandSongs";
import { songOf } from "../judge/bandSong";
import { edit, songWith } from "../helpers";

/**
 * Everything that follows from a song, as text: from a memory that has seen other songs before it, or from a new one.
 */
function everything(memory: Memory, song: Song, layouts: boolean): Record<string, unknown> {
  const read = memory.at(song);
  const out: Record<string, unknown> = { form: read.get(formRealized, "played"), held: read.get(formRealized, "held") };
  const places = [...song.sections.map((s) => sectionPlace(s.id)), ...song.form.map((p) => passPlace(song, p.id))];
  for (const place of places) {
    out[`${place} realized`] = read.get(realizedAt, place, "played");
    out[`${place} slices`] = read.get(slicesAt, place).slices;
    out[`${place} sounding`] = [...read.get(soundingAt, place)];
    out[`${place} kicks`] = [read.get(kicksAt, place), read.get(hitsAt, place), read.get(chordsAt, place)];
    for (const part of song.parts) {
      out[`${place} ${part.id}`] = read.get(notesAt, place, part.id, "held");
      out[`${place} ${part.id} roles`] = [...read.get(rolesAt, place, part.id, "played").values()];
    }
  }
  for (const { id } of song.sections) {
    out[`${id} harmony`] = [read.get(harmonyAt, id), read.get(verdictAt, id)];
    out[`${id} accents`] = [read.get(accentsAt, id), read.get(agreementAt, id)];
    for (const part of song.parts) {
      out[`${id} ${part.id} bass`] = read.get(bassVerdictAt, id, part.id);
      if (part.role !== "drums") out[`${id} ${part.id} tune`] = read.get(tuneAt, id, part.id);
      if (layouts && part.link) out[`${id} ${part.id} layouts`] = read.get(voicingAt, id, part.id);
    }
  }
  return out;
}

const apply = (song: Song, change: Edit): Song => {
  const result = applyEdit(song, change);
  return result.ok ? result.value.song : song;
};

test.each([
  ["every-setting", 0],
  ["pickup", 1],
  ["another-key", 2],
  ["glides", 3],
])("after any row of edits to %s, what is remembered equals what is worked out anew", (name, seed) => {
  const memory = createMemory();
  let step = 0;
  walk(goldenSong(name), { seed: 300 + seed, length: 9, apply }, (song) => {
    const layouts = name !== "every-setting" && step++ % 8 === 0;
    const remembered = everything(memory, song, layouts);
    const fresh = everything(createMemory(), song, layouts);
    for (const key of Object.keys(fresh)) expect([key, remembered[key]]).toEqual([key, fresh[key]]);
    // Nothing that watches what is read may be left in what is handed out.
    structuredClone(remembered);
  });
});

const plain = (list: readonly Finding[]) =>
  list.map(
    (f) => `${f.id} ${f.severity} ${f.message} ${f.waived ?? ""} ${f.fixes.map((x) => JSON.stringify(x)).join()}`,
  );

test("a checker that remembers finds what a fresh one finds, after every one of many edits", () => {
  for (const [i, name] of ["every-setting", "transposing", "sorting-shed-stomp"].entries()) {
    const checker = createChecker();
    walk({ ...goldenSong(name), profile: "chorale" }, { seed: 500 + i, length: 7, apply }, (song) => {
      const remembered = song.sections.flatMap((s) => checker.section(song, s.id));
      expect(plain(remembered)).toEqual(plain(song.sections.flatMap((s) => checkSong(song, { section: s.id }))));
    });
  }
  // A band over several sections: what is judged at a seam rests on both sides of it.
  const checker = createChecker();
  walk(songOf(firstOf(BAND_SONGS)), { seed: 77, length: 9, apply }, (song) => {
    expect(plain(song.sections.flatMap((s) => checker.section(song, s.id)))).toEqual(
      plain(song.sections.flatMap((s) => checkSong(song, { section: s.id }))),
    );
  });
});

test("what was read decides, not what was declared: the second voice and a detached chord part count", () => {
  const checker = createChecker();
  const rules = (song: Song) => checker.section(song, "s1").map((f) => f.rule);
  const base = edit(
    songWith({ line: "| C | D |", bass: ["0 C2 4", "4 D2 4"] }),
    { do: "setProfile", profile: "chorale" },
    { do: "addPart", name: "Answer", role: "counter", instrument: "clarinet" },
  );
  const answer = sure(base.parts.find((p) => p.role === "counter")).id;
  expect(rules(base)).not.toContain("parallels");
  const answered = edit(base, {
    do: "setNotes",
    section: "s1",
    part: answer,
    notes: [
      { start: 0, duration: 1920, pitch: "C5", velocity: 80 },
      { start: 1920, duration: 1920, pitch: "D5", velocity: 80 },
    ],
  });
  expect(rules(answered)).toContain("parallels");
  const detached = edit(base, { do: "setLink", part: "keys", link: null });
  expect(rules(detached)).not.toContain("long-outside");
  const held = edit(detached, {
    do: "addNote",
    section: "s1",
    part: "keys",
    note: { start: 0, duration: 1920, pitch: "F#4", velocity: 80 },
  });
  // F sharp stands where the fifth of the chord should.
  expect(rules(held)).toContain("other-chord");
});

test("only what an edit touches is worked out again", () => {
  const memory = createMemory();
  const song = goldenSong("sorting-shed-stomp");
  const [here] = song.sections.map((s) => s.id);
  everything(memory, song, false);
  const counted = (change: Edit) => {
    everything(memory, song, false);
    const before = new Map(memory.counts);
    everything(memory, edit(song, change), false);
    return new Map([...memory.counts].map(([id, n]) => [id, n - (before.get(id) ?? 0)]));
  };
  const hit = counted({ do: "setHit", section: sure(here), drum: "kick", start: 120, velocity: 50 });
  expect([hit.get("chords"), hit.get("harmony"), hit.get("roles"), hit.get("kicks")]).toEqual([0, 0, 0, 1]);
  const note = counted({
    do: "changeNotes",
    section: sure(here),
    part: "bass",
    notes: [{ id: firstOf(sure(firstOf(song.sections).notes.bass)).id, velocity: 44 }],
  });
  expect([note.get("notes"), note.get("roles"), note.get("harmony"), note.get("hits")]).toEqual([2, 2, 0, 0]);
  const title = counted({ do: "setTitle", title: "Another" });
  expect([...title].filter(([, n]) => n)).toEqual([]);
});

test("passes that differ in nothing are worked out once, and the form sounds as they do", () => {
  const song = { ...goldenSong("sorting-shed-stomp") };
  const [first] = song.sections;
  const form = Array.from({ length: 12 }, (_, i) => ({
    id: `o${i}`,
    sectionId: sure(first).id,
    ...(i === 7 ? { transpose: 2 } : {}),
  }));
  const long = { ...song, form };
  const memory = createMemory();
  expect(memory.at(long).get(formRealized, "played")).toEqual(realize(long));
  expect(memory.counts.get("realized")).toBe(2);
  const alone = sliceSong(long, { section: sure(first).id, harmony: true });
  expect(memory.at(long).get(slicesAt, sectionPlace(sure(first).id)).slices).toEqual(alone.slices);
});

test("bars that a pass has for itself stand for those of its section, there alone", () => {
  let song = songWith({
    line: "| C | F | G | C |",
    bass: ["0 C2 4", "4 F2 4", "8 G2 4", "12 C2 4"],
    kicks: [
      [0, 100],
      [12, 100],
    ],
  });
  const own = { id: "c99", start: 3 * 1920, duration: 1920, symbol: "E7" };
  song = {
    ...song,
    form: [
      { id: "o1", sectionId: "s1" },
      {
        id: "o2",
        sectionId: "s1",
        own: [
          {
            bars: [3, 4],
            chords: [own],
            notes: { bass: [{ id: "n99", start: 3 * 1920, duration: 960, pitch: "E2", velocity: 90 }] },
            groove: { lanes: [{ drum: "snare", hits: [{ start: 3 * 1920 + 480, velocity: 90 }] }] },
          },
        ],
      },
    ],
  };
  const real = realize(song);
  const chords = (pass: string) => real.chords.filter((c) => c.pass === pass).map((c) => c.symbol);
  expect([chords("o1"), chords("o2")]).toEqual([
    ["C", "F", "G", "C"],
    ["C", "F", "G", "E7"],
  ]);
  const bass = sure(real.parts.find((p) => p.id === "bass")).notes;
  expect(bass.map((n) => n.pitch)).toEqual(["C2", "F2", "G2", "C2", "C2", "F2", "G2", "E2"]);
  expect(real.hits.map((h) => [h.drum, h.start / 480])).toEqual([
    ["kick", 0],
    ["kick", 12],
    ["kick", 16],
    ["snare", 29],
  ]);
});
