import fc from "fast-check";
import { kept, keptItems, sameFields, sameValue, sharing } from "../src/base/plain";
import { soundingBetween, soundingOf } from "../src/hear/slice/soundingIn";

const copy = <T>(x: T): T => JSON.parse(JSON.stringify(x)) as T;

test("two values say the same exactly where their texts in one order of fields do", () => {
  fc.assert(
    fc.property(fc.jsonValue(), fc.jsonValue(), (a, b) => {
      expect(sameValue(a, copy(a))).toBe(true);
      expect(sameValue(a, b)).toBe(sameValue(b, a));
      expect(sameValue([a], { 0: a })).toBe(false);
    }),
  );
  expect(sameValue({ a: 1 }, { a: 1, b: undefined })).toBe(false);
  expect(sameValue({ a: undefined }, { b: undefined })).toBe(false);
});

test("sharing never changes what a value says, and gives back the old one where nothing is new", () => {
  fc.assert(
    fc.property(fc.jsonValue(), fc.jsonValue(), (before, now) => {
      expect(sharing(before, now)).toEqual(now);
      if (typeof before === "object") expect(sharing(before, copy(before))).toBe(before);
    }),
  );
});

test("of a list with ids all items stay that say the same, wherever they went", () => {
  const before = [1, 2, 3, 4].map((id) => ({ id, at: { bar: id } }));
  const now = copy([before[3], before[0], { id: 2, at: { bar: 9 } }, { id: 7, at: { bar: 7 } }]);
  const shared = sharing(before, now);
  expect(shared).toEqual(now);
  expect([shared[0] === before[3], shared[1] === before[0], shared[2] === before[1]]).toEqual([true, true, false]);
});

test("what is kept is kept for its very fields, not for what they say", () => {
  const at = { bar: 1 };
  const before = { id: "a", at };
  expect(kept(before, { id: "a", at })).toBe(before);
  expect(kept(before, { id: "a", at: { bar: 1 } })).not.toBe(before);
  expect([sameFields({ a: 1 }, { a: 1, b: 2 } as never), sameFields({ a: 1, b: 2 }, { a: 1 } as never)]).toEqual([
    false,
    false,
  ]);
  const list = [before, { id: "b", at }];
  expect(
    keptItems(list, [
      { id: "a", at },
      { id: "b", at },
    ]),
  ).toBe(list);
  const changed = keptItems(list, [
    { id: "a", at },
    { id: "c", at },
  ]);
  expect([changed[0] === before, changed.length]).toEqual([true, 2]);
  expect(keptItems(list, [{ id: "a", at }])).toHaveLength(1);
});

test("what sounds at a moment: from its beginning on, and no longer at its end, over borders of bars", () => {
  const notes = [
    { id: "held", start: -480, duration: 4800 },
    { id: "short", start: 1800, duration: 240 },
  ];
  const at = (tick: number) => soundingOf(notes, tick).map((n) => n.id);
  expect([at(-481), at(-480), at(1799), at(1800), at(2039), at(2040), at(4319), at(4320)]).toEqual([
    [],
    ["held"],
    ["held"],
    ["held", "short"],
    ["held", "short"],
    ["held"],
    ["held"],
    [],
  ]);
  const between = (from: number, to: number) => soundingBetween(notes, from, to).map((n) => n.id);
  expect([between(-600, -480), between(-600, -479), between(1790, 1800), between(1790, 1801)]).toEqual([
    ...[[], ["held"], ["held"], ["held", "short"]],
  ]);
  expect([between(2039, 9000), between(2040, 9000), between(4320, 9000)]).toEqual([["held", "short"], ["held"], []]);
});
