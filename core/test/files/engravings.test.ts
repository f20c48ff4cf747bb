import { headsOf } from "./heads";
import { nth, sure } from "../../src/base/list";
import fc from "fast-check";
import { engrave, type EngravedPart } from "../../src/files/notation/engrave";
import { must } from "../../src/base/result";
import { pitchMidi } from "../../src/theory/pitch/pitch";
import type { EngravedChord } from "../../src/files/notation/staff";
import { ENGRAVINGS } from "./engravings";
import { edit, songWith } from "../helpers";

const songOf = (meter: string, notes: readonly string[], bars: number) =>
  edit(
    songWith({ meter, melody: [] }),
    { do: "setSection", section: "s1", bars },
    { do: "setNotes", section: "s1", part: "melody", notes: written(notes) },
  );
const written = (notes: readonly string[]) =>
  notes.map((text) => {
    const [beat, pitch, beats] = text.split(" ");
    return {
      start: Math.round(Number(beat) * 480),
      duration: Math.round(Number(beats) * 480),
      pitch: sure(pitch),
      velocity: 90,
    };
  });
const sign = (c: EngravedChord) => ({ staccato: "'", tenuto: "_" })[c.articulation ?? ("" as never)] ?? "";
const textOf = (bar: readonly EngravedChord[]) =>
  bar.map((c) => [headsOf(c), ":", c.value, ".".repeat(c.dots), c.triplet ? "t" : "", sign(c)].join("")).join(" ");

test.each(ENGRAVINGS)("%s (%s)", (_, meter, notes, expected) => {
  const bars = expected.split(" | ").length;
  const [staff] = must(engrave(songOf(meter, notes, bars), "s1", "melody")).staves;
  const found = sure(staff).measures.map(
    (bar, k) => textOf(bar) + (nth(sure(staff).second, k).length ? ` // ${textOf(nth(sure(staff).second, k))}` : ""),
  );
  expect(found.join(" | ")).toBe(expected);
});

const METERS = ["4/4", "3/4", "6/8", "7/8", "12/8", "5/4", "2/4"] as const;
const LENGTH: Record<string, number> = { "4/4": 4, "3/4": 3, "6/8": 3, "7/8": 3.5, "12/8": 6, "5/4": 5, "2/4": 2 };
/** Notes anywhere on a sixteenth or triplet grid, of any length, several at once. */
const music = fc.record({
  meter: fc.constantFrom(...METERS),
  notes: fc.array(
    fc.record({
      at: fc.integer({ min: 0, max: 200 }),
      third: fc.boolean(),
      length: fc.integer({ min: 30, max: 3000 }),
      pitch: fc.integer({ min: 55, max: 84 }),
    }),
    { minLength: 1, maxLength: 24 },
  ),
});
const NAMES = ["C", "C#", "D", "Eb", "E", "F", "F#", "G", "Ab", "A", "Bb", "B"];

test(
  "every voice fills every bar, its values are what they say, each attack is written once and in its place, ties " +
    "join equal pitches",
  () => {
    fc.assert(
      fc.property(music, ({ meter, notes }) => {
        const length = sure(LENGTH[meter]) * 480 * 3;
        const own = notes
          .map(({ at, third, length: duration, pitch }) => {
            // Thirds in one half of the beats, so that no beat mixes grids.
            const beat = Math.floor(at / 4);
            const start =
              third && meter.endsWith("4") && beat % 2
                ? beat * 480 + (at % 3) * 160
                : beat * 480 + (at % 4) * 120 * (beat % 2 && third ? 0 : 1);
            return { start, duration, pitch: `${NAMES[pitch % 12]}${Math.floor(pitch / 12) - 1}`, velocity: 90 };
          })
          .filter((n) => n.start < length - 60);
        if (!own.length) return;
        const song = edit(
          songWith({ meter, melody: [] }),
          { do: "setSection", section: "s1", bars: 3 },
          { do: "setNotes", section: "s1", part: "melody", notes: own },
        );
        const part = must(engrave(song, "s1", "melody"));
        const attacks = attacksOf(part);
        // What is struck twice at once, or again while it sounds, may be written once.
        for (const n of own)
          expect([
            n.start,
            n.pitch,
            attacks.some((a) => Math.abs(a.start - n.start) <= 60 && a.midi === pitchMidi(n.pitch)),
          ]).toEqual([n.start, n.pitch, true]);
        for (const staff of part.staves)
          for (const voice of [staff.measures, staff.second])
            voice.forEach((bar, k) => {
              if (!bar.length) return;
              expect(bar.reduce((sum, c) => sum + c.ticks, 0)).toBe(sure(LENGTH[meter]) * 480);
              let at = k * sure(LENGTH[meter]) * 480;
              for (const c of bar) {
                expect(c.start).toBe(at);
                at += c.ticks;
                const plain = { w: 1920, h: 960, q: 480, "8": 240, "16": 120, "32": 60 }[c.value];
                if (c.notes.length || bar.length > 1)
                  expect(c.ticks).toBe(((plain * (c.dots ? 3 : 2)) / 2) * (c.triplet ? 2 / 3 : 1));
              }
            });
      }),
      { numRuns: 150, seed: 7 },
    );
  },
);

/** What is struck: notes that no tie leads into. */
function attacksOf(part: EngravedPart): { start: number; midi: number }[] {
  return part.staves.flatMap((staff) =>
    [staff.measures.flat(), staff.second.flat()].flatMap((voice) => {
      let held = new Set<number>();
      return voice.flatMap((c) => {
        const struck = c.notes.filter((n) => !held.has(n.midi)).map((n) => ({ start: c.start, midi: n.midi }));
        held = new Set(c.notes.filter((n) => n.tied).map((n) => n.midi));
        return struck;
      });
    }),
  );
}
