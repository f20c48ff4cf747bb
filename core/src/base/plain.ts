/** Plain data: values as JSON has them, compared and shared by what they say. */
import { sameEntries } from "./list";

export type Json = Record<string, unknown>;

export const isList = (x: unknown): x is unknown[] => Array.isArray(x);
/** Whether something has fields by name: no list, no null. */
export const isObject = (x: unknown): x is Json => typeof x === "object" && x !== null && !isList(x);

/** Whether two values say the same; what they share is not looked at. */
export function sameValue(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (isList(a)) return isList(b) && a.length === b.length && a.every((x, i) => sameValue(x, b[i]));
  if (!isObject(a) || !isObject(b)) return false;
  const own = Object.keys(a);
  return own.length === Object.keys(b).length && own.every((k) => Object.hasOwn(b, k) && sameValue(a[k], b[k]));
}

const idOf = (x: unknown): unknown => (isObject(x) ? x.id : undefined);

/** The items of a list that another one has too, found by id; without ids by where they stand. */
function sharingItems(from: readonly unknown[], list: readonly unknown[]): unknown[] {
  let byId: Map<unknown, unknown> | null = null;
  return list.map((item, i) => {
    const id = idOf(item);
    if (id === undefined || id === idOf(from[i])) return i < from.length ? sharing(from[i], item) : item;
    byId ??= new Map(from.map((x) => [idOf(x), x]));
    return byId.has(id) ? sharing(byId.get(id), item) : item;
  });
}

/** The value, with everything in it that says the same as in another one taken from there. */
export function sharing<T>(from: unknown, value: T): T {
  if (sameValue(from, value)) return from as T;
  if (isList(from) && isList(value)) return sharingItems(from, value) as T;
  if (!isObject(from) || !isObject(value)) return value;
  const shared = Object.entries(value).map(([k, x]) => [k, Object.hasOwn(from, k) ? sharing(from[k], x) : x] as const);
  return Object.fromEntries(shared) as T;
}

/** Whether two objects have the same things in all fields: those themselves, not what they say. */
export const sameFields = <T extends object>(a: T, b: T): boolean => {
  const [own, other] = [Object.entries(a), b as Json];
  return own.length === Object.keys(b).length && own.every(([k, x]) => Object.hasOwn(b, k) && other[k] === x);
};

/** The object before where all fields of the new one are the same things. */
export const kept = <T extends object>(before: T, now: T): T => (sameFields(before, now) ? before : now);

/** The items of a list with the same fields as those that stood in their place before; the list before if all are. */
export function keptItems<T extends object>(before: readonly T[], now: T[]): T[] {
  const items = now.map((item, i) => {
    const old = before[i];
    return old ? kept(old, item) : item;
  });
  return sameEntries(items, before) ? (before as T[]) : items;
}
