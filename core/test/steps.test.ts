import { madeOf, toldAs, type Steps } from "../src/base/steps";

function* counting(to: number): Steps<number, number> {
  for (let i = 1; i <= to; i++) if ((yield i) === false) return -i;
  return to;
}

test("work that nobody looks at goes on to its end; told in other words it ends where it is answered false", () => {
  expect(madeOf(counting(3))).toBe(3);
  const steps = toldAs(counting(3), (n) => "x".repeat(n));
  expect([steps.next(), steps.next(true), steps.next(false)]).toEqual([
    { done: false, value: "x" },
    { done: false, value: "xx" },
    { done: true, value: -2 },
  ]);
  expect(madeOf(toldAs(counting(4), String))).toBe(4);
});
