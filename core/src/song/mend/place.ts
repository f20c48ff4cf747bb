import type { z } from "zod";

export type Json = Record<string, unknown>;
export type Key = string | number;

/** Items of these lists can be left out of a damaged document without harm to the others; what one is called. */
const ITEMS: Record<string, string> = {
  sections: "section",
  parts: "part",
  instruments: "instrument",
  form: "pass",
  own: "stretch of own bars",
  chords: "chord",
  readings: "reading",
  lanes: "drum",
  hits: "hit",
  accents: "accent",
  muted: "muted part",
  singers: "singer",
  waivers: "waiver",
  takes: "kept state",
  log: "entry",
};
export const plural = (item: string): string =>
  item.startsWith("stretch")
    ? item.replace("stretch", "stretches")
    : item.replace(/y$/, "ie").replace(/ss$/, "sse") + "s";
/** Lists of notes stand by part, so that their name is an id. */
const NOTE = "note";
/** An issue with what its path leads through, looked up before anything is moved. */
export interface Place {
  path: readonly Key[];
  chain: readonly unknown[];
}

export const isObject = (x: unknown): x is Json => typeof x === "object" && x !== null;
export const asObject = (x: unknown): Json => (isObject(x) ? x : {});

/** Objects and lists from the document down to what a path names, as far as they are there. */
export function chainOf(document: Json, path: readonly Key[]): unknown[] {
  const chain: unknown[] = [document];
  for (const key of path) {
    const at = chain.at(-1);
    if (!isObject(at) || !Object.hasOwn(at, key)) break;
    chain.push(at[key]);
  }
  return chain;
}

export const placeOf = (document: Json, issue: z.core.$ZodIssue): Place => {
  const path = issue.path.filter((k): k is Key => typeof k !== "symbol");
  return { path, chain: chainOf(document, path) };
};
/** The thing around it. */
export const around = ({ path, chain }: Place): Place => ({
  path: path.slice(0, -1),
  chain: chain.slice(0, path.length),
});
export const isThere = ({ path, chain }: Place): boolean => chain.length > path.length;

export const nameOf = (x: unknown): string | null => {
  const { name, drum, symbol } = asObject(x);
  const text = [name, drum, symbol].find((t) => typeof t === "string" && t.trim());
  return typeof text === "string" ? text.slice(0, 40) : null;
};

const KINDS: Record<string, string> = {
  string: "text",
  number: "a number",
  int: "a whole number",
  array: "a list",
  boolean: "yes or no",
};

/** Why something was mended. */
export function whyOf(issue: z.core.$ZodIssue, place: Place): string {
  if (issue.code === "invalid_value") return `it is none of ${issue.values.map(String).join(", ")}`;
  if (issue.code !== "invalid_type") return issue.message;
  const field = place.path.at(-1) ?? "";
  if (typeof field === "number") return "it is none that can be read";
  return isThere(place) ? `its ${field} is not ${KINDS[issue.expected] ?? "readable"}` : `it has no ${field}`;
}

/** What the items of the list that a path leads into are called; null where they belong together. */
export const itemOf = (path: readonly Key[]): string | null =>
  path.at(-3) === "notes" ? NOTE : (ITEMS[String(path.at(-2))] ?? null);
