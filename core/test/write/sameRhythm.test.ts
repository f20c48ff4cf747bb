import { isSameRhythm } from "../../src/write/bass/write";

const places = (count: number, changed = 0) =>
  Array.from({ length: count }, (_, i) => ({ start: i * 480, duration: i < changed ? 240 : 480 }));

test("two rhythms are one from more than 96 of 100 places in common, each with its length", () => {
  expect([isSameRhythm(places(25), places(25, 1)), isSameRhythm(places(26), places(26, 1))]).toEqual([false, true]);
  expect(isSameRhythm(places(100), places(96))).toBe(false);
  expect(isSameRhythm(places(100), places(97))).toBe(true);
  expect(isSameRhythm(places(97), places(100))).toBe(true);
});
