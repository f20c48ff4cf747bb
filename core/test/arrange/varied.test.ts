import { sure } from "../../src/base/list";
import { must } from "../../src/base/result";
import { stepHits, withVariation } from "../../src/arrange/groove/patterns";
import { parseMeter } from "../../src/theory/time/meter";

test("hats are louder off the beat and softer on it in every second pass, and their sum stays in MIDI's range", () => {
  const hits = Array.from({ length: 32 }, (_, i) => ({ start: i * 240, velocity: i < 16 ? 80 : 124 }));
  const meter = must(parseMeter("4/4"));
  const [lane] = withVariation([{ drum: "closedHat", hits }], meter, 1, { length: 2 * 1920, seed: 1 });
  const at = (start: number) => sure(sure(lane).hits.find((h) => h.start === start)).velocity;
  expect([at(0), at(240), at(1680)]).toEqual([80, 80, 80]);
  expect([at(1920), at(1920 + 240)]).toEqual([72, 90]);
});

/** What a kick lane of one bar becomes in its second pass, over many seeds: how many hits go, and where some come. */
function secondPass(hits: readonly { start: number; velocity: number }[]): { gone: boolean; added: number[] } {
  const meter = must(parseMeter("4/4"));
  const twice = [...hits, ...hits.map((h) => ({ ...h, start: h.start + meter.bar }))];
  const found = Array.from({ length: 24 }, (_, seed) => {
    const [lane] = withVariation([{ drum: "kick", hits: twice }], meter, 1, { length: 2 * meter.bar, seed });
    return sure(lane).hits.filter((h) => h.start >= meter.bar);
  });
  const own = new Set(hits.map((h) => h.start + meter.bar));
  return {
    gone: found.some((f) => f.length < hits.length),
    added: [...new Set(found.flatMap((f) => f.map((h) => h.start).filter((t) => !own.has(t))))].map((t) => t % 1920),
  };
}

test("a hit below 96 is soft and may be left out, where it is not the only one; an accent stays", () => {
  const with2 = (velocity: number) =>
    secondPass([
      { start: 0, velocity: 110 },
      { start: 720, velocity },
      { start: 1200, velocity },
    ]);
  expect([with2(95).gone, with2(96).gone]).toEqual([true, false]);
  const with1 = secondPass([
    { start: 0, velocity: 110 },
    { start: 720, velocity: 80 },
  ]);
  expect(with1.gone).toBe(false);
});

test("a hit is added a sixteenth or more from the others and off the beat, nowhere else", () => {
  const every = (first: number) => Array.from({ length: 8 }, (_, i) => ({ start: first + i * 240, velocity: 110 }));
  const { added } = secondPass(every(0));
  expect(added.length).toBeGreaterThan(0);
  expect(added.every((t) => t % 240 === 120)).toBe(true);
  expect(secondPass(every(1)).added).toEqual([]);
});

test("steps fill a length and no more: what would begin at its end belongs to what follows", () => {
  const starts = (length: number) => stepHits([true, false], 240, length, 80).map((h) => h.start);
  expect(starts(1920)).toEqual([0, 480, 960, 1440]);
  expect(starts(1921)).toEqual([0, 480, 960, 1440, 1920]);
  // The first of the figure a little louder, within MIDI's range.
  expect(stepHits([true, true], 240, 480, 80).map((h) => h.velocity)).toEqual([92, 80]);
  expect(stepHits([true], 240, 240, 120).map((h) => h.velocity)).toEqual([127]);
});
