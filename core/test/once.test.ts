import { byId, onceFor } from "../src/base/once";

test("what follows from lists is worked out once for the same lists and the same name, and anew for any other", () => {
  let times = 0;
  const sum = (a: readonly number[], b: readonly number[], id = "sum") =>
    onceFor([a, b], id, () => (times++, [...a, ...b].reduce((all, x) => all + x, 0)));
  const [a, b] = [[1, 2], [3]];
  expect([sum(a, b), sum(a, b), times]).toEqual([6, 6, 1]);
  expect([sum(b, a), times]).toEqual([6, 2]);
  expect([sum(a, b, "other"), times]).toEqual([6, 3]);
  expect([sum([...a], b), times]).toEqual([6, 4]);
  expect([onceFor([a], "sum", () => 7), sum(a, b), times]).toEqual([7, 6, 4]);
  // Nothing is an answer too.
  const none = () => onceFor([a], "none", () => (times++, undefined));
  expect([none(), none(), times]).toEqual([undefined, undefined, 5]);
});

test("entries by their ids", () => {
  const list = [{ id: "a" }, { id: "b" }];
  expect(byId(list).get("b")).toBe(list[1]);
  expect(byId(list).get("c")).toBeUndefined();
  expect(byId(list)).toBe(byId(list));
});
