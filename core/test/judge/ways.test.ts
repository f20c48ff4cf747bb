import { firstOf, nth, sure } from "../../src/base/list";
import { random } from "../../src/base/random";
import { checkSong } from "../../src/judge/check/check";
import { tryFixes } from "../../src/judge/check/verify";
import type { Finding } from "../../src/judge/check/rule";
import type { Song } from "../../src/song/schema/song";
import { edit, songWith } from "../helpers";
import { playedBy } from "./ensembles";
import { band } from "./lines";
import { cleanSong, counts, FORMS, INJECTORS, shiftsOf } from "./putFaults";

/** A quartet in notes "beat pitch beats": the violin has the tune. */
const quartet = (line: string, parts: Record<"Violin" | "Second" | "Viola" | "Cello", string[]>): Song => ({
  ...band(line, {
    Violin: ["melody", "violin", parts.Violin],
    Second: ["counter", "violin", parts.Second],
    Viola: ["counter", "viola", parts.Viola],
    Cello: ["bass", "cello", parts.Cello],
  }),
  profile: "chorale",
});
const halves = (text: string): string[] => text.split(" ").map((pitch, i) => `${2 * i} ${pitch} 2`);
const found = (song: Song, rule: string): Finding => sure(checkSong(song).find((f) => f.rule === rule));
const labels = (song: Song, rule: string): string[] => found(song, rule).fixes.map((f) => f.label);

test("the first way out of planted faults mends, and brings nothing as bad; hardly any fault is without one", () => {
  const next = random(19);
  const pick = (n: number) => Math.floor(next() * n);
  let [places, without, tried, clean] = [0, 0, 0, 0];
  for (const [form] of FORMS.slice(0, 4).entries()) {
    const { song, parts } = cleanSong(form, firstOf(shiftsOf(form)));
    for (const put of Object.values(INJECTORS)) {
      const faulty = put({ song, parts, pick });
      const played = faulty && playedBy(faulty.song, parts, "strings");
      for (const f of played ? checkSong(played, { profile: "chorale" }).filter(counts) : [])
        for (const place of f.places) {
          places++;
          if (!place.fixes.length) without++;
          const fixes = place.fixes.slice(0, 1);
          const [first] = tryFixes({ ...sure(played), profile: "chorale" }, f, { fixes, ids: [place.id] });
          if (first) tried++;
          if (first?.mends && first.brings === null) clean++;
        }
    }
  }
  expect(places).toBeGreaterThan(60);
  expect(without / places).toBeLessThan(0.05);
  expect(clean / tried).toBeGreaterThan(0.88);
});

test("the tune is moved last, though it would go less far", () => {
  // Octaves between the violin and the viola: the violin could go a step, the viola has to go further.
  const song = quartet("| C F |", {
    Violin: halves("E5 F5"),
    Second: halves("C5 C5"),
    Viola: halves("E4 F4"),
    Cello: halves("C3 F2"),
  });
  const ways = found(song, "voice-parallels").fixes.map((f) => f.label);
  expect(ways[0]).toMatch(/^Viola: /);
  expect(ways.slice(0, ways.findIndex((w) => w.startsWith("Violin")) + 1 || ways.length).length).toBeGreaterThan(1);
});

test("a note that a person has pinned is not moved", () => {
  const song = quartet("| C F |", {
    Violin: halves("E5 F5"),
    Second: halves("C5 C5"),
    Viola: halves("G4 A4"),
    Cello: halves("G2 A2"),
  });
  const free = labels(song, "voice-parallels");
  expect(free.some((l) => l.startsWith("Cello: "))).toBe(true);
  const cello = sure(song.parts.find((p) => p.name === "Cello")).id;
  const pinned = edit(song, {
    do: "changeNotes",
    section: "s1",
    part: cello,
    notes: sure(firstOf(song.sections).notes[cello]).map((n) => ({ id: n.id, pinned: true })),
  });
  expect(labels(pinned, "voice-parallels").some((l) => l.includes("Cello"))).toBe(false);
});

/** A viola that goes above the second violin for a phrase of so many eighths, and is below it for long after. */
const crossing = (notes: number): Song => {
  const [after, bars] = [4 * Math.ceil(notes / 8), 5 * Math.ceil(notes / 8)];
  const held = (pitch: string) => Array.from({ length: bars }, (_, b) => `${4 * b} ${pitch} 4`);
  const below = Array.from({ length: 8 * after }, (_, i) => `${4 * (bars - after) + i / 2} ${i % 2 ? "G3" : "A3"} 0.5`);
  return quartet(`|${" C6 |".repeat(bars)}`, {
    Violin: held("C5"),
    Second: Array.from({ length: 4 * bars }, (_, b) => `${b} E4 1`),
    // A rest of a beat parts the phrase from what follows.
    Viola: [...Array.from({ length: notes }, (_, i) => `${i / 2} ${i % 2 ? "A4" : "G4"} 0.5`), ...below.slice(4)],
    Cello: held("C3"),
  });
};

test("a phrase of up to sixteen notes goes to another octave as a whole, a longer one does not", () => {
  expect(labels(crossing(16), "voice-crossing")).toContain("This phrase of Viola an octave lower");
  expect(labels(crossing(17), "voice-crossing")).not.toContain("This phrase of Viola an octave lower");
});

test("two that cross exchange all their notes there, where those are of one rhythm", () => {
  const parts = {
    Violin: halves("G5 G5 G5 G5"),
    Second: halves("E4 C4 D4 E4"),
    Viola: halves("C4 E4 F4 C4"),
    Cello: halves("C3 C3 G2 C3"),
  };
  const both = "Exchange the two while they cross";
  expect(labels(quartet("| C | G7 |", { ...parts, Violin: halves("G5 G5 B5 C6") }), "voice-crossing")).toContain(both);
  const other = { ...parts, Viola: ["0 C4 2", "2 E4 2", "4 F4 1", "5 F4 1", "6 C4 2"] };
  expect(labels(quartet("| C | G7 |", other), "voice-crossing")).not.toContain(both);
});

test("what resolves a seventh comes before what takes it away", () => {
  const song = quartet("| G7 C |", {
    Violin: halves("B4 C5"),
    Second: halves("F4 G4"),
    Viola: halves("D4 C4"),
    Cello: halves("G2 C3"),
  });
  expect(firstOf(labels(song, "seventh"))).toBe("Second: G4 to E4");
});

/** A piano with one layout for each chord, under a tune. */
const piano = (line: string, layouts: string[], melody: string[]): Song =>
  layouts.reduce(
    (song, pitches, i) =>
      edit(song, {
        do: "pinVoicing",
        section: "s1",
        part: "keys",
        chord: nth(firstOf(song.sections).chords, i).id,
        pitches: pitches.split(" "),
      }),
    songWith({ line, melody }),
  );

test("a tone of a chord moves in its layout, as far as the hands reach", () => {
  const song = {
    ...piano("| F | G7 |", ["F2 A3 C4 F4", "G2 B3 D4 F4"], ["0 C5 4", "4 D5 4"]),
    profile: "chorale" as const,
  };
  const all = checkSong(song).filter((f) => f.where.parts.includes("keys"));
  const fixes = all.flatMap((f) => f.fixes.filter((x) => x.edit.do === "pinVoicing"));
  expect(fixes.length).toBeGreaterThan(0);
  for (const f of all)
    for (const t of tryFixes(song, f, { fixes: f.fixes, ids: f.places.map((p) => p.id) }))
      expect(t.brings ?? "").not.toMatch(/cannot be held/);
});

test("who plays another third than is written plays the written one, in every part at once", () => {
  const song = songWith({ line: "| C |", melody: ["0 Eb5 4"], bass: ["0 C2 4"] });
  const wrong = edit(song, {
    do: "pinVoicing",
    section: "s1",
    part: "keys",
    chord: firstOf(firstOf(song.sections).chords).id,
    pitches: ["C3", "Eb4", "G4"],
  });
  const finding = found(wrong, "other-chord");
  const way = sure(finding.fixes.find((f) => f.label === "Play E as written"));
  const after = edit(wrong, way.edit);
  expect(firstOf(firstOf(after.sections).chords).voicings?.keys?.pitches.toSorted()).toEqual(["C3", "E4", "G4"]);
  expect(after.sections[0]?.notes.melody?.[0]?.pitch).toBe("E5");
  expect(checkSong(after).some((f) => f.rule === "other-chord")).toBe(false);
});

test("a line of which three notes lie too high is offered an octave lower as a whole, where none would be too low", () => {
  const flute = (...notes: string[]) =>
    band("| C | C |", { Flute: ["counter", "flute", notes], Bass: ["bass", "bassGuitar", ["0 C2 4"]] });
  const whole = (song: Song) => found(song, "out-of-range").forAll.map((f) => f.label);
  const lower = "All of Flute in Verse an octave lower";
  expect(whole(flute("0 E7 1", "1 G7 1", "2 E7 1", "3 C7 1"))[0]).toBe(lower);
  expect(whole(flute("0 E7 1", "1 G7 1", "2 C7 1"))).not.toContain(lower);
  expect(whole(flute("0 E7 1", "1 G7 1", "2 E7 1", "3 C5 1"))[0]).toBe(lower);
  // B4 an octave lower is B3, below the flute's C4.
  expect(whole(flute("0 E7 1", "1 G7 1", "2 E7 1", "3 B4 1"))).not.toContain(lower);
  const song = flute("0 E7 1", "1 G7 1", "2 E7 1", "3 C7 1");
  const after = edit(song, sure(found(song, "out-of-range").forAll[0]).edit);
  expect(checkSong(after).some((f) => f.rule === "out-of-range")).toBe(false);
});
