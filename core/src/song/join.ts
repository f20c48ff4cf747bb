import { sameEntries } from "../base/list";
import { isList, isObject, sameValue as same, type Json } from "../base/plain";
import { breachOf } from "./integrity";
import type { Song } from "./schema";

type Path = readonly string[];

/** Two versions of a song made one. */
export interface Joined {
  song: Song;
  /** Where both changed the same thing, in words; there the first version stands. Empty where all joined. */
  apart: string[];
}

/** Lists whose items are known by something else than an id. */
const KNOWN_BY: Record<string, string> = { lanes: "drum", hits: "start" };
/** Lists whose items nothing else names: two that were given one id by two windows are told apart by a new one. */
const RENAMED: Record<string, string> = { chords: "c", notes: "n", waivers: "w", log: "l" };

const asObject = (x: unknown): Json => (isObject(x) ? x : {});

/** What the items of a list are known by; null where they are none of their own. */
function keyOf(path: Path, ...lists: (readonly unknown[])[]): string | null {
  const key = KNOWN_BY[path.at(-1) ?? ""] ?? "id";
  return lists.every((list) => list.every((x) => isObject(x) && x[key] !== undefined)) ? key : null;
}

/** What a list of items is called in a path: notes stand by part. */
const kindOf = (path: Path): string => (path.at(-2) === "notes" ? "notes" : (path.at(-1) ?? ""));

/** What holds no list of things with ids. */
const BARE = new Set(["groove", "playing", "voicings", "swing"]);

/** All lists of a song whose items are given new ids where two have one. */
function listsIn(value: unknown, path: Path, found: Json[][] = []): Json[][] {
  if (isList(value) && kindOf(path) in RENAMED) found.push(value as Json[]);
  else if (isList(value) || isObject(value))
    for (const [key, inner] of Object.entries(value)) if (!BARE.has(key)) listsIn(inner, [...path, key], found);
  return found;
}
const idsOf = (lists: readonly Json[][]): Set<unknown> => new Set(lists.flatMap((list) => list.map((x) => x.id)));

/** All lists of a song and their ids: many states are joined with one, which is looked through once. */
const known = new WeakMap<Song, { lists: ReadonlySet<Json[]>; ids: ReadonlySet<unknown> }>();
function knownOf(song: Song) {
  let found = known.get(song);
  if (!found) {
    const lists = listsIn(song, []);
    known.set(song, (found = { lists: new Set(lists), ids: idsOf(lists) }));
  }
  return found;
}

class Join {
  readonly apart: Path[] = [];
  private next: number;
  /** Ids that both gave to something new, wherever it stands: notes of two parts may not share one either. */
  private given: ReadonlySet<unknown>;

  constructor(base: Song, mine: Song, theirs: Song) {
    this.next = Math.max(mine.nextId, theirs.nextId);
    const was = knownOf(base);
    // Only what is no longer the list it was can hold something new.
    const fresh = (song: Song) => idsOf(listsIn(song, []).filter((list) => !was.lists.has(list)));
    const own = fresh(mine);
    this.given = new Set([...fresh(theirs)].filter((id) => own.has(id) && !was.ids.has(id)));
  }

  get nextId(): number {
    return this.next;
  }

  /** Mine, with a new id for each new thing that has one which they gave to another. */
  apartFrom<T>(mine: T, theirs: unknown, path: Path): T {
    if (!this.given.size || mine === theirs) return mine;
    if (isList(mine)) {
      const prefix = RENAMED[kindOf(path)];
      const there = new Map(isList(theirs) ? theirs.map((x) => [asObject(x).id, x]) : []);
      const items = mine.map((x: unknown) => {
        const { id } = asObject(x);
        const other = there.get(id);
        const twice = prefix !== undefined && this.given.has(id) && !same(x, other);
        const own = this.apartFrom(x, other, [...path, String(id)]);
        return twice ? { ...asObject(own), id: `${prefix}${this.next++}` } : own;
      });
      return sameEntries(items, mine) ? mine : (items as T);
    }
    if (!isObject(mine)) return mine;
    const entries = Object.entries(mine).map(([key, x]) => [
      key,
      this.apartFrom(x, asObject(theirs)[key], [...path, key]),
    ]);
    return entries.every(([key, x]) => x === mine[String(key)]) ? mine : (Object.fromEntries(entries) as T);
  }

  /** A value that both come from, as the two have it. Where both changed it in different ways, mine stands. */
  value(base: unknown, mine: unknown, theirs: unknown, path: Path): unknown {
    if (same(mine, base)) return theirs;
    if (same(theirs, base) || same(mine, theirs)) return mine;
    if (isObject(mine) && isObject(theirs)) return this.object(isObject(base) ? base : {}, mine, { theirs, path });
    if (isList(mine) && isList(theirs)) {
      const before = isList(base) ? base : [];
      const key = keyOf(path, before, mine, theirs);
      if (key !== null) return this.list([before, mine, theirs] as [Json[], Json[], Json[]], key, path);
    }
    this.apart.push(path);
    return mine;
  }

  private object(base: Json, mine: Json, { theirs, path }: { theirs: Json; path: Path }): Json {
    const out: Json = {};
    for (const key of new Set([...Object.keys(mine), ...Object.keys(theirs)])) {
      const value = this.value(base[key], mine[key], theirs[key], [...path, key]);
      if (value !== undefined) out[key] = value;
    }
    return out;
  }

  /** Items that are known by a key: each by itself, in time, or in an order that keeps what either moved. */
  private list(lists: [base: Json[], mine: Json[], theirs: Json[]], key: string, path: Path): Json[] {
    const by = (list: readonly Json[]) => new Map(list.map((x) => [x[key], x]));
    const [b, m, t] = [by(lists[0]), by(lists[1]), by(lists[2])];
    const kind = kindOf(path);
    const joined = new Map<unknown, Json>();
    for (const id of new Set([...m.keys(), ...t.keys()])) {
      const value = this.value(b.get(id), m.get(id), t.get(id), [...path, String(id)]);
      if (isObject(value)) joined.set(id, value);
    }
    const timed = [...joined.values()].every((x) => typeof x.start === "number");
    const keys = timed ? [...joined.keys()] : this.order(lists, { key, path });
    const items: Json[] = keys.flatMap((id) => [joined.get(id)].filter((x) => x !== undefined));
    if (timed) items.sort((x, y) => Number(x.start) - Number(y.start));
    if (kind !== "chords" || !overlap(items)) return items;
    this.apart.push(path);
    return lists[1];
  }

  /** All keys of both; where both put what was there in another order, that is a difference. */
  private order(
    lists: [base: Json[], mine: Json[], theirs: Json[]],
    { key, path }: { key: string; path: Path },
  ): unknown[] {
    const keys = (list: readonly Json[]) => list.map((x) => x[key]);
    const [b, m, t] = [keys(lists[0]), keys(lists[1]), keys(lists[2])];
    const old = new Set(b);
    const among = (list: readonly unknown[], other: readonly unknown[]) => {
      const there = new Set(other);
      return list.filter((id) => old.has(id) && there.has(id));
    };
    const moved = (list: readonly unknown[]) => !same(among(list, b), among(b, list));
    const [lead, follow] = moved(m) ? [m, t] : [t, m];
    if (moved(m) && moved(t) && !same(among(m, t), among(t, m))) this.apart.push(path);
    const out = [...lead];
    // What only the other has goes behind what it stood behind.
    follow.forEach((id, i) => {
      if (out.includes(id)) return;
      const behind = follow.slice(0, i).findLast((x) => out.includes(x));
      out.splice(behind === undefined ? 0 : out.indexOf(behind) + 1, 0, id);
    });
    return out;
  }
}

/** Whether a chord begins before the one before it ends. */
const overlap = (chords: readonly Json[]): boolean =>
  chords.some((c, i) => {
    const before = chords[i - 1];
    return before !== undefined && Number(before.start) + Number(before.duration) > Number(c.start);
  });

const FIELDS: Record<string, string> = {
  title: "the title",
  key: "the key",
  tempo: "the tempo",
  meter: "the meter",
  swing: "the swing",
  profile: "the school",
  form: "the form",
  sections: "the sections",
  parts: "the parts",
  singers: "the singers",
  takes: "kept states",
};

/** A place that both changed, as one says it. */
function placeText(song: Song, [kind = "", id, field, of]: Path): string {
  const section = song.sections.find((s) => s.id === id);
  if (kind === "sections" && section) {
    const part = song.parts.find((p) => p.id === of);
    const words: Record<string, string> = { chords: "chords", groove: "drums", notes: part?.name ?? "notes" };
    return `${section.name}: ${words[field ?? ""] ?? field ?? "all of it"}`;
  }
  if (kind === "parts") return song.parts.find((p) => p.id === id)?.name ?? "a part";
  return FIELDS[kind] ?? kind;
}

/**
 * Joins two versions of a song that come from one: what only one changed is as that one has it, notes, chords, hits,
 * sections, parts and passes each by itself. Where both changed the same thing in different ways, `mine` stands and the
 * place is told. Null where the two do not make a whole song, for instance notes for a part that the other removed.
 */
export function joinSongs(base: Song, mine: Song, theirs: Song): Joined | null {
  const join = new Join(base, mine, theirs);
  const { nextId: _, ...was } = base;
  const { nextId: _mine, ...own } = mine;
  const { nextId: _theirs, ...other } = theirs;
  const fields = join.value(was, join.apartFrom(own, other, []), other, []) as Omit<Song, "nextId">;
  const song: Song = { ...fields, nextId: join.nextId };
  if (breachOf(song)) return null;
  return { song, apart: [...new Set(join.apart.map((path) => placeText(song, path)))] };
}
