import { nth, sure } from "../../base/list";
import { produce, type Draft } from "immer";
import { counted } from "../../theory/words/english";
import type { Problem } from "../../base/result";
import type { Ticks } from "../../theory/time/meter";
import { sectionMeter, sectionOf } from "../document";
import { freeNumber } from "../integrity";
import { movedMusic, movesOf, passAlone } from "../passView";
import { layoutIn, sameLayout } from "../layouts";
import { beginsIn, cutChord, cutMusic, rejoined, spliced, withOwnBars } from "../place";
import type { Note, Pass, Section, Song } from "../schema";
import { refuse } from "./define";
import type { Edit } from "./list";
import { moveMaterial } from "./moving";

type Own = NonNullable<Pass["own"]>[number];
type Notes = Section["notes"];

/** Kinds of what stands in a bar: chords, drums, and the notes of a part, by its id. */
const CHORDS: unique symbol = Symbol("chords");
const DRUMS: unique symbol = Symbol("drums");
type Kind = typeof CHORDS | typeof DRUMS | string;
const isPart = (kind: Kind): kind is string => typeof kind === "string";

/** Why a change of one pass cannot make its section longer or shorter. */
export const lengthRefused = ({ name, bars }: Section): Problem =>
  refuse(
    "here",
    `${name} has ${counted(bars, "bar")} in all its passes; a change here only cannot make it longer or shorter`,
    "Change the section, or play fewer of its bars in this pass.",
  );

/** The song in which an edit of a pass is made, with ids that are free in all of the song. */
export function openPass(song: Song, section: Section, pass: Pass): Song {
  return { ...passAlone(song, section, pass), nextId: Math.max(freeNumber(song, "c"), freeNumber(song, "n")) };
}

type SetPlaying = Extract<Edit, { do: "setPlaying" }>;

/**
 * How a part plays, set while a pass is looked at: for the pass where it is meant there, or where the pass has that
 * value for itself; otherwise where it was meant.
 */
export function playedInPass(
  pass: Pass,
  { do: _, part, section, pass: _pass, ...ways }: SetPlaying,
  here: boolean,
): Edit[] {
  const own = pass.playing?.[part] as Record<string, Record<string, unknown>> | undefined;
  const [mine, others]: Record<string, Record<string, unknown>>[] = [{}, {}];
  for (const [way, values] of Object.entries(ways))
    for (const [name, value] of Object.entries(values ?? {}))
      ((here || own?.[way]?.[name] !== undefined ? sure(mine) : sure(others))[way] ??= {})[name] = value;
  return [
    ...(Object.keys(sure(mine)).length ? [{ do: "setPlaying", part, pass: pass.id, ...mine } as Edit] : []),
    ...(Object.keys(sure(others)).length
      ? [{ do: "setPlaying", part, ...(section === undefined ? {} : { section }), ...others } as Edit]
      : []),
  ];
}

/** Whether an edit of a pass changed anything but the music of its section and takes. */
export function beyondMusic(open: Song, after: Song, sectionId: string): boolean {
  const music = new Set(["chords", "groove", "notes", "bars", "beyond"]);
  const others = (Object.keys({ ...open, ...after }) as (keyof Song)[]).some(
    (name) => !["sections", "nextId", "takes"].includes(name) && open[name] !== after[name],
  );
  return (
    others ||
    open.sections.length !== after.sections.length ||
    after.sections.some((s, i) => {
      const was = nth(open.sections, i);
      return (
        s !== was &&
        (s.id !== sectionId ||
          (Object.keys({ ...was, ...s }) as (keyof Section)[]).some((k) => !music.has(k) && was[k] !== s[k]))
      );
    })
  );
}

/**
 * Brings what was changed in a pass back into the song: bars that the pass has for itself are changed there, and so is
 * everything where it is meant `here` only; the rest goes to the section. Names go back to the key of the section.
 */
export function closePass(
  song: Song,
  pass: Pass,
  open: Song,
  { after, here }: { after: Song; here: boolean },
): Song | Problem {
  const section = sure(sectionOf(song, pass.sectionId));
  const [was, is] = [sure(sectionOf(open, section.id)), sure(sectionOf(after, section.id))];
  const { bar } = sectionMeter(song, section);
  if (here && settings(was) !== settings(is))
    return refuse(
      "here",
      "How a drum is set up, and its main accents, belong to the section, not to one pass",
      "Change the section.",
    );
  const moves = movesOf(song, pass);
  const back = moves ? movedMusic(is, moves.back, moves.id, "back") : is;
  const { home, voicings } = apart(back, pass, withOwnBars(song, section, pass));
  const changed = changesOf(was, is, bar, is.bars);
  const owned = ownedOf(pass, is.bars);
  const shared = changed.map((kinds, b) =>
    here ? new Set<Kind>() : new Set([...kinds].filter((k) => !nth(owned, b).has(k))),
  );
  if (here) changed.forEach((kinds, b) => kinds.forEach((k) => nth(owned, b).add(k)));
  let nextId = Math.max(song.nextId, after.nextId === open.nextId ? 0 : after.nextId);
  const next = withShared(section, { home, is, was }, shared, {
    bar,
    fresh: () => {
      nextId = Math.max(nextId, freeNumber(after, "c")) + 1;
      return `c${nextId - 1}`;
    },
  });
  // A bar that says what the section says is no longer different.
  changed.forEach((kinds, b) => {
    for (const kind of kinds)
      if (nth(owned, b).has(kind) && textIn(next, kind, b, bar) === textIn(home, kind, b, bar))
        nth(owned, b).delete(kind);
  });
  const touched = changed.some((kinds, b) => [...kinds].some((k) => !nth(shared, b).has(k)));
  const own = touched ? ownBars(home, owned, bar) : pass.own;
  const { own: _, voicings: _voicings, ...plain } = pass;
  const takes = after.takes === open.takes ? song.takes : takesOf(open, after, moves?.back);
  return {
    ...song,
    sections: next === section ? song.sections : song.sections.map((s) => (s === section ? next : s)),
    form:
      own === pass.own && voicings === pass.voicings
        ? song.form
        : song.form.map((p) =>
            p === pass ? { ...plain, ...(own?.length ? { own } : {}), ...(voicings ? { voicings } : {}) } : p,
          ),
    takes,
    nextId,
  };
}

/** The section without the layouts that are the pass's alone, and those as they are now. */
function apart(section: Section, pass: Pass, base: Section): { home: Section; voicings: Pass["voicings"] } {
  if (!pass.voicings) return { home: section, voicings: undefined };
  const shared = new Map(base.chords.map((c) => [c.id, c.voicings]));
  const voicings = { ...pass.voicings };
  let changed = false;
  const chords = section.chords.map((chord) => {
    const own = { ...chord.voicings };
    for (const [part, layouts] of Object.entries(sure(pass.voicings))) {
      const [stored, is] = [layouts[chord.id], own[part]];
      if (!stored || !is) continue;
      if (!sameLayout(layoutIn(stored), is)) {
        voicings[part] = { ...voicings[part], [chord.id]: is };
        changed = true;
      }
      const before = shared.get(chord.id)?.[part];
      if (before) own[part] = before;
      else delete own[part];
    }
    const { voicings: _, ...rest } = chord;
    return chord.voicings ? { ...rest, ...(Object.keys(own).length ? { voicings: own } : {}) } : chord;
  });
  return { home: { ...section, chords }, voicings: changed ? voicings : pass.voicings };
}

/** Takes that were kept while a pass was looked at, in the key of the section. */
function takesOf(open: Song, after: Song, back: Parameters<typeof moveMaterial>[1] | undefined): Song["takes"] {
  return after.takes.map((take) =>
    open.takes.includes(take) || !back ? take : produce(take, (draft: Draft<typeof take>) => moveMaterial(draft, back)),
  );
}

/** What of the drums belongs to no bar. */
const settings = ({ groove: { lanes, accents } }: Section): string =>
  JSON.stringify([
    accents,
    lanes.flatMap(({ hits: _, drum, ...set }) => (Object.keys(set).length ? [[drum, set]] : [])),
  ]);

const noId = (key: string, value: unknown): unknown => (key === "id" ? undefined : value);

/** What stands in a bar, as text. */
function textIn(section: Section, kind: Kind, b: number, bar: Ticks): string {
  const [from, to] = [b * bar, (b + 1) * bar];
  const inside = beginsIn(from, to);
  if (kind === CHORDS)
    return JSON.stringify(
      section.chords.flatMap((c) => cutChord(c, from, to)),
      noId,
    );
  if (kind === DRUMS)
    return JSON.stringify(
      section.groove.lanes.flatMap((l) => (l.hits.some(inside) ? [[l.drum, l.hits.filter(inside)]] : [])).sort(),
    );
  return JSON.stringify((section.notes[kind] ?? []).filter(inside), noId);
}

/** What has changed, bar by bar. */
function changesOf(was: Section, is: Section, bar: Ticks, bars: number): Set<Kind>[] {
  const kinds: Kind[] = [
    ...(was.chords === is.chords ? [] : [CHORDS as Kind]),
    ...(was.groove === is.groove ? [] : [DRUMS as Kind]),
    ...[...new Set([...Object.keys(was.notes), ...Object.keys(is.notes)])].filter((p) => was.notes[p] !== is.notes[p]),
  ];
  return Array.from(
    { length: bars },
    (_, b) => new Set(kinds.filter((k) => textIn(was, k, b, bar) !== textIn(is, k, b, bar))),
  );
}

/** What a pass has for itself, bar by bar. */
function ownedOf(pass: Pass, bars: number): Set<Kind>[] {
  const out = Array.from({ length: Math.max(bars, ...(pass.own ?? []).map((o) => o.bars[1])) }, () => new Set<Kind>());
  for (const { bars: span, chords, groove, notes } of pass.own ?? [])
    for (let b = span[0]; b < span[1]; b++) {
      if (chords) nth(out, b).add(CHORDS);
      if (groove) nth(out, b).add(DRUMS);
      for (const part of Object.keys(notes ?? {})) nth(out, b).add(part);
    }
  return out;
}

/** Neighboring bars that have the same kinds of things for themselves, as one stretch. */
function ownBars(home: Section, owned: readonly ReadonlySet<Kind>[], bar: Ticks): Own[] {
  const out: Own[] = [];
  const alike = (a: ReadonlySet<Kind>, b: ReadonlySet<Kind>) => a.size === b.size && [...a].every((k) => b.has(k));
  for (let b = 0; b < owned.length;) {
    let to = b + 1;
    while (to < owned.length && alike(nth(owned, to), nth(owned, b))) to++;
    if (nth(owned, b).size) out.push(ownStretch(home, nth(owned, b), [b, to], bar));
    b = to;
  }
  return out;
}

function ownStretch(
  { chords, groove, notes }: Section,
  kinds: ReadonlySet<Kind>,
  bars: [number, number],
  bar: Ticks,
): Own {
  const parts = [...kinds].filter(isPart);
  const mine = {
    ...(kinds.has(CHORDS) ? { chords } : {}),
    ...(kinds.has(DRUMS) ? { groove: { lanes: groove.lanes } } : {}),
    ...(parts.length ? { notes: Object.fromEntries(parts.map((p) => [p, notes[p] ?? []])) } : {}),
  };
  return { bars, ...cutMusic(mine, bars, bar) };
}

/** A section with the bars that all its passes share as they are now. */
function withShared(
  section: Section,
  { home, is, was }: Record<"home" | "is" | "was", Section>,
  shared: readonly ReadonlySet<Kind>[],
  { bar, fresh }: { bar: Ticks; fresh: () => string },
): Section {
  const next = { ...section };
  let changed = false;
  if (was.bars !== is.bars) [next.bars, changed] = [is.bars, true];
  if (was.beyond !== is.beyond) {
    changed = true;
    if (home.beyond) next.beyond = home.beyond;
    else delete next.beyond;
  }
  if (settings(was) !== settings(is)) {
    changed = true;
    next.groove = {
      ...home.groove,
      lanes: home.groove.lanes.map((l) => ({
        ...l,
        hits: section.groove.lanes.find((o) => o.drum === l.drum)?.hits ?? [],
      })),
    };
  }
  const inShared = (kind: Kind) => (x: { start: Ticks }) =>
    shared[Math.max(0, Math.floor(x.start / bar))]?.has(kind) ?? false;
  const mixed = <T extends { start: Ticks }>(kind: Kind, old: readonly T[], now: readonly T[]): T[] =>
    [...old.filter((x) => !inShared(kind)(x)), ...now.filter(inShared(kind))].sort((a, b) => a.start - b.start);
  const kinds = new Set(shared.flatMap((s) => [...s]));
  for (const kind of kinds) {
    changed = true;
    if (kind === CHORDS)
      next.chords = withFreshIds(rejoined(sharedChords(next.chords, home.chords, shared, bar)), fresh);
    else if (kind === DRUMS) {
      const drums = [...new Set([...next.groove.lanes, ...home.groove.lanes].map((l) => l.drum))];
      const lane = (s: Section, drum: string) => s.groove.lanes.find((l) => l.drum === drum);
      next.groove = {
        ...next.groove,
        lanes: drums.map((drum) => ({
          ...(lane(next, drum) ?? sure(lane(home, drum))),
          hits: mixed(DRUMS, lane(next, drum)?.hits ?? [], lane(home, drum)?.hits ?? []),
        })),
      };
    } else {
      const notes: Notes = {
        ...next.notes,
        [kind]: mixed<Note>(kind, section.notes[kind] ?? [], home.notes[kind] ?? []),
      };
      next.notes = notes;
    }
  }
  return changed ? next : section;
}

/** A chord that was cut in two is two chords. */
function withFreshIds(chords: Section["chords"], fresh: () => string): Section["chords"] {
  const taken = new Set<string>();
  return chords.map((c) => {
    const id = taken.has(c.id) ? fresh() : c.id;
    taken.add(id);
    return id === c.id ? c : { ...c, id };
  });
}

function sharedChords(
  chords: Section["chords"],
  now: Section["chords"],
  shared: readonly ReadonlySet<Kind>[],
  bar: Ticks,
): Section["chords"] {
  let out = chords;
  for (let b = 0; b < shared.length;) {
    let to = b + 1;
    while (to < shared.length && nth(shared, to).has(CHORDS) === nth(shared, b).has(CHORDS)) to++;
    if (nth(shared, b).has(CHORDS)) out = spliced(out, now, b * bar, to * bar);
    b = to;
  }
  return out;
}
