import { sameEntries } from "./list";

interface Known {
  values: Map<string, unknown>;
  further: WeakMap<object, Known>;
}

const known: Known = { values: new Map(), further: new WeakMap() };

/**
 * What follows from lists that are never changed, and from `id`, worked out once for as long as the lists are kept:
 * after an edit of one part what follows from the others stands. `make` reads nothing but the lists and what `id` says.
 * `onceFor([notes], "count", () => notes.length)`
 */
export function onceFor<T>(lists: readonly [object, ...object[]], id: string, make: () => T): T {
  let at = known;
  for (const list of lists) {
    let next = at.further.get(list);
    if (!next) at.further.set(list, (next = { values: new Map(), further: new WeakMap() }));
    at = next;
  }
  if (!at.values.has(id)) at.values.set(id, make());
  return at.values.get(id) as T;
}

/** The entries of a list by their ids. */
export const byId = <T extends { id: string }>(list: readonly T[]): ReadonlyMap<string, T> =>
  onceFor([list], "by id", () => new Map(list.map((entry) => [entry.id, entry])));

const latest = new WeakMap<object, Map<string, { of: readonly unknown[]; value: unknown }>>();

/**
 * What follows from `of`, worked out again only when one of these is another than the last time it was asked for, of
 * the same thing and by the same id. Where lists are made anew with the same entries, the entries are given.
 */
export function whileSame<T>(thing: object, id: string, of: readonly unknown[], make: () => T): T {
  let own = latest.get(thing);
  if (!own) latest.set(thing, (own = new Map()));
  const was = own.get(id);
  if (was && sameEntries(was.of, of)) return was.value as T;
  const value = make();
  own.set(id, { of, value });
  return value;
}
