/**
 * What must be there: a value that is missing is a fault of the program, and says so at the place where it is missing.
 */

/** A value that cannot be missing here. Throws a RangeError where it is. `sure(map.get(id))` */
export function sure<T>(value: T | null | undefined): T {
  if (value === undefined || value === null) throw new RangeError("A value is missing that must be there");
  return value;
}

/** Entry `index` of a list that is long enough. Throws a RangeError where it is not. `nth([1, 2, 3], 1)` is 2. */
export function nth<T>(list: ArrayLike<T>, index: number): T {
  const value = list[index];
  if (value === undefined) throw new RangeError(`There is no entry ${index} in a list of ${list.length}`);
  return value;
}

/** The first entry of a list that is not empty. Throws a RangeError where it is. `firstOf([1, 2, 3])` is 1. */
export const firstOf = <T>(list: ArrayLike<T>): T => nth(list, 0);

/** The last entry of a list that is not empty. Throws a RangeError where it is. `lastOf([1, 2, 3])` is 3. */
export const lastOf = <T>(list: ArrayLike<T>): T => nth(list, list.length - 1);

/** Whether two lists have the same things in the same order: those themselves, not what they say. */
export const sameEntries = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a === b || (a.length === b.length && a.every((x, i) => x === b[i]));

/** Adds to an entry of a list of sums. `add(sums, 2, 0.5)` */
export function add(sums: number[], index: number, by: number): void {
  sums[index] = nth(sums, index) + by;
}

/** Each entry with the one after it. `pairwise([1, 2, 3])` is [[1, 2], [2, 3]]. */
export const pairwise = <T>(list: readonly T[]): [T, T][] => list.slice(1).map((next, i) => [nth(list, i), next]);

/**
 * Index of the last entry for which something holds that holds for every entry before it too, and for none behind it;
 * −1 where it holds for none. `lastBefore([10, 20, 30], (x) => x <= 25)` is 1.
 */
export function lastBefore<T>(list: readonly T[], holds: (entry: T) => boolean): number {
  let [low, high] = [0, list.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (holds(nth(list, middle))) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}
