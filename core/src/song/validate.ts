import { firstOf } from "../base/list";
import type { z } from "zod";

export interface Issue {
  path: PropertyKey[];
  message: string;
  value: unknown;
}

/** The parts of a schema's definition that are walked. */
interface Def {
  type: string;
  innerType?: z.ZodType;
  element?: z.ZodType;
  valueType?: z.ZodType;
  shape?: Record<string, z.ZodType>;
  checks?: readonly { _zod: { def: { check: string; maximum?: number; minimum?: number; error?: unknown } } }[];
}
const defOf = (schema: z.ZodType): Def => schema.def as unknown as Def;

const plain = (schema: z.ZodType): z.ZodType => {
  const { type, innerType } = defOf(schema);
  return innerType && (type === "optional" || type === "nullable") ? plain(innerType) : schema;
};

const idOf = (x: unknown): unknown => (typeof x === "object" && x !== null && "id" in x ? x.id : undefined);

type Path = PropertyKey[];
/** Values before and after a change, which are not the same. */
interface Pair<T> {
  before: T;
  after: T;
  path: Path;
}

const isObject = (x: unknown): x is object => typeof x === "object" && x !== null;

/** Field by field. */
function issueInFields(schema: z.ZodType, shape: Record<string, z.ZodType>, pair: Pair<object>): Issue | null {
  const { path } = pair;
  const [before, after] = [pair.before as Record<string, unknown>, pair.after as Record<string, unknown>];
  for (const [name, field] of Object.entries(shape)) {
    const issue = issueIn(field, before[name], after[name], [...path, name]);
    if (issue) return issue;
  }
  return Object.keys(after).every((name) => name in shape) ? null : parse(schema, after, path);
}

/** Entry by entry; a new name is parsed with its value. */
function issueInEntries(schema: z.ZodType, valueType: z.ZodType, { before, after, path }: Pair<object>): Issue | null {
  for (const [name, value] of Object.entries(after)) {
    const was = (before as Record<string, unknown>)[name];
    const issue =
      was === undefined ? parse(schema, { [name]: value }, path) : issueIn(valueType, was, value, [...path, name]);
    if (issue) return issue;
  }
  return null;
}

/** Element by element. */
function issueInElements(
  schema: z.ZodType,
  element: z.ZodType,
  { before, after, path }: Pair<readonly unknown[]>,
): Issue | null {
  // Most stands where it stood; only where it does not is it looked for elsewhere.
  const moved = after.flatMap((value: unknown, i) => (value === before[i] ? [] : [i]));
  const same = moved.length > 1 ? new Set<unknown>(before) : null;
  for (const i of moved) {
    const value: unknown = after[i];
    if (same?.has(value)) continue;
    const id = idOf(value);
    // What has no id is held against what stood in its place: whatever the two share was good there too.
    const counterpart: unknown =
      id === undefined || idOf(before[i]) === id ? before[i] : before.find((x) => idOf(x) === id);
    const issue = issueIn(element, counterpart, value, [...path, i]);
    if (issue) return issue;
  }
  // How many there may be is all that is left to check; the elements are good.
  return parseLength(schema, after, path);
}

/**
 * The first thing that a schema refuses in what is new of a value: whatever is the same object as before was checked
 * before. Objects are walked field by field, records entry by entry, lists element by element; anything else, and what
 * has no counterpart, is parsed.
 */
export function issueIn(schema: z.ZodType, before: unknown, after: unknown, path: Path = []): Issue | null {
  if (after === before) return null;
  if (!isObject(after) || !isObject(before)) return parse(schema, after, path);
  const { type, shape, checks, valueType, element } = defOf(plain(schema));
  if (type === "object" && shape && !checks?.length) return issueInFields(schema, shape, { before, after, path });
  if (type === "record" && valueType) return issueInEntries(schema, valueType, { before, after, path });
  if (type === "array" && element && Array.isArray(after) && Array.isArray(before))
    return issueInElements(schema, element, { before, after, path });
  return parse(schema, after, path);
}

function parse(schema: z.ZodType, value: unknown, path: PropertyKey[]): Issue | null {
  const result = schema.safeParse(value);
  if (result.success) return null;
  const issue = firstOf(result.error.issues);
  return { path: [...path, ...issue.path], message: issue.message, value: valueAt(value, issue.path) };
}

function parseLength(schema: z.ZodType, list: readonly unknown[], path: PropertyKey[]): Issue | null {
  for (const { _zod } of defOf(plain(schema)).checks ?? []) {
    const { check, maximum = Infinity, minimum = 0 } = _zod.def;
    if ((check === "max_length" && list.length > maximum) || (check === "min_length" && list.length < minimum))
      return parse(schema, list, path);
  }
  return null;
}

/** What stands at a path; undefined where nothing does. */
export const valueAt = (value: unknown, path: readonly PropertyKey[]): unknown =>
  path.reduce<unknown>(
    (x, key) => (typeof x === "object" && x !== null ? (x as Record<PropertyKey, unknown>)[key] : undefined),
    value,
  );
