import { INSTRUMENTS } from "../theory/instrument/instruments";
import type { ChordEvent, Note } from "./schema/material";
import { LIMITS } from "./schema/scalars";
import type { Part, Pass, Section, Song } from "./schema/song";

/** Something that does not hold between the things of a song. */
export interface Breach {
  path: (string | number)[];
  message: string;
}

interface ListFacts {
  ids: Set<string>;
  /** An id that stands twice. */
  twice: string | null;
}

/** Lists are shared between versions of a song, so what is known of one is worked out once. */
const known = new WeakMap<readonly { id: string }[], ListFacts>();

function factsOf(list: readonly { id: string }[]): ListFacts {
  let facts = known.get(list);
  if (!facts) {
    const ids = new Set(list.map((x) => x.id));
    const twice =
      ids.size < list.length ? (list.find((x, i) => list.findIndex((y) => y.id === x.id) < i)?.id ?? null) : null;
    known.set(list, (facts = { ids, twice }));
  }
  return facts;
}

const COUNTED = /^([a-z]+)(\d{1,15})$/;
const counted = new WeakMap<readonly { id: string }[], Map<string, number>>();

/** The highest number that ids made from the counter have in a list, by what they begin with. */
function highestIn(list: readonly { id: string }[]): Map<string, number> {
  let highest = counted.get(list);
  if (!highest) {
    highest = new Map();
    for (const { id } of list) {
      const [, prefix, number] = COUNTED.exec(id) ?? [];
      if (prefix) highest.set(prefix, Math.max(highest.get(prefix) ?? 0, Number(number)));
    }
    counted.set(list, highest);
  }
  return highest;
}

const voicing = new WeakMap<readonly ChordEvent[], Set<string>>();
/** Parts that voice any of these chords. */
function voicedBy(chords: readonly ChordEvent[]): Set<string> {
  let parts = voicing.get(chords);
  if (!parts) voicing.set(chords, (parts = new Set(chords.flatMap((c) => Object.keys(c.voicings ?? {})))));
  return parts;
}

/** All lists of a section or of what a pass has of its own whose ids are made from the counter. */
function* idLists(song: Song): Generator<readonly { id: string }[]> {
  yield* [song.parts, song.sections, song.form, song.singers, song.waivers, song.takes, song.log];
  const beyond = song.sections.flatMap((s) => s.beyond ?? []);
  for (const holder of [...song.sections, ...beyond, ...song.form.flatMap((p) => p.own ?? []), ...song.takes]) {
    if (holder.chords) yield holder.chords;
    if (holder.notes) yield* Object.values(holder.notes);
  }
}

/** A number from which no id that begins so is taken, whatever the document's counter says. */
export function freeNumber(song: Song, prefix: string): number {
  let free = song.nextId;
  for (const list of idLists(song)) free = Math.max(free, (highestIn(list).get(prefix) ?? 0) + 1);
  return free;
}

/**
 * What does not hold between the things of a song: an id that stands twice, a reference to something that is not there,
 * more notes than a song may have. Null when all is well. Costs little for a song that shares its lists with one that
 * was looked at before.
 */
export function breachOf(song: Song): Breach | null {
  return (
    doubled(song) ??
    danglingRecord(song) ??
    song.sections.reduce<Breach | null>((found, s, i) => found ?? breachIn(song, s, ["sections", i]), null) ??
    tooManyNotes(song)
  );
}

const missing = (path: Breach["path"], what: string, id: string): Breach => ({
  path,
  message: `no ${what} has the id "${id}"`,
});

function doubled(song: Song): Breach | null {
  for (const name of ["sections", "parts", "form", "singers", "waivers", "takes", "log"] as const) {
    const { twice } = factsOf(song[name]);
    if (twice !== null) return { path: [name], message: `two of the ${name} share the id "${twice}"` };
  }
  return null;
}

/** The first breach of a list, each looked for only where those before it are none. */
function firstBreach<T>(list: readonly T[], breachOf: (item: T, i: number) => Breach | null): Breach | null {
  for (const [i, item] of list.entries()) {
    const found = breachOf(item, i);
    if (found) return found;
  }
  return null;
}

/** Looks for ids that nothing has. */
function finder(song: Song) {
  const sections = factsOf(song.sections).ids;
  const parts = factsOf(song.parts).ids;
  const takes = factsOf(song.takes).ids;
  const instruments = new Set([...INSTRUMENTS, ...(song.instruments ?? [])].map((i) => i.id));
  const among =
    (ids: ReadonlySet<string>, what: string) =>
    (id: string | undefined, ...path: Breach["path"]) =>
      id !== undefined && !ids.has(id) ? missing(path, what, id) : null;
  const part = among(parts, "part");
  return {
    part,
    section: among(sections, "section"),
    take: among(takes, "take"),
    instrument: among(instruments, "instrument"),
    eachPart: (ids: readonly string[], ...path: Breach["path"]) => firstBreach(ids, (id, i) => part(id, ...path, i)),
    eachKey: (record: object | undefined, ...path: Breach["path"]) =>
      firstBreach(Object.keys(record ?? {}), (id) => part(id, ...path, id)),
  };
}

/** An echo repeats a pitched part that is no echo itself. */
function oddEcho(song: Song, { echoes, link }: Part, i: number): Breach | null {
  if (echoes === undefined) return null;
  const odd = song.parts.some((q) => q.id === echoes && (q.echoes !== undefined || q.role === "drums"));
  if (!link && !odd) return null;
  const message = "an echo repeats a pitched part that is no echo itself, and plays no chords";
  return { path: ["parts", i, "echoes"], message };
}

/** References of everything but the sections. */
function danglingRecord(song: Song): Breach | null {
  const find = finder(song);
  const { part, section, take, instrument, eachPart, eachKey } = find;
  return (
    firstBreach(
      song.parts,
      (p, i) =>
        instrument(p.instrument, "parts", i, "instrument") ??
        part(p.link?.from, "parts", i, "link", "from") ??
        part(p.link?.top, "parts", i, "link", "top") ??
        part(p.echoes, "parts", i, "echoes") ??
        oddEcho(song, p, i),
    ) ??
    firstBreach(
      song.form,
      (pass, i) => section(pass.sectionId, "form", i, "sectionId") ?? breachOfPass(song, pass, i, find),
    ) ??
    firstBreach(
      song.takes,
      (t, i) =>
        section(t.sectionId, "takes", i, "sectionId") ??
        eachKey(t.notes, "takes", i, "notes") ??
        materialOf(song, t, ["takes", i]),
    ) ??
    firstBreach(
      song.waivers,
      (w, i) => section(w.sectionId, "waivers", i, "sectionId") ?? eachPart(w.parts, "waivers", i, "parts"),
    ) ??
    firstBreach(song.singers, (s, i) => part(s.partId, "singers", i, "partId")) ??
    firstBreach(
      song.log,
      (e, i) =>
        section(e.where?.sectionId, "log", i, "where", "sectionId") ??
        eachPart(e.where?.parts ?? [], "log", i, "where", "parts") ??
        take(e.takeId, "log", i, "takeId"),
    )
  );
}

function breachOfPass(
  song: Song,
  pass: Pass,
  i: number,
  { eachPart, eachKey }: ReturnType<typeof finder>,
): Breach | null {
  const plain =
    eachPart(pass.muted ?? [], "form", i, "muted") ??
    eachKey(pass.playing, "form", i, "playing") ??
    eachKey(pass.voicings, "form", i, "voicings");
  if (plain) return plain;
  const own = [...(pass.own ?? [])];
  for (const [k, o] of own.entries()) {
    const found = eachKey(o.notes, "form", i, "own", k, "notes") ?? materialOf(song, o, ["form", i, "own", k]);
    if (found) return found;
    const other = own.findIndex((x, j) => j < k && x.bars[0] < o.bars[1] && o.bars[0] < x.bars[1]);
    if (other >= 0) return { path: ["form", i, "own", k, "bars"], message: "two stretches of own bars overlap" };
  }
  return null;
}

function breachIn(song: Song, section: Section, path: Breach["path"]): Breach | null {
  const parts = factsOf(song.parts).ids;
  if (section.copyOf !== undefined && !factsOf(song.sections).ids.has(section.copyOf))
    return missing([...path, "copyOf"], "section", section.copyOf);
  for (const id of Object.keys(section.playing ?? {}))
    if (!parts.has(id)) return missing([...path, "playing", id], "part", id);
  return (
    materialOf(song, section, path) ?? (section.beyond ? materialOf(song, section.beyond, [...path, "beyond"]) : null)
  );
}

/** Chords, notes and lanes of one place: ids, and the parts they name. */
function materialOf(
  song: Song,
  { chords, notes, groove }: { [K in "chords" | "notes" | "groove"]?: Section[K] | undefined },
  path: Breach["path"],
): Breach | null {
  const parts = factsOf(song.parts).ids;
  if (chords) {
    const { twice } = factsOf(chords);
    if (twice !== null) return { path: [...path, "chords"], message: `two chords share the id "${twice}"` };
    for (const id of voicedBy(chords))
      if (!parts.has(id)) {
        const at = chords.findIndex((c) => c.voicings && id in c.voicings);
        return missing([...path, "chords", at, "voicings", id], "part", id);
      }
  }
  if (groove && new Set(groove.lanes.map((l) => l.drum)).size < groove.lanes.length)
    return { path: [...path, "groove", "lanes"], message: "two lanes hold the same drum" };
  const seen: Set<string>[] = [];
  for (const [part, list] of Object.entries(notes ?? {})) {
    if (!parts.has(part)) return missing([...path, "notes", part], "part", part);
    const { ids, twice } = factsOf(list);
    const shared = twice ?? seen.reduce<string | null>((found, other) => found ?? firstShared(other, ids), null);
    if (shared !== null) return { path: [...path, "notes", part], message: `two notes share the id "${shared}"` };
    seen.push(ids);
  }
  return null;
}

const sharing = new WeakMap<ReadonlySet<string>, WeakMap<ReadonlySet<string>, string | null>>();
/** An id that is in both sets; remembered, since most lists of a section stay as they were. */
function firstShared(a: ReadonlySet<string>, b: ReadonlySet<string>): string | null {
  let beside = sharing.get(a);
  if (!beside) sharing.set(a, (beside = new WeakMap()));
  let found = beside.get(b);
  if (found === undefined) {
    const [few, many] = a.size < b.size ? [a, b] : [b, a];
    found = null;
    for (const id of few)
      if (many.has(id)) {
        found = id;
        break;
      }
    beside.set(b, found);
  }
  return found;
}

const countOf = (notes: Record<string, readonly Note[]> | undefined): number =>
  Object.values(notes ?? {}).reduce((sum, list) => sum + list.length, 0);

/** Notes that sections and passes hold; takes are kept beside them. */
export const noteCount = (song: Song): number =>
  song.sections.reduce((sum, s) => sum + countOf(s.notes) + countOf(s.beyond?.notes), 0) +
  song.form.reduce((sum, p) => sum + (p.own ?? []).reduce((own, o) => own + countOf(o.notes), 0), 0);

function tooManyNotes(song: Song): Breach | null {
  const count = noteCount(song);
  return count > LIMITS.notes
    ? { path: ["sections"], message: `the song would have ${count} notes; ${LIMITS.notes} are allowed` }
    : null;
}
