import { firstOf, nth } from "../../src/base/list";
import fc from "fast-check";
import { cheapestPath, cheapestPaths, type Lattice } from "../../src/search/lattice";

/** Every path with its cost, the slow way. */
function brute(lattice: Lattice): { picks: number[]; cost: number }[] {
  const { sizes } = lattice;
  const out: { picks: number[]; cost: number }[] = [];
  const walk = (picks: number[], cost: number) => {
    const c = picks.length;
    if (c === sizes.length) {
      const closing = lattice.closed && sizes.length > 1 ? lattice.step(c - 1, nth(picks, c - 1), firstOf(picks)) : 0;
      if (cost + closing < Infinity) out.push({ picks, cost: cost + closing });
      return;
    }
    for (let i = 0; i < nth(sizes, c); i++)
      walk([...picks, i], cost + lattice.node(c, i) + (c > 0 ? lattice.step(c - 1, nth(picks, c - 1), i) : 0));
  };
  walk([], 0);
  return out.sort((a, b) => a.cost - b.cost);
}

const lattices = fc
  .record({
    sizes: fc.array(fc.integer({ min: 1, max: 5 }), { minLength: 1, maxLength: 6 }),
    salt: fc.integer({ min: 0, max: 1e6 }),
    closed: fc.boolean(),
    forbid: fc.boolean(),
  })
  .map(({ sizes, salt, closed, forbid }): Lattice => {
    const hash = (...n: number[]) => n.reduce((h, x) => Math.imul(h ^ (x + 0x9e37), 0x85ebca6b) >>> 0, salt) % 97;
    return {
      sizes,
      closed,
      node: (c, i) => hash(1, c, i),
      step: (c, i, j) => (forbid && hash(3, c, i, j) < 20 ? Infinity : hash(2, c, i, j)),
    };
  });

test("the cheapest path equals brute force, open and closed, with forbidden steps", () => {
  fc.assert(
    fc.property(lattices, (lattice) => {
      const best = brute(lattice)[0];
      const found = cheapestPath(lattice);
      expect(found?.cost).toBe(best?.cost);
    }),
    { seed: 3, numRuns: 600 },
  );
});

test("the k cheapest paths equal brute force, are all different and cost what they say", () => {
  fc.assert(
    fc.property(lattices, (lattice) => {
      const all = brute(lattice);
      const found = cheapestPaths(lattice, { k: 7 });
      expect(found.map((p) => p.cost)).toEqual(all.slice(0, 7).map((p) => p.cost));
      expect(new Set(found.map((p) => p.picks.join())).size).toBe(found.length);
      for (const path of found) expect(all.find((p) => p.picks.join() === path.picks.join())?.cost).toBe(path.cost);
    }),
    { seed: 5, numRuns: 400 },
  );
});

test("with a measure of difference each alternative is the cheapest that differs from all before it", () => {
  const differs = (a: readonly number[], b: readonly number[]) => a.filter((x, i) => x !== b[i]).length >= 2;
  fc.assert(
    fc.property(lattices, (lattice) => {
      const expected: { picks: number[]; cost: number }[] = [];
      for (const path of brute(lattice))
        if (expected.length < 3 && expected.every((e) => differs(path.picks, e.picks))) expected.push(path);
      const found = cheapestPaths(lattice, { k: 3, differs, limit: 1e5 });
      expect(found.length === 0 ? undefined : firstOf(found).cost).toBe(expected[0]?.cost);
      for (const [i, a] of found.entries())
        for (const b of found.slice(0, i)) expect(differs(a.picks, b.picks)).toBe(true);
    }),
    { seed: 9, numRuns: 200 },
  );
});
