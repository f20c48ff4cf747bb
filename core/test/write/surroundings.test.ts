import fc from "fast-check";
import { lastBefore, lastOf, nth, sure } from "../../src/base/list";
import { must } from "../../src/base/result";
import { cheapestLimited, type Limited } from "../../src/search/limited";
import { parseMeter } from "../../src/theory/time/meter";
import { figureAt, figures, inFigures, inGap, lowestTuneAt, type BassContext } from "../../src/write/bass/context";

/** What a bass looks up of its surroundings at every place is found without going through all of them. */
const BAR = 1920;
const tick = fc.integer({ min: -200, max: 3000 });
const notes = fc.array(
  fc.record({ start: tick, duration: fc.integer({ min: 1, max: 900 }), midi: fc.integer({ min: 40, max: 80 }) }),
  { maxLength: 12 },
);
const meter = must(parseMeter("4/4"));
const tuneOf = (list: BassContext["tune"]["notes"]): Pick<BassContext, "meter" | "tune"> => {
  const sorted = list.toSorted((a, b) => a.start - b.start);
  return { meter, tune: { notes: sorted, starts: [...new Set(sorted.map((n) => n.start))], sung: false } };
};

test("the last entry for which a thing holds", () => {
  const entries = fc.array(fc.integer({ min: 0, max: 50 })).map((list) => list.toSorted((a, b) => a - b));
  fc.assert(
    fc.property(entries, fc.integer({ min: -1, max: 51 }), (list, x) => {
      expect(lastBefore(list, (entry) => entry <= x)).toBe(list.filter((entry) => entry <= x).length - 1);
    }),
  );
});

test("the lowest note of the tune at a tick is the lowest of all that sound there", () => {
  fc.assert(
    fc.property(notes, tick, (list, at) => {
      const sounding = list.filter((n) => n.start <= at && n.start + n.duration > at).map((n) => n.midi);
      expect(lowestTuneAt(tuneOf(list), at)).toBe(sounding.length ? Math.min(...sounding) : null);
    }),
  );
});

test("a gap: no attack of the tune from a beat before to half a beat after, neither end counted", () => {
  fc.assert(
    fc.property(notes, tick, (list, at) => {
      const near = list.some((n) => n.start > at - 480 && n.start < at + 240);
      expect(inGap(tuneOf(list), at)).toBe(list.length > 0 && !near);
    }),
  );
  const at = (start: number) => inGap(tuneOf([{ start, duration: 60, midi: 60 }]), 960);
  expect([480, 481, 1199, 1200].map(at)).toEqual([true, false, false, true]);
});

test("figures are two bars, one where more than two chords begin in them; everything lies in the one it begins in", () => {
  const chords = (starts: number[]) => starts.map((start) => ({ start }) as BassContext["chords"][number]);
  const of = (starts: number[], bars = 4) => figures({ meter, bars, chords: chords(starts) }).map(({ to }) => to / BAR);
  expect(of([0, BAR])).toEqual([2, 4]);
  expect(of([0, BAR, 2 * BAR - 1])).toEqual([1, 3, 4]);
  expect(of([0, BAR, 2 * BAR])).toEqual([2, 4]);
  expect(of([0], 3)).toEqual([2, 3]);
  const spans = figures({ meter, bars: 3, chords: chords([0]) });
  expect([-1, 0, 2 * BAR - 1, 2 * BAR, 3 * BAR - 1, 3 * BAR].map((t) => figureAt(spans, t))).toEqual([
    ...[-1, 0, 0, 1, 1, -1],
  ]);
  expect(
    inFigures(
      spans,
      [5 * BAR, 2 * BAR, 0, -240, 480].map((start) => ({ start })),
    ),
  ).toEqual([[{ start: 0 }, { start: 480 }], [{ start: 2 * BAR }]]);
});

test("the cheapest path that keeps its limits, against all there are", () => {
  const small = fc.integer({ min: 0, max: 9 });
  const lattice = fc.record({
    columns: fc.array(fc.array(small, { minLength: 1, maxLength: 3 }), { minLength: 2, maxLength: 6 }),
    steps: fc.array(small, { minLength: 60, maxLength: 60 }),
    kinds: fc.array(fc.integer({ min: 0, max: 3 }), { minLength: 18, maxLength: 18 }),
    cut: fc.array(fc.boolean(), { minLength: 6, maxLength: 6 }),
    most: fc.integer({ min: 1, max: 3 }),
    closed: fc.boolean(),
  });
  fc.assert(
    fc.property(lattice, ({ columns, steps, kinds, cut, most, closed }) => {
      const n = columns.length;
      const size = (c: number) => nth(columns, c % n).length;
      const table = (c: number) =>
        Float64Array.from({ length: size(c) * size(c + 1) }, (_, k) => nth(steps, c * 9 + k));
      const kindOf = (c: number, i: number) => nth(kinds, c * 3 + i);
      const groups: [number, number][] = [];
      columns.forEach((_, c) => (c && !cut[c] ? (lastOf(groups)[1] = c) : groups.push([c, c])));
      const limited: Limited = {
        prepared: {
          sizes: columns.map((c) => c.length),
          nodes: columns.map((c) => Float64Array.from(c)),
          steps: Array.from({ length: closed ? n : n - 1 }, (_, c) => table(c)),
          closed,
        },
        ...{ groups, kindOf, most },
      };
      const all = columns.reduce<number[][]>(
        (paths, column) => paths.flatMap((path) => column.map((_, i) => [...path, i])),
        [[]],
      );
      const over = (picks: number[], k: number) => {
        const [first, last] = nth(groups, k);
        return new Set(picks.slice(first, last + 1).map((i, d) => kindOf(first + d, i))).size > most;
      };
      const cost = (picks: number[]) =>
        picks.reduce(
          (sum, i, c) =>
            sum +
            nth(nth(columns, c), i) +
            (closed || c + 1 < n ? nth(table(c), i * size(c + 1) + nth(picks, (c + 1) % n)) : 0),
          0,
        );
      const found = sure(cheapestLimited(limited));
      const kept = all.filter((picks) => groups.every((_, k) => found.over.includes(k) || !over(picks, k)));
      expect(found.cost).toBeCloseTo(Math.min(...kept.map(cost)));
      expect(cost(found.picks)).toBeCloseTo(found.cost);
      // What is left free cannot keep its limit by any path.
      for (const k of found.over) expect(all.every((picks) => over(picks, k))).toBe(true);
    }),
  );
});
