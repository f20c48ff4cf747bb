import type { z } from "zod";
import {
  asObject,
  around,
  chainOf,
  isObject,
  isThere,
  itemOf,
  type Json,
  type Key,
  nameOf,
  type Place,
  placeOf,
  plural,
  whyOf,
} from "./place";
import { nth } from "../../base/list";
import { capital } from "../../theory/words/english";

/** What a song has where the file does not say it. */
const USUAL: Json = {
  title: "Untitled",
  key: "C major",
  tempo: 96,
  meter: "4/4",
  swing: { ratio: 0.5, unit: 8 },
  profile: "band",
  form: [],
  singers: [],
  waivers: [],
  takes: [],
  log: [],
  nextId: 1,
};
/** What a field is where a file does not say it, so that nothing goes for want of it. */
const FIELDS: Json = {
  name: "Unnamed",
  velocity: 80,
  playing: {},
  notes: {},
  chords: [],
  groove: { lanes: [] },
  lanes: [],
  hits: [],
};
/** What plays what has no known instrument. */
const ANY_INSTRUMENT = "piano";
/** A place cannot be moved to the nearest that is allowed: the thing itself is left out. */
const PLACES: readonly Key[] = ["start", "at", "tick"];
/** How often a document is looked at again after it was mended. */
const ROUNDS = 60;

/** One thing that was mended: where and what, and why. */
interface Act {
  /** Objects and lists on the way to it, it among them where it went as a whole. */
  chain: readonly unknown[];
  /** The field that was mended; null where an item of a list went. */
  field: Key | null;
  /** Things that are told together: of one list, mended in one way. */
  group: string;
  one: string;
  /** Of several of its group, with # for how many; the first of them follows by itself. */
  many: string;
  first: string;
  why: string;
}

/** Mends a document issue by issue, and tells what it did. */
class Mending {
  private acts: Act[] = [];
  private gone = new Set<unknown>();
  private places = new WeakMap<object, number>();

  constructor(private document: Json) {
    this.count(document);
  }

  /** What was mended, in the words of a musician; the same thing of many is told once. */
  told(): string[] {
    const groups = new Map<string, [Act, ...Act[]]>();
    // Issues are mended from the end of the document.
    for (const act of [...this.acts].reverse()) {
      const group = groups.get(act.group);
      if (group) group.push(act);
      else groups.set(act.group, [act]);
    }
    return [...groups.values()].map((acts) => {
      const [first] = acts;
      const several = `${first.many.replace("#", String(acts.length))}, first ${first.first}`;
      return capital(`${acts.length > 1 ? several : first.one} (${first.why}).`);
    });
  }

  /** Mends one issue; false where it cannot. */
  mend(issue: z.core.$ZodIssue, place: Place): boolean {
    // It went along with what was around it.
    if (place.chain.some((x) => this.gone.has(x))) return true;
    return (isThere(place) && this.bend(place, issue)) || this.leaveOut(place, whyOf(issue, place));
  }

  /** The nearest value that is allowed, where there is one. */
  private bend(place: Place, issue: z.core.$ZodIssue): boolean {
    const value = place.chain.at(-1);
    // A part without an instrument would take its notes along.
    if (issue.code === "custom" && place.path.at(-1) === "instrument")
      return this.set(place, ANY_INSTRUMENT, "was taken to be a piano", issue.message);
    if (issue.code === "too_big" && typeof issue.maximum === "number") {
      if (typeof value === "string") {
        const cut = value.trim().slice(0, issue.maximum).trim();
        return this.set(place, cut, `was cut to ${cut.length} characters`);
      }
      if (Array.isArray(value))
        return this.set(place, value.slice(0, issue.maximum), `were cut from ${value.length} to ${issue.maximum}`);
    }
    if (typeof value !== "number" || PLACES.includes(place.path.at(-1) ?? "")) return false;
    const nearest = nearestNumber(value, issue);
    return (
      Number.isFinite(nearest) && nearest !== value && this.set(place, nearest, `became ${nearest}`, `was ${value}`)
    );
  }

  private set({ path, chain }: Place, to: unknown, how: string, why = "it was longer"): boolean {
    const key = path.at(-1);
    const holder = chain.at(-2);
    if (key === undefined || !isObject(holder)) return false;
    this.tell({ path, chain }, how, why);
    holder[key] = to;
    return true;
  }

  /** Leaves out what a path names, or the nearest thing around it that can be left out. */
  private leaveOut(place: Place, why: string): boolean {
    const { path, chain } = place;
    const key = path.at(-1);
    const holder = chain.at(-2);
    if (key === undefined) return false;
    if (path.length === 1) return this.usual(key, why);
    if (!isThere(place) || !isObject(holder)) {
      const into = chain.length === path.length ? chain.at(-1) : null;
      const usual = isObject(into) && !Array.isArray(into) && Object.hasOwn(FIELDS, key) ? FIELDS[key] : undefined;
      if (usual === undefined || !isObject(into)) return this.leaveOut(around(place), why);
      const how = isObject(usual) ? "was taken to be empty" : `was taken to be ${String(usual)}`;
      this.tell({ path, chain: [...chain, null] }, how, why);
      into[key] = structuredClone(usual);
      return true;
    }
    if (Array.isArray(holder)) {
      const item = itemOf(path);
      if (!item) return this.leaveOut(around(place), why);
      this.drop(place, holder, { item, why });
      return true;
    }
    this.tell(place, "was left out", why);
    delete holder[key];
    return true;
  }

  private usual(key: Key, why: string): boolean {
    if (!Object.hasOwn(USUAL, key)) return false;
    const is = USUAL[key];
    const how = isObject(is) ? "was taken to be as usual" : `was taken to be ${String(is)}`;
    this.tell({ path: [key], chain: [this.document, null] }, how, why);
    this.document[key] = structuredClone(is);
    return true;
  }

  /** An item that goes takes along what was mended in it: the first reason stays. */
  private drop(place: Place, holder: unknown[], { item, why }: { item: string; why: string }): void {
    const value = place.chain.at(-1);
    const at = isObject(value) ? holder.indexOf(value) : Number(place.path.at(-1));
    const inside = (act: Act) => isObject(value) && act.chain.includes(value);
    const reason = this.acts.find(inside)?.why ?? why;
    this.acts = this.acts.filter((act) => !inside(act));
    const where = this.where(around(place));
    const name = nameOf(value);
    const own = `${item} ${this.numberOf(value, at)}${name ? ` “${name}”` : ""}`;
    this.acts.push({
      ...{ chain: place.chain, field: null, group: `${where}${item}`, why: reason },
      one: `${where}${own} was left out`,
      many: `${where}# ${plural(item)} were left out`,
      first: own,
    });
    holder.splice(at, 1);
    if (isObject(value)) this.gone.add(value);
  }

  /** What was bent first and left out then is told once, with the first reason. */
  private tell(place: Place, how: string, why: string): void {
    const field = place.path.at(-1) ?? "";
    const chain = place.chain.slice(0, -1);
    const holder = chain.at(-1);
    const known = this.acts.find((act) => act.field === field && act.chain.at(-1) === holder);
    this.acts = this.acts.filter((act) => act !== known);
    const here = this.where(around(place));
    const list = typeof place.path.at(-2) === "number" ? this.where(around(around(place))) : this.where(around(place));
    this.acts.push({
      ...{ chain, field, group: `${list}${field} ${how}`, why: known?.why ?? why },
      one: `${here}${field} ${how}`,
      many: `${list}${field} ${how} # times`,
      first: here.slice(list.length).replace(/, $/, ""),
    });
  }

  /** Where a path leads, as a musician would say it: "Verse, Bass, note 3, ". */
  private where({ path, chain }: Place): string {
    return path
      .flatMap((key, i): string[] => {
        const at = chain[i + 1];
        if (Array.isArray(chain[i])) {
          const item = itemOf(path.slice(0, i + 1)) ?? "entry";
          const name = nameOf(at);
          if (name && (item === "section" || item === "part")) return [name];
          return [`${item} ${this.numberOf(at, Number(key))}${name ? ` “${name}”` : ""}`];
        }
        if (path[i - 1] === "notes") return [this.partName(String(key))];
        return Array.isArray(at) || key === "notes" || key === "groove" ? [] : [String(key)];
      })
      .map((word) => `${word}, `)
      .join("");
  }

  private partName(id: string): string {
    const { parts } = this.document;
    const part = Array.isArray(parts) ? parts.find((p) => asObject(p).id === id) : null;
    return nameOf(part) ?? `part "${id}"`;
  }

  /** Which one of its list it was in the file, from 1, whatever was left out before it. */
  private numberOf(item: unknown, index: number): number {
    return (isObject(item) ? this.places.get(item) : undefined) ?? index + 1;
  }

  private count(at: unknown): void {
    if (Array.isArray(at)) at.forEach((item: unknown, i) => void (isObject(item) && this.places.set(item, i + 1)));
    if (isObject(at)) for (const value of Object.values(at)) this.count(value);
  }
}

function nearestNumber(value: number, issue: z.core.$ZodIssue): number {
  if (issue.code === "invalid_type") return Math.round(value);
  if (issue.code === "too_big") return Number(issue.maximum);
  if (issue.code === "too_small") return Number(issue.minimum);
  return NaN;
}

/** Ids that stand twice in a list are given anew, from a number that is free. */
function anewIds(document: Json, path: readonly PropertyKey[]): boolean {
  const chain = chainOf(document, path as Key[]);
  const list = chain.at(-1);
  const beside = path.at(-2) === "notes" ? Object.values(asObject(chain.at(-2))).filter((l) => l !== list) : [];
  if (chain.length <= path.length || !Array.isArray(list)) return false;
  const seen = new Set(beside.flat().map((x) => asObject(x).id));
  let free = 1;
  let changed = false;
  for (const item of list as unknown[]) {
    if (!isObject(item)) return false;
    if (seen.has(item.id)) {
      while (seen.has(`again${free}`)) free++;
      item.id = `again${free}`;
      changed = true;
    }
    seen.add(item.id);
  }
  return changed;
}

/** Lists whose items only they themselves are known by: others are referred to by their ids. */
const ANEW = new Set<PropertyKey>(["chords", "takes", "waivers", "log", "singers", "form"]);

export interface Mended<T> {
  value: T;
  /** What was mended, in sentences; empty where all was well. */
  told: string[];
}

/**
 * Reads a document by its schema and mends what is wrong in it as long as something can be: too long a text is cut, a
 * number past its end set to it, what cannot be read left out, the least thing around it that can be. The document is
 * changed. Null where it cannot be mended.
 */
export function mendDocument<T>(schema: z.ZodType<T>, document: Json): Mended<T> | null {
  const mending = new Mending(document);
  let numbered = 0;
  for (let round = 0; round < ROUNDS; round++) {
    const read = schema.safeParse(document);
    if (read.success) {
      const again = numbered ? [`Ids that stood twice were given anew (${numbered} times).`] : [];
      return { value: read.data, told: [...mending.told(), ...again] };
    }
    // From the end, so that what is left out moves nothing that is still to be mended.
    const issues = [...read.error.issues].reverse();
    const places = issues.map((issue) => placeOf(document, issue));
    const mended = issues.filter((issue, i) => {
      const named = issue.code === "custom" && (issue.path.at(-2) === "notes" || ANEW.has(issue.path.at(-1) ?? ""));
      if (!named || !anewIds(document, issue.path)) return mending.mend(issue, nth(places, i));
      numbered++;
      return true;
    });
    if (!mended.length) return null;
  }
  return null;
}
