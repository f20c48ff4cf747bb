import { firstOf, lastOf, nth, sure } from "../../src/base/list";
import { applyEdit } from "../../src/song/edits";
import { createChecker } from "../../src/judge/check/check";
import { must } from "../../src/base/result";
import { passView } from "../../src/song/passView";
import { realize } from "../../src/song/realize";
import { secondsAt } from "../../src/song/realized";
import type { Edit } from "../../src/song/edits/list";
import type { Finding } from "../../src/judge/check/rule";
import type { Song } from "../../src/song/schema/song";
import { demoSongs } from "../demos";
import { edit, notesOf, songWith } from "../helpers";

const checkSection = (song: Song, section: string): Finding[] => createChecker().section(song, section);

/** A verse in F and a chorus, with what the bass plays at the end of the one and the beginning of the other. */
function joined(end: readonly string[], begin: readonly string[]): Song {
  const song = edit(songWith({ key: "F major", line: "| F | F |", bass: [...end] }), {
    do: "addSection",
    name: "Chorus",
    bars: 1,
  });
  const id = nth(song.sections, 1).id;
  return edit(
    song,
    { do: "setLine", section: id, line: "| Db |" },
    { do: "setNotes", section: id, part: "bass", notes: notesOf(begin) },
  );
}
const seams = (song: Song, section = "s1"): Finding[] =>
  checkSection(song, section).filter((f) => f.rule.startsWith("seam-"));
const messages = (song: Song) => seams(song).flatMap((f) => f.places.map((p) => p.message));

test("a finding at a seam names both sides; a pass in another key is judged as it sounds", () => {
  const song = joined(["0 F2 4", "4 F2 3", "7 E2 1"], ["0 Db2 4"]);
  expect(messages(song)).toEqual(["Bass leads with E2 at bar 2, beat 4 of Verse, but Chorus begins on Db."]);
  // A semitone lower the chorus begins on C, and E leads there by nothing either; a whole tone higher, on Eb, it leads
  // by step.
  const chorus = nth(song.form, 1).id;
  expect(messages(edit(song, { do: "setPass", pass: chorus, transpose: 2 }))).toEqual([]);
  // Both moved alike say the same of the sounding notes.
  const moved = edit(song, ...song.form.map((p): Edit => ({ do: "setPass", pass: p.id, transpose: 2 })));
  expect(messages(moved)).toEqual(["Bass leads with F#2 at bar 2, beat 4 of Verse, but Chorus begins on Eb."]);
});

test("a pass with another ending is judged by it, and mended in it alone", () => {
  const song = joined(["0 F2 4", "4 F2 3", "7 Eb2 1"], ["0 Db2 4"]);
  expect(messages(song)).toEqual([]);
  const pass = firstOf(song.form).id;
  const id = lastOf(sure(firstOf(song.sections).notes.bass)).id;
  const own = edit(song, {
    do: "inPass",
    pass,
    here: true,
    edit: { do: "changeNotes", section: "s1", part: "bass", notes: [{ id, pitch: "E2" }] },
  });
  const [finding] = seams(own);
  expect(sure(finding).message).toMatch(/E2 at bar 2, beat 4 of Verse/);
  const mended = must(applyEdit(own, firstOf(sure(finding).fixes).edit)).song;
  expect(mended.sections).toEqual(own.sections);
  expect(seams(mended)).toEqual([]);
});

test("where a section goes on in two ways, each seam is told, and the one that is wrong is mended in its pass alone", () => {
  const two = joined(["0 F2 4", "4 F2 3", "7 E2 1"], ["0 Db2 4"]);
  // Verse (leading back to F), verse, chorus.
  const song = edit(two, { do: "addPass", section: "s1", at: 0 });
  const [finding] = seams(song);
  expect(sure(finding).message).toMatch(/but Chorus begins on Db/);
  const [fix] = sure(finding).fixes;
  expect(sure(fix).label).toMatch(/in this pass alone$/);
  const mended = must(applyEdit(song, sure(fix).edit)).song;
  expect(mended.sections).toEqual(song.sections);
  expect(mended.form.map((p) => p.own?.length ?? 0)).toEqual([0, 1, 0]);
});

/** Every pass as a section of its own, written out. */
function unfolded(song: Song): Song {
  return {
    ...song,
    sections: song.form.map((pass, i) => {
      const section = sure(passView(song, pass.id).sections.find((s) => s.id === pass.sectionId));
      return { ...section, id: `u${i}`, name: pass.name ?? section.name };
    }),
    form: song.form.map(({ id, muted, bars }, i) => ({
      id,
      sectionId: `u${i}`,
      ...(muted ? { muted } : {}),
      ...(bars ? { bars } : {}),
    })),
  };
}

/** Rules that compare one section with others, of which there are more where each pass is one. */
const BETWEEN = new Set(["sections-alike", "pass-again", "loop-end"]);

describe.each(demoSongs().map((s): [string, Song] => [s.title, s]))("%s, folded and unfolded", (_, song) => {
  const flat = unfolded(song);
  test("sounds the same", () => {
    const [a, b] = [realize(song), realize(flat)];
    const sound = (real: typeof a) => [
      real.duration,
      secondsAt(real, real.duration),
      real.chords.map((c) => [c.start, c.duration, c.symbol]),
      real.parts.map((p) => p.notes.map((n) => [n.played, n.playedEnd, n.midi, n.velocity])),
      real.hits.map((h) => [h.drum, h.played, h.velocity]),
    ];
    expect(sound(b)).toEqual(sound(a));
  });
  test("is judged the same, pass by pass", () => {
    song.form.forEach((pass, i) => {
      const text = (findings: Finding[]) =>
        findings
          .filter((f) => !BETWEEN.has(f.rule))
          .flatMap((f) =>
            f.places.map((p) => [f.rule, f.severity, p.tick, p.message.replace(/ \(time \d+\)| again/g, "")].join(" ")),
          )
          .sort();
      const folded = text(checkSection(passView(song, pass.id, true), pass.sectionId));
      expect([pass.name ?? i, text(checkSection(flat, `u${i}`))]).toEqual([pass.name ?? i, folded]);
    });
  });
});
