import { firstOf, nth, sure } from "../../src/base/list";
import fc from "fast-check";
import { must } from "../../src/base/result";
import { parseChord } from "../../src/theory/chord/parse";
import { pathsOf } from "../../src/arrange/voicing/ways";
import { voicingSpace } from "../../src/arrange/voicing/space";
import { cheapestPath, cheapestPrepared, prepare } from "../../src/search/lattice";
import type { BoundedLattice } from "../../src/search/onward";
import { cheapestPruned, type SearchMemory } from "../../src/search/pruned";

/** A column of a made-up problem: where its candidates lie, and what they cost. */
interface Made {
  places: number[];
  costs: number[];
  /** Makes columns differ that look the same. */
  salt: number;
}

const GROUP = 4;
const group = (place: number) => Math.floor(place / GROUP);

/**
 * Whole numbers, so that many paths cost the same; a step costs at least the distance, and more or is forbidden as its
 * salt says.
 */
function latticeOf(columns: readonly Made[], closed: boolean, counted = { steps: 0 }): BoundedLattice {
  const groups = columns.map(({ places }) => [...new Set(places.map(group))]);
  const after = (c: number) => (c + 1) % columns.length;
  const apart = (g: number, h: number) => Math.max(0, Math.abs(g - h) * GROUP - GROUP + 1);
  return {
    sizes: columns.map((c) => c.places.length),
    closed,
    node: (c, i) => nth(nth(columns, c).costs, i),
    step(c, i, j) {
      counted.steps++;
      const [from, to] = [nth(columns, c), nth(columns, after(c))];
      const odd = (from.salt * 31 + to.salt * 17 + i * 7 + j * 13) % 11;
      return odd === 10 ? Infinity : Math.abs(nth(from.places, i) - nth(to.places, j)) + (odd < 4 ? odd : 0);
    },
    alike: (c) => nth(columns, c),
    groups: (c) => Int32Array.from(nth(columns, c).places, (p) => nth(groups, c).indexOf(group(p))),
    kinds: (c) => Int32Array.from(nth(groups, c), (g) => g % 2),
    places: (c) => Float64Array.from(nth(columns, c).places, (p) => p % GROUP),
    leastBetween(c, g, h) {
      const [from, to] = [nth(nth(groups, c), g), nth(nth(groups, after(c)), h)];
      // Inside a group places are as far apart as they are; between others of one kind no more is promised than holds
      // with it.
      return from === to ? 0 : Math.max(0, apart(from, to) - (from % 2 === to % 2 ? GROUP - 1 : 0));
    },
    least: (c, i, j) => Math.abs(nth(nth(columns, c).places, i) - nth(nth(columns, after(c)).places, j)),
  };
}

const cost = fc.oneof(
  { weight: 9, arbitrary: fc.integer({ min: 0, max: 12 }) },
  { weight: 1, arbitrary: fc.constant(Infinity) },
);
const made: fc.Arbitrary<Made> = fc
  .array(fc.tuple(fc.integer({ min: 0, max: 24 }), cost), { minLength: 1, maxLength: 6 })
  .chain((list) =>
    fc.record({
      places: fc.constant(list.map((x) => x[0])),
      costs: fc.constant(list.map((x) => x[1])),
      salt: fc.integer({ min: 0, max: 50 }),
    }),
  );

/** Every path, one by one. */
function brute(lattice: BoundedLattice): number {
  const n = lattice.sizes.length;
  let best = Infinity;
  const walk = (picks: number[], sum: number): void => {
    if (sum === Infinity) return;
    const c = picks.length;
    if (c === n) {
      best = Math.min(
        best,
        sum + (lattice.closed && n > 1 ? lattice.step(n - 1, nth(picks, n - 1), firstOf(picks)) : 0),
      );
      return;
    }
    for (let i = 0; i < nth(lattice.sizes, c); i++)
      walk([...picks, i], sum + lattice.node(c, i) + (c ? lattice.step(c - 1, nth(picks, c - 1), i) : 0));
  };
  walk([], 0);
  return best;
}

/** What the picks cost, added up apart from the search. */
const sumOf = (lattice: BoundedLattice, picks: readonly number[]): number =>
  picks.reduce((sum, x, c) => {
    const onward = c + 1 < picks.length || (lattice.closed && picks.length > 1);
    return sum + lattice.node(c, x) + (onward ? lattice.step(c, x, nth(picks, (c + 1) % picks.length)) : 0);
  }, 0);

test("hundreds of made-up problems, open and closed, cost what the cheapest of all their paths costs", () => {
  let closedOnes = 0;
  fc.assert(
    fc.property(fc.array(made, { minLength: 1, maxLength: 5 }), fc.boolean(), (columns, closed) => {
      const lattice = latticeOf(columns, closed);
      const { path } = cheapestPruned(lattice);
      if (closed) closedOnes++;
      expect(path?.cost ?? Infinity).toBe(brute(lattice));
      if (path) expect(sumOf(lattice, path.picks)).toBe(path.cost);
    }),
    { numRuns: 300, seed: 17 },
  );
  expect(closedOnes).toBeGreaterThan(120);
});

test("after columns are replaced, pinned, put in and taken out, what was kept gives what a search from nothing gives", () => {
  const change = fc.record({
    what: fc.constantFrom("replace", "pin", "insert", "remove", "none"),
    at: fc.nat(30),
    column: made,
  });
  fc.assert(
    fc.property(
      fc.array(made, { minLength: 2, maxLength: 14 }),
      fc.boolean(),
      fc.array(change, { minLength: 1, maxLength: 6 }),
      (first, closed, changes) => {
        let columns = first;
        let memory: SearchMemory | undefined = cheapestPruned(latticeOf(columns, closed)).memory;
        for (const { what, at, column } of changes) {
          const c = at % columns.length;
          const here = nth(columns, c);
          const i = at % here.places.length;
          const pinned = { places: [nth(here.places, i)], costs: [nth(here.costs, i)], salt: here.salt };
          let by: Made[];
          if (what === "replace") by = [column];
          else if (what === "pin") by = [pinned];
          else if (what === "insert") by = [column, here];
          else if (what === "remove") by = [];
          else by = [here];
          columns =
            columns.length < 2 && !by.length ? columns : [...columns.slice(0, c), ...by, ...columns.slice(c + 1)];
          const lattice = latticeOf(columns, closed);
          const found = cheapestPruned(lattice, memory);
          expect(found.path?.cost ?? Infinity).toBe(cheapestPrepared(prepare(lattice))?.cost ?? Infinity);
          memory = found.memory;
        }
      },
    ),
    { numRuns: 150, seed: 9 },
  );
});

const SYMBOLS = ["Dm9", "G13", "Cmaj9", "A7(b9)", "Fmaj7", "Bm7b5", "E7", "Am6", "D/F#", "Gsus4"];
const chords = (n: number) =>
  Array.from({ length: n }, (_, i) => must(parseChord(nth(SYMBOLS, (i * 7 + Math.floor(i / 10)) % SYMBOLS.length))));

test(
  "layouts of chords: the same cost as with every step priced, whatever the weights, the school, the instrument " +
    "and the shape of the top",
  () => {
    const weight = fc.constantFrom(0, 0.5, 1, 3);
    const options = fc.record({
      loop: fc.boolean(),
      voices: fc.constantFrom(3, 4),
      style: fc.constantFrom("keyboard", "every", "four-part", "shell"),
      instrument: fc.constantFrom("piano", "guitar"),
      profile: fc.constantFrom("band" as const, "jazz" as const, "loop" as const),
      topShape: fc.constantFrom("smooth" as const, "still" as const, "rising" as const, "falling" as const),
      weights: fc.record({
        motion: weight,
        leap: weight,
        common: weight,
        topLine: weight,
        parallels: weight,
        hand: weight,
      }),
    });
    fc.assert(
      fc.property(options, fc.integer({ min: 1, max: 7 }), (o, n) => {
        const space = must(voicingSpace(chords(n), { ...o, range: ["C3", "A4"] }));
        expect(sure(cheapestPruned(space.lattice).path).cost).toBeCloseTo(sure(cheapestPath(space.lattice)).cost, 6);
      }),
      { numRuns: 24, seed: 5 },
    );
  },
);

test("few steps are priced: one in twenty from nothing, and after one pin a small part of those", () => {
  const space = must(voicingSpace(chords(48), { loop: true, voices: 4, range: ["C3", "A5"] }));
  const { sizes } = space.lattice;
  const all = sizes.reduce((sum, size, c) => sum + size * nth(sizes, (c + 1) % sizes.length), 0);
  const counting = (lattice: BoundedLattice) => {
    const counted = { steps: 0 };
    return {
      counted,
      lattice: { ...lattice, step: (c: number, i: number, j: number) => (counted.steps++, lattice.step(c, i, j)) },
    };
  };
  const nothing = counting(space.lattice);
  const { memory } = cheapestPruned(nothing.lattice);
  expect(nothing.counted.steps).toBeLessThan(all / 20);
  const pins = { 20: ["C4", "E4", "A4", "D5"] };
  const pinned = counting(must(voicingSpace(chords(48), { loop: true, voices: 4, range: ["C3", "A5"], pins })).lattice);
  const { path } = cheapestPruned(pinned.lattice, memory);
  expect(pinned.counted.steps).toBeLessThan(nothing.counted.steps / 2);
  expect(sure(path).cost).toBeCloseTo(sure(cheapestPruned(pinned.lattice).path).cost, 6);
});

test("what one search leaves does the next one no harm, be it the same again", () => {
  const ballad = "Ebmaj9 Cm7 Fm9 Bb9sus4 Bb7 Gm7 Cm7 Cm7/Bb Abmaj7 Abm6 Bb7sus4 Bb7".split(" ");
  const wrong: unknown[] = [];
  for (const options of [
    { register: -5 },
    { register: 3, voices: 3 },
    { topShape: "rising" as const, voices: 3 },
    { weights: { motion: 0 } },
  ])
    for (let k = 0; k < 12; k++) {
      const turned = [...ballad.slice((k >> 1) % 3), ...ballad.slice(0, (k >> 1) % 3)].slice(0, 12 - (k >> 2));
      const space = must(
        voicingSpace(
          turned.map((s) => must(parseChord(s))),
          { loop: true, ...options },
        ),
      );
      const [cost, exact] = [firstOf(pathsOf(space, 1)).path.cost, sure(cheapestPath(space.lattice)).cost];
      if (Math.abs(cost - exact) > 1e-6) wrong.push([turned.join(" "), cost, exact]);
    }
  expect(wrong).toEqual([]);
});
