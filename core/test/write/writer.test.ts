import { firstOf, nth } from "../../src/base/list";
import fc from "fast-check";
import { gapsOf } from "../../src/hear/line/tune";
import { must } from "../../src/base/result";
import { parseMeter } from "../../src/theory/time/meter";
import type { Note } from "../../src/song/schema/material";
import { isRub as rubs } from "../../src/hear/line/between";
import { soundingIn } from "../../src/hear/slice/soundingIn";
import { figureLikeness, attackProfile, halfOf, noise } from "../../src/hear/line/figure";
import { distinctRhythms, withPins } from "../../src/write/lines/slots";
import { causesOf, missesOf, rowsOf, takeAll, type Links, type MeasureOf } from "../../src/write/lines/measure";

const pin = (start: number, duration: number): Note => ({
  id: `p${start}`,
  start,
  duration,
  pitch: "D5",
  velocity: 80,
  pinned: true,
});

describe("pins among slots", () => {
  const slots = [0, 480, 960, 1440].map((start) => ({ start, duration: 480 }));
  const placed = (...pins: Note[]) =>
    withPins(slots, pins, (p) => ({ start: p.start, duration: p.duration })).map((s) => [
      s.start,
      s.duration,
      s.pinMidi ?? null,
    ]);
  test("a pin takes its place; what it covers gives way, what runs into it ends there", () => {
    expect(placed(pin(480, 480))).toEqual([
      [0, 480, null],
      [480, 480, 74],
      [960, 480, null],
      [1440, 480, null],
    ]);
    expect(placed(pin(240, 960))).toEqual([
      [0, 240, null],
      [240, 960, 74],
      [1440, 480, null],
    ]);
    expect(placed(pin(1200, 240))).toEqual([
      [0, 480, null],
      [480, 480, null],
      [960, 240, null],
      [1200, 240, 74],
      [1440, 480, null],
    ]);
    expect(placed()).toEqual(slots.map((s) => [s.start, s.duration, null]));
  });
  test("whatever the pins: in order, none lost, no free slot sounds into one", () => {
    const where = fc.uniqueArray(fc.integer({ min: 0, max: 15 }), { maxLength: 5 });
    fc.assert(
      fc.property(where, (places) => {
        const pins = places.sort((a, b) => a - b).map((p) => pin(p * 120, 120));
        const out = withPins(slots, pins, (p) => ({ start: p.start, duration: p.duration }));
        expect(out.filter((s) => s.pin).map((s) => s.start)).toEqual(pins.map((p) => p.start));
        out.slice(1).forEach((s, i) => {
          expect(s.start).toBeGreaterThanOrEqual(nth(out, i).start);
          if (s.pin) expect(nth(out, i).start + nth(out, i).duration).toBeLessThanOrEqual(s.start);
        });
      }),
      { seed: 5, numRuns: 200 },
    );
  });
});

test("plans are kept once, in the order in which they come up", () => {
  const plans = distinctRhythms(6, (i) => (i === 3 ? [] : [{ start: (i % 2) * 240, duration: 480 }]));
  expect(plans.map((p) => firstOf(p).start)).toEqual([0, 240]);
});

test("what sounds is found as by looking at every note", () => {
  const note = fc.record({ start: fc.integer({ min: -480, max: 7000 }), duration: fc.integer({ min: 1, max: 3000 }) });
  fc.assert(
    fc.property(
      fc.array(note, { maxLength: 30 }),
      fc.integer({ min: -480, max: 8000 }),
      fc.integer({ min: 1, max: 4000 }),
      (notes, from, span) => {
        const found = soundingIn(notes, 1920);
        const sort = <T extends { start: number; duration: number }>(list: T[]) =>
          [...list].sort((a, b) => a.start - b.start || a.duration - b.duration);
        expect(sort(found.at(from))).toEqual(sort(notes.filter((n) => n.start <= from && from < n.start + n.duration)));
        expect(sort(found.within(from, from + span))).toEqual(
          sort(notes.filter((n) => n.start < from + span && n.start + n.duration > from)),
        );
      },
    ),
    { seed: 21, numRuns: 300 },
  );
});

describe("gaps of a tune", () => {
  const meter = must(parseMeter("4/4"));
  const gaps = (...notes: [number, number][]) =>
    gapsOf(
      notes.map(([start, duration]) => ({ start: start * 480, duration: duration * 480 })),
      meter,
      8 * 480,
    ).map((g) => [g.from / 480, g.to / 480]);
  test("silences of a beat or more, at both ends as well; a pickup ends the last one", () => {
    expect(gaps([0, 2], [3, 1], [4.5, 2])).toEqual([
      [2, 3],
      [6.5, 8],
    ]);
    expect(gaps([2, 6])).toEqual([[0, 2]]);
    expect(gaps([-1, 1], [0, 5])).toEqual([[5, 7]]);
    expect(gaps([0, 7.5])).toEqual([]);
    expect(gaps()).toEqual([]);
  });
  test("no gap and no note share a moment, and what is in neither is shorter than a beat", () => {
    const step = fc.record({ rest: fc.integer({ min: 0, max: 6 }), length: fc.integer({ min: 1, max: 6 }) });
    fc.assert(
      fc.property(fc.array(step, { minLength: 1, maxLength: 8 }), (steps) => {
        let at = 0;
        const notes = steps.map(({ rest, length }) => {
          const start = at + rest * 120;
          at = start + length * 120;
          return { start, duration: length * 120 };
        });
        const length = Math.ceil(at / meter.bar) * meter.bar;
        const found = gapsOf(notes, meter, length);
        for (const g of found) {
          expect(g.to - g.from).toBeGreaterThanOrEqual(480);
          expect(notes.some((n) => n.start < g.to && n.start + n.duration > g.from)).toBe(false);
        }
        const silent =
          length - notes.reduce((sum, n) => sum + n.duration, 0) - found.reduce((sum, g) => sum + g.to - g.from, 0);
        expect(silent).toBeLessThanOrEqual((notes.length + 1) * 479);
      }),
      { seed: 9, numRuns: 200 },
    );
  });
});

test("a semitone and a minor ninth rub; a major seventh, an octave and a tone do not (arranging handbooks)", () => {
  const table: [number, number, boolean][] = [
    [60, 61, true],
    [61, 60, true],
    [60, 73, true],
    [60, 71, false],
    [60, 72, false],
    [60, 62, false],
    [60, 60, false],
    [60, 85, false],
  ];
  for (const [a, b, is] of table) expect([a, b, rubs(a, b)]).toEqual([a, b, is]);
});

test(
  "rhythm figures: half beats on the grid, profiles by sixteenths, likeness from 0 to 1, chance that is the same " +
    "every time",
  () => {
    expect([halfOf(480), halfOf(720), halfOf(960)]).toEqual([240, 480, 480]);
    const straight = attackProfile([0, 480, 960, 1440, 1920], 1920, 2);
    expect(straight.filter((x) => x > 0)).toEqual([1, 0.5, 0.5, 0.5]);
    expect([
      figureLikeness(straight, straight),
      figureLikeness(straight, attackProfile([240], 1920, 1)),
      figureLikeness([], []),
    ]).toEqual([1, 0, 0]);
    expect(noise(4, 7)).toBe(noise(4, 7));
    const values = Array.from({ length: 400 }, (_, i) => noise(3, i));
    expect([Math.min(...values) >= 0, Math.max(...values) < 1]).toEqual([true, true]);
    expect(Math.abs(values.reduce((a, b) => a + b, 0) / 400 - 0.5)).toBeLessThan(0.06);
  },
);

describe("measures", () => {
  interface Report extends Links {
    count: number;
    high: number;
  }
  type M = MeasureOf<number[], Report, { count: number }, { most: number }, string>;
  const high: M = {
    id: "high",
    title: "Highest",
    unit: "notes",
    how: "the greatest",
    take: (list) => ({ high: Math.max(0, ...list) }) as Report,
    notes: (list) => list.filter((x) => x === Math.max(...list)).map(String),
    show: (own) => (own.count ? String(own.high) : null),
    target: (own, { most }) => [`${most} at most`, own.high <= most],
    cause: (_ctx, line, own) => (line === "free" ? null : { code: "high", message: `${line}: ${own.high}` }),
  };
  const meter = must(parseMeter("4/4"));
  const report = (list: number[]) => takeAll<number[], { count: number }, Report>([high], list, { count: list.length });
  test("one definition gives field, row, target and cause", () => {
    const own = report([3, 7, 5]);
    expect(own).toEqual({ count: 3, high: 7, links: { high: ["7"] } });
    const [row] = rowsOf([high], own, { most: 6 }, meter);
    expect(row).toMatchObject({ id: "high", value: "7", target: "6 at most", met: false, notes: ["7"], ticks: [] });
    expect(missesOf(rowsOf([high], own, { most: 6 }, meter))).toBe(1);
    expect(rowsOf([high], report([]), { most: 6 }, meter)).toEqual([]);
  });
  test("a missed aim is explained once, by what is known or by its measure; an aim that is met is not", () => {
    const own = report([9]);
    const why = (line: string, most: number, known: { code: string; message: string; measures: string[] }[] = []) =>
      causesOf([high], known, { ctx: [9], line, report: own, aim: { most } });
    expect(why("held", 6)).toEqual([{ code: "high", message: "held: 9", measures: ["high"] }]);
    expect(why("held", 9)).toEqual([]);
    expect(why("free", 6)).toEqual([]);
    expect(why("held", 6, [{ code: "pin", message: "", measures: ["high"] }])).toEqual([]);
  });
});
