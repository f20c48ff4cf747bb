import { firstOf, sure } from "../../src/base/list";
import { checkSong } from "../../src/judge/check/check";
import { safeFixes, safeSteps, tryFixes, verifiedFixes } from "../../src/judge/check/verify";
import type { Fix } from "../../src/judge/check/rule";
import type { Edit } from "../../src/song/edits";
import { edit, songWith } from "../helpers";

/** A bass that holds a foreign note over a whole bar: one finding, with its place. */
const song = songWith({ line: "| C | F |", bass: ["0 C#2 4", "4 F2 4"] });
const finding = sure(checkSong(song).find((f) => f.rule === "long-outside"));
const ids = finding.places.map((p) => p.id);
const bassNote = sure(firstOf(song.sections).notes.bass?.[0]).id;
const fixOf = (label: string, edit: Edit): Fix => ({ label, edit });
const pitched = (pitch: string): Fix =>
  fixOf(`to ${pitch}`, { do: "changeNotes", section: "s1", part: "bass", notes: [{ id: bassNote, pitch }] });

const softer = fixOf("softer", {
  do: "changeNotes",
  section: "s1",
  part: "bass",
  notes: [{ id: bassNote, velocity: 40 }],
});

test("a fix mends only what is gone after it; what cannot be made mends nothing", () => {
  const fixes = [
    pitched("C2"),
    softer,
    fixOf("another tempo", { do: "setTempo", tempo: 99 }),
    fixOf("nobody's note", { do: "removeNotes", section: "s1", part: "bass", notes: ["nobody"] }),
  ];
  expect(tryFixes(song, finding, { fixes, ids }).map((t) => t.mends)).toEqual([true, false, false, false]);
});

test("a fault that is still there with other pitches is not mended", () => {
  expect(
    tryFixes(song, finding, { fixes: [pitched("Db2"), pitched("D2"), pitched("E2")], ids }).map((t) => t.mends),
  ).toEqual([false, false, true]);
});

test("no fix takes the third from a chord or asks for what cannot be played, however lightly the school weighs that", () => {
  const bare = songWith({ line: "| C |", melody: ["0 E4 4"], bass: ["0 C2 4"] });
  const keyed = edit(bare, {
    do: "pinVoicing",
    section: "s1",
    part: "keys",
    chord: firstOf(firstOf(bare.sections).chords).id,
    pitches: ["C3", "G3", "C4"],
  });
  const tune = sure(firstOf(keyed.sections).notes.melody?.[0]).id;
  const to = (pitch: string) =>
    fixOf(pitch, { do: "changeNotes", section: "s1", part: "melody", notes: [{ id: tune, pitch }] });
  expect(tryFixes(keyed, finding, { fixes: [to("G4"), to("E5"), to("E7")], ids: [] }).map((t) => t.brings)).toEqual([
    expect.stringContaining("Nobody has E"),
    null,
    expect.stringContaining("outside the range"),
  ]);
});

test("what a fix brings is told where it is as bad, and then the fix is not verified", () => {
  // A major seventh in the bass, held under its root for a bar, is another long note outside.
  const moved = fixOf("the same fault a bar later", {
    do: "all",
    label: "moved",
    edits: [
      pitched("C2").edit,
      { do: "changeNotes", section: "s1", part: "bass", notes: [{ id: other(), pitch: "F#2" }] },
    ],
  });
  const [good, bad] = tryFixes(song, finding, { fixes: [pitched("C2"), moved], ids });
  expect([good?.mends, good?.brings, bad?.mends]).toEqual([true, null, true]);
  expect(bad?.brings).toMatch(/F#2/);
  const place = { ...firstOf(finding.places), fixes: [pitched("C2"), moved, softer] };
  expect(verifiedFixes(song, finding, place).map((f) => f.label)).toEqual(["to C2"]);
});

function other(): string {
  return sure(firstOf(song.sections).notes.bass?.[1]).id;
}

test("mending what is safe goes place by place, says how far it is, and can be stopped with nothing changed", () => {
  const bars = 6;
  const many = edit(songWith({ line: `|${" C |".repeat(bars)}` }), { do: "setSection", section: "s1", bars });
  const notes = Array.from({ length: bars }, (_, b) => ({
    start: b * 1920,
    duration: 1920,
    pitch: "C#2",
    velocity: 90,
  }));
  const faulty = edit(many, { do: "setNotes", section: "s1", part: "bass", notes });
  const found = checkSong(faulty).filter((f) => f.rule === "long-outside");
  const ids = found.map((f) => f.id);
  const of = found.reduce((sum, f) => sum + f.places.length, 0);
  const steps = safeSteps(faulty, "s1", ids);
  const told: number[] = [];
  let now = steps.next();
  for (; !now.done; now = steps.next()) {
    expect(now.value.of).toBe(of);
    told.push(now.value.done);
  }
  expect(told).toEqual(told.toSorted((a, b) => a - b));
  expect(Math.max(...told)).toBeLessThan(of);
  expect(now.value).toEqual(safeFixes(faulty, "s1", ids));
  expect(now.value.steps.length + now.value.left).toBeGreaterThan(0);
  const before = JSON.stringify(faulty);
  const stopped = safeSteps(faulty, "s1", ids);
  stopped.next();
  expect(stopped.next(false)).toEqual({ done: true, value: { steps: [], edit: null, left: of } });
  expect(JSON.stringify(faulty)).toBe(before);
});
