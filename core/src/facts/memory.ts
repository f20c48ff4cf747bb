import { sure } from "../base/list";
import { createProxy, isChanged, markToTrack } from "proxy-compare";
import { placeKey, type Place } from "../song/place";
import type { Song } from "../song/schema";

/** What a fact is asked about: an id, a name, a place. */
export type Argument = string | Place;

/**
 * Something that follows from a song: worked out when it is asked for, and again only when something that was read for
 * it has changed. A fact declares nothing; what it reads of the song and of other facts is recorded. It must have a
 * value for every place, even one that is not there.
 */
export interface Fact<At extends Argument[], T> {
  id: string;
  of(read: Reader, ...at: At): T;
  /**
   * The new value with what it has in common with the old one: where both say the same, the old one itself, and
   * whatever rests on it stands. By default nothing is taken over. `sharing` does it for plain data.
   */
  keep?: (before: T, now: T) => T;
}

/** What a fact is worked out from. */
export interface Reader {
  /** The song; what is read of it is recorded. Lists of notes, chords and hits are recorded as wholes. */
  readonly song: Song;
  get<At extends Argument[], T>(fact: Fact<At, T>, ...at: At): T;
}

interface Cell {
  fact: Fact<Argument[], unknown>;
  at: Argument[];
  value: unknown;
  /** The song it was worked out from, and what was read of it; null where it rests on other facts alone. */
  song: Song;
  read: WeakMap<object, unknown> | null;
  /** Other facts it rests on, with the values they had, in the order in which they were read. */
  rests: { cell: Cell; value: unknown }[];
  /** The last song it was found to hold for. */
  holds: Song;
}

/**
 * What is recorded as a whole, by identity: everything of a song but its outer structure. Objects are marked once;
 * songs share them.
 */
const marked = new WeakSet<object>();
const whole = (x: unknown): void => {
  if (typeof x === "object" && x !== null) markToTrack(x, false);
};
const eachField = (holder: object, open: readonly string[]): void => {
  if (marked.has(holder)) return;
  marked.add(holder);
  for (const [name, value] of Object.entries(holder)) if (!open.includes(name)) whole(value);
};
function mark(song: Song): void {
  eachField(song, ["parts", "sections", "form"]);
  for (const part of song.parts) eachField(part, []);
  for (const pass of song.form) eachField(pass, []);
  for (const section of song.sections) {
    eachField(section, ["notes"]);
    eachField(section.notes, []);
  }
}

/**
 * What is recorded in place of an object: a copy of what is frozen, made once for all facts that read it; else the
 * object itself, without looking through its fields each time it is met.
 */
class Copies extends WeakMap<object, unknown> {
  override get(of: object): unknown {
    return Object.isFrozen(of) ? super.get(of) : [of];
  }
  override set(of: object, copy: unknown): this {
    return Object.isFrozen(of) ? super.set(of, copy) : this;
  }
}
const targets = new Copies();

/** Remembers facts from one version of a song to the next. */
export interface Memory {
  /** The facts of a song. */
  at(song: Song): Reader;
  /** How often facts were worked out, by id: for tests and benchmarks. */
  readonly counts: ReadonlyMap<string, number>;
}

export function createMemory(): Memory {
  const cells = new Map<string, Cell>();
  const counts = new Map<string, number>();
  let song: Song | null = null;
  /** What the facts that are being worked out have read of other facts, the innermost last. */
  const open: Cell["rests"][] = [];

  function work(cell: Cell, now: Song): void {
    let read: WeakMap<object, unknown> | null = null;
    const proxies = new WeakMap<object, unknown>();
    const rests: Cell["rests"] = [];
    open.push(rests);
    let value: unknown;
    try {
      const reader: Reader = {
        get song() {
          return createProxy(now, (read ??= new WeakMap()), proxies, targets);
        },
        get: (fact, ...at) => get(fact, at),
      };
      value = cell.fact.of(reader, ...cell.at);
    } finally {
      open.pop();
    }
    cell.value = cell.value !== undefined && cell.fact.keep ? cell.fact.keep(cell.value, value) : value;
    Object.assign(cell, { song: now, read, rests, holds: now });
    counts.set(cell.fact.id, (counts.get(cell.fact.id) ?? 0) + 1);
  }

  /** Brings a cell up to the present song. */
  function settle(cell: Cell): void {
    const now = sure(song);
    if (cell.holds === now) return;
    if (cell.read && isChanged(cell.song, now, cell.read)) return work(cell, now);
    for (const { cell: other, value } of cell.rests) {
      settle(other);
      if (other.value !== value) return work(cell, now);
    }
    cell.holds = now;
  }

  function get<At extends Argument[], T>(fact: Fact<At, T>, at: At): T {
    const id = [fact.id, ...at.map((a) => (typeof a === "string" ? a : placeKey(a)))].join(" ");
    let cell = cells.get(id);
    if (cell) settle(cell);
    else {
      cell = {
        fact: fact as unknown as Cell["fact"],
        at,
        value: undefined,
        song: sure(song),
        read: null,
        rests: [],
        holds: sure(song),
      };
      work(cell, sure(song));
      cells.set(id, cell);
    }
    open.at(-1)?.push({ cell, value: cell.value });
    return cell.value as T;
  }

  return {
    counts,
    at(next) {
      if (open.length) throw new Error("A fact cannot move to another song while it is worked out.");
      if (next !== song) {
        mark(next);
        song = next;
      }
      return {
        song: next,
        get: (fact, ...at) => {
          // A reader that was kept while the memory moved on leads back to its own song.
          song = next;
          return get(fact, at);
        },
      };
    },
  };
}

const memories = new WeakMap<Song, Reader>();

/** The facts of a song that stands alone: worked out once for as long as the song is kept. */
export function factsOf(song: Song): Reader {
  let reader = memories.get(song);
  if (!reader) memories.set(song, (reader = createMemory().at(song)));
  return reader;
}
