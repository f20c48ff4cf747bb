import { firstOf, lastOf, nth, sure } from "../../src/base/list";
import { applyEdit } from "../../src/song/edits";
import { checkSong } from "../../src/judge/check/check";
import { must } from "../../src/base/result";
import { passView } from "../../src/song/passView";
import { realize } from "../../src/song/realize";
import { sectionKey, sectionOf } from "../../src/song/document";
import { transpose, type TransposeRequest } from "../../src/hear/singer/transpose";
import type { Song } from "../../src/song/schema/song";
import { demoSongs } from "../demos";
import { edit, heldSong, songWith } from "../helpers";

const SONGS = demoSongs();
const moved = (song: Song, request: TransposeRequest): Song =>
  must(applyEdit(song, must(transpose(song, request)).edit)).song;
const code = (song: Song, request: TransposeRequest): string => {
  const result = transpose(song, request);
  return result.ok ? "ok" : result.error.code;
};
/** Everything that can be named in a song, but the whole of it. */
const things = (song: Song): Omit<TransposeRequest, "by">[] => {
  const section = firstOf(song.sections);
  const [part, notes] = sure(Object.entries(section.notes).find(([, list]) => list.length > 4));
  return [
    { section: section.id },
    { pass: lastOf(song.form).id },
    { part },
    { part, section: section.id },
    { notes: notes.slice(1, 4).map((n) => n.id) },
    { pass: firstOf(song.form).id, part },
    { pass: firstOf(song.form).id, notes: [firstOf(notes).id] },
  ];
};

test.each([-5, 2])("anything by %i semitones, there and back: the song as it was, and asking changes nothing", (by) => {
  for (const song of SONGS)
    for (const thing of things(song)) {
      const text = JSON.stringify(song);
      const there = moved(song, { ...thing, by });
      expect(JSON.stringify(song)).toBe(text);
      expect([thing, there === song]).toEqual([thing, false]);
      // A bar of a pass that came home may say what its section says: it is heard the same.
      const back = moved(there, { ...thing, by: { semitones: -by } });
      expect([thing, realize(back)]).toEqual([thing, realize(song)]);
      if (thing.pass === undefined || (thing.part === undefined && !thing.notes))
        expect([thing, back]).toEqual([thing, song]);
    }
});

test("what is moved sounds so much higher, what is not stays, note for note of the whole form", () => {
  const by = 3;
  for (const song of SONGS) {
    const heard = (s: Song) => realize(s).parts.flatMap((p) => (p.linked ? [] : p.notes));
    const was = heard(song);
    for (const thing of things(song)) {
      const is = new Map(
        heard(moved(song, { ...thing, by })).map((n) => [`${n.pass} ${n.part} ${n.id} ${n.start}`, n.midi]),
      );
      const meant = (n: (typeof was)[number]) =>
        (thing.section ?? n.section) === n.section &&
        (thing.pass ?? n.pass) === n.pass &&
        (thing.part ?? n.part) === n.part &&
        (!thing.notes || thing.notes.some((id) => n.id.endsWith(id)));
      const wrong = was.filter(
        (n) => is.get(`${n.pass} ${n.part} ${n.id} ${n.start}`) !== n.midi + (meant(n) ? by : 0),
      );
      expect([song.title, thing, wrong]).toEqual([song.title, thing, []]);
      // A part that is out of the first pass is not heard there.
      if (thing.pass === undefined) expect(was.filter(meant).length).toBeGreaterThan(0);
    }
  }
});

test("to a key is by the interval to it, the nearer way, from where the thing is now", () => {
  const song = edit(songWith({ key: "C minor", line: "| Cm | G7 |", melody: ["0 Eb4 2", "4 B4 2"] }), {
    do: "addPass",
    section: "s1",
  });
  const pass = nth(song.form, 1).id;
  const there = moved(song, { pass, by: { key: "Eb minor" } });
  expect(nth(there.form, 1).transpose).toBe(3);
  expect(nth(moved(there, { pass, by: { key: "A minor" } }).form, 1).transpose).toBe(-3);
  expect(moved(there, { pass, by: { key: "C minor" } })).toEqual(song);
  for (const thing of [{ section: "s1" }, { part: "melody" }, { part: "melody", section: "s1" }])
    expect(moved(song, { ...thing, by: { key: "G minor" } })).toEqual(moved(song, { ...thing, by: -5 }));
  const section = sure(sectionOf(moved(song, { section: "s1", by: { key: "F# minor" } }), "s1"));
  expect([
    sectionKey(song, section).tonic,
    section.chords.map((c) => c.symbol),
    sure(section.notes.melody).map((n) => n.pitch),
  ]).toEqual(["F#", ["F#m", "C#7"], ["A4", "E#5"]]);
  expect(must(transpose(song, { by: 2 })).edit).toEqual({ do: "transpose", key: "D minor", semitones: 2 });
});

test("along the scale: the song, a section, a pass alone, a part, some notes", () => {
  const song = edit(songWith({ key: "C major", line: "| C | E7 | Am |", melody: ["0 C4 1", "4 G#4 1", "8 A4 1"] }), {
    do: "addPass",
    section: "s1",
  });
  const [first, second] = song.form.map((p) => p.id) as [string, string];
  const read = (s: Song, pass: string) => {
    const view = sure(sectionOf(passView(s, pass, true), "s1"));
    return `${view.chords.map((c) => c.symbol).join(" ")}: ${sure(view.notes.melody)
      .map((n) => n.pitch)
      .join(" ")}`;
  };
  const by = { steps: 1 };
  const up = "Dm F#7 Bdim: D4 A#4 B4";
  for (const thing of [{}, { section: "s1" }])
    expect([first, second].map((p) => read(moved(song, { ...thing, by }), p))).toEqual([up, up]);
  const alone = moved(song, { pass: second, by });
  expect([first, second].map((p) => read(alone, p))).toEqual(["C E7 Am: C4 G#4 A4", up]);
  expect(read(moved(song, { part: "melody", by }), first)).toBe("C E7 Am: D4 A#4 B4");
  expect(
    read(moved(song, { notes: [nth(sure(firstOf(song.sections).notes.melody), 2).id], by: { steps: -2 } }), first),
  ).toBe("C E7 Am: C4 G#4 F4");
  expect(must(transpose(song, { part: "melody", by })).left).toEqual([
    { what: "The chords", why: expect.stringContaining("stay") as string },
  ]);
});

test("what does not come along is listed with the reason; what cannot be says what and why", () => {
  const low = songWith({ key: "C major", line: "| C |", bass: ["0 E1 4"] });
  expect(must(transpose(low, { section: "s1", by: -3 })).left).toContainEqual({
    what: "Bass: 1 note",
    why: expect.stringMatching(/^below/) as string,
  });
  const held = heldSong();
  const { left } = must(transpose(held, { section: "s1", by: { steps: 1 } }));
  expect(left.map((l) => l.what)).toContain("Guitar: 1 shape");
  const capo = edit(held, { do: "setPlaying", part: "keys", voicing: { capo: 2 } });
  expect(must(transpose(capo, { section: "s1", by: 2 })).left.map((l) => l.why)).toContain(
    "stays in fret 2: it is one for the song",
  );

  expect(code(low, { section: "s9", by: 1 })).toBe("transpose.section");
  expect(code(low, { pass: "o9", by: 1 })).toBe("transpose.pass");
  expect(code(low, { pass: "o9", part: "bass", by: 1 })).toBe("transpose.pass");
  expect(code(low, { part: "horn", by: 1 })).toBe("transpose.part");
  expect(code(low, { notes: ["n999"], by: 1 })).toBe("transpose.notes");
  expect(code(low, { notes: [], by: 1 })).toBe("transpose.notes");
  expect(code(low, { section: "s1", by: { key: "H major" } })).toBe("transpose.key");
  expect(code(low, { section: "s1", by: { key: "A minor" } })).toBe("transpose.mode");
  expect(code(low, { section: "s1", by: { key: "C major" } })).toBe("transpose.same");
  expect(code(low, { section: "s1", by: 40 })).not.toBe("ok");
  expect(code(low, { part: "keys", by: 1 })).toBe("edit.part");
});

test("a song is judged whole, by section, or by pass as it plays; most noticed first", () => {
  const song = edit(
    songWith({ key: "C major", line: "| C | F |", melody: ["0 C5 4", "4 A4 4"], bass: ["0 C2 4", "4 F2 4"] }),
    {
      do: "addPass",
      section: "s1",
    },
  );
  const pass = nth(song.form, 1).id;
  const last = nth(sure(firstOf(song.sections).notes.melody), 1).id;
  const wrong = edit(song, {
    do: "inPass",
    pass,
    here: true,
    edit: { do: "changeNotes", section: "s1", part: "melody", notes: [{ id: last, pitch: "F#5" }] },
  });
  const messages = (scope: Parameters<typeof checkSong>[1]) => checkSong(wrong, scope).map((f) => f.message);
  const here = messages({ pass }).filter((m) => m.includes("F#5"));
  expect(here.length).toBeGreaterThan(0);
  expect(messages({ section: "s1" }).filter((m) => m.includes("F#5"))).toEqual([]);
  expect(messages({ pass: firstOf(wrong.form).id }).filter((m) => m.includes("F#5"))).toEqual([]);
  for (const demo of SONGS) {
    const whole = checkSong(demo);
    expect(
      demo.sections
        .flatMap((s) => checkSong(demo, { section: s.id }))
        .map((f) => f.id)
        .sort(),
    ).toEqual(whole.map((f) => f.id).sort());
    const ranks = whole
      .filter((f) => f.waived === undefined)
      .map((f) => ["fault", "warning", "note"].indexOf(f.severity));
    expect(ranks).toEqual([...ranks].sort());
  }
  expect(() => checkSong(song, { section: "s9" })).toThrow("There is no section s9 in the song");
  expect(() => checkSong(song, { pass: "o9" })).toThrow("There is no pass o9 in the form");
});
