import { firstOf, lastOf, nth, sure } from "../../src/base/list";
import { applyEdit } from "../../src/song/edits";
import { checkSong, severityOf } from "../../src/judge/check/check";
import { must } from "../../src/base/result";
import { parseSong } from "../../src/song/document";
import { RULES } from "../../src/judge/check/rules";
import type { Finding } from "../../src/judge/check/rule";
import type { Song } from "../../src/song/schema/song";
import { edit, songWith } from "../helpers";
import { withLines } from "./lines";

const of = (song: Song, rule: string): Finding[] => checkSong(song).filter((f) => f.rule === rule);

/** A voice that is too high in each of so many bars. */
const tooHigh = (bars: number): Song =>
  edit(songWith({ line: `| ${Array.from({ length: bars }, () => "C").join(" | ")} |` }), {
    do: "setNotes",
    section: "s1",
    part: "melody",
    notes: Array.from({ length: bars }, (_, b) => ({ start: b * 1920, duration: 480, pitch: "C6", velocity: 80 })),
  });

describe("the same fault of one part", () => {
  test("is one finding with its places in order, one fix for each and one for all", () => {
    const song = tooHigh(64);
    const [found, ...more] = checkSong(song);
    expect([sure(found).rule, more]).toEqual(["out-of-range", []]);
    expect(sure(found).places.map((p) => p.tick)).toEqual(Array.from({ length: 64 }, (_, b) => b * 1920));
    expect(sure(found).amount).toBe("64 places");
    expect(new Set(sure(found).places.map((p) => p.id)).size).toBe(64);
    expect(sure(found).where.notes).toHaveLength(64);
    const all = lastOf(sure(found).fixes);
    expect(checkSong(edit(song, all.edit))).toEqual([]);
    expect(firstOf(of(edit(song, firstOf(nth(sure(found).places, 3).fixes).edit), "out-of-range")).places).toHaveLength(
      63,
    );
  });

  test("let stand in one place is open in the others; let stand in all it is listed apart; lifted it is open again", () => {
    const song = tooHigh(4);
    const [found] = checkSong(song);
    const one = edit(song, { do: "waive", finding: nth(sure(found).places, 1).id, reason: "a shout" });
    const [open, waived] = of(one, "out-of-range");
    expect([
      sure(open).places.length,
      sure(open).waived,
      sure(waived).places.map((p) => p.tick),
      sure(waived).waived,
    ]).toEqual([3, undefined, [1920], "a shout"]);
    // What is let stand outlives an edit that leaves the matter as it was, and not one that changes it.
    const louder = (velocity: number, pitch: string) =>
      edit(one, {
        do: "changeNotes",
        section: "s1",
        part: "melody",
        notes: [{ id: nth(sure(firstOf(one.sections).notes.melody), 1).id, velocity, pitch }],
      });
    expect(of(louder(100, "C6"), "out-of-range").filter((f) => f.waived)).toHaveLength(1);
    expect(of(louder(100, "D6"), "out-of-range").filter((f) => f.waived)).toHaveLength(0);
    const lifted = edit(one, { do: "unwaive", waiver: firstOf(one.waivers).id });
    expect(firstOf(of(lifted, "out-of-range")).places).toHaveLength(4);
    const whole = edit(song, {
      do: "waive",
      rule: "out-of-range",
      section: "s1",
      parts: ["melody"],
      reason: "falsetto",
    });
    expect(of(whole, "out-of-range").map((f) => [f.waived, f.places.length])).toEqual([["falsetto", 4]]);
  });

  test("of two pairs is two findings", () => {
    const song = edit(
      withLines("| C | D |", { Tune: ["0 G4 4", "4 A4 4"], Alto: ["0 C4 4", "4 D4 4"], Tenor: ["0 G3 4", "4 A3 4"] }),
      {
        do: "setProfile",
        profile: "chorale",
      },
    );
    const pairs = of(song, "voice-parallels").map((f) => f.where.parts.length);
    expect(pairs.length).toBeGreaterThan(1);
    expect(new Set(of(song, "voice-parallels").map((f) => [...f.where.parts].sort().join())).size).toBe(pairs.length);
  });
});

describe("order", () => {
  test("graver first; of one severity what lasts, is loud, on the beat and often is noticed more", () => {
    const weight = (notes: { start: number; duration: number; velocity: number }[]) =>
      firstOf(
        of(
          edit(songWith({ line: "| C | C | C |" }), {
            do: "setNotes",
            section: "s1",
            part: "melody",
            notes: notes.map((n) => ({ ...n, pitch: "C6" })),
          }),
          "out-of-range",
        ),
      ).weight;
    const usual = { start: 0, duration: 480, velocity: 80 };
    expect(weight([{ ...usual, duration: 960 }])).toBeGreaterThan(weight([usual]));
    expect(weight([{ ...usual, velocity: 110 }])).toBeGreaterThan(weight([usual]));
    expect(weight([usual])).toBeGreaterThan(weight([{ ...usual, start: 240 }]));
    expect(weight([usual, { ...usual, start: 1920 }])).toBeGreaterThan(weight([usual]));
    const song = edit(songWith({ line: "| C | F |", bass: ["0 C#2 4", "4 F2 2"], melody: ["0 C6 1"] }));
    const ranks = checkSong(song).map((f) => ["fault", "warning", "note"].indexOf(f.severity));
    expect(ranks).toEqual([...ranks].sort());
    expect(ranks.length).toBeGreaterThan(1);
  });
});

describe("how grave a rule is in a song", () => {
  const song = tooHigh(2);
  test("is what the school has, unless the song says otherwise; nothing else changes", () => {
    expect(firstOf(of(song, "out-of-range")).severity).toBe("fault");
    const set = edit(song, { do: "setSeverity", rule: "out-of-range", severity: "note" });
    expect(firstOf(of(set, "out-of-range")).severity).toBe("note");
    for (const profile of ["chorale", "band", "jazz", "loop"] as const)
      expect(severityOf(sure(RULES.find((r) => r.id === "out-of-range")), { ...set, profile })).toBe("note");
    const off = edit(set, { do: "setSeverity", rule: "out-of-range", severity: "off" });
    expect(of(off, "out-of-range")).toEqual([]);
    expect(must(parseSong(JSON.parse(JSON.stringify(off))))).toEqual(off);
    expect(edit(off, { do: "setSeverity", rule: "out-of-range", severity: null })).toEqual({ ...song });
    expect({ ...off, severities: undefined }).toEqual({ ...song, severities: undefined });
    expect(applyEdit(song, { do: "setSeverity", rule: "", severity: "off" }).ok).toBe(false);
  });

  test("every rule has a family, a title of its own and an explanation one can read", () => {
    expect(new Set(RULES.map((r) => r.id)).size).toBe(RULES.length);
    expect(new Set(RULES.map((r) => r.title)).size).toBe(RULES.length);
    for (const r of RULES) expect([r.id, r.explanation.length > 60, r.source.length > 5]).toEqual([r.id, true, true]);
  });
});

describe("a tone outside the chord", () => {
  const both = (alto: string, beats = 2) =>
    of(
      withLines("| C |", { Tune: ["0 F#5 2", "2 G5 2"], Alto: [`0 ${alto} ${beats}`, `${beats} G4 ${4 - beats}`] }),
      "long-outside",
    );

  test("that several have at one time, in whatever octave, is one matter with one way out; other tones are others", () => {
    const [one, ...more] = both("F#4");
    expect([more, one?.where.parts.length, one?.where.notes.length]).toEqual([[], 2, 2]);
    expect(sure(one).message).toMatch(/^(Tune and Alto|Alto and Tune): F# under C is the/);
    expect(sure(one).fixes.length).toBeGreaterThan(0);
    expect(both("C#4")).toHaveLength(2);
    expect(both("F#4", 3)).toHaveLength(2);
  });
});

test("of places to breathe three are named, of more how many there are", () => {
  const label = (bars: number): string => {
    const line = `| ${"C | ".repeat(bars)}`;
    const melody = Array.from({ length: bars * 4 }, (_, i) => `${i} C5 1`);
    const song = edit(songWith({ line, melody }), { do: "setPart", part: "melody", instrument: "soprano" });
    const found = sure(checkSong({ ...song, tempo: 120 }).find((f) => f.rule === "breath"));
    return firstOf(found.fixes).label;
  };
  // A bar lasts two seconds and a breath four of them: sixteen bars want three breaths, seventeen four.
  expect(label(16).split("; ")).toHaveLength(3);
  expect(label(16)).not.toMatch(/more/);
  expect(label(17).split("; ")).toHaveLength(4);
  expect(label(17)).toMatch(/^Breathe after .*; and at 1 more place$/);
});
