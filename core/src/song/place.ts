import { sameEntries, sure } from "../base/list";
import type { Ticks } from "../theory/time/meter";
import { passOf, sectionMeter, sectionOf } from "./document";
import { beginningAt } from "./layouts";
import type { ChordEvent, Pass, Section, Song } from "./schema";

/** A section, or one pass of it in the form. */
export interface Place {
  kind: "section" | "pass";
  id: string;
}

export const sectionPlace = (id: string): Place => ({ kind: "section", id });

/** One text for a place, as a key of maps. */
export const placeKey = ({ kind, id }: Place): string => `${kind} ${id}`;

/** What a pass changes; one that changes nothing sounds as its section does. */
const CHANGES = ["bars", "transpose", "muted", "playing", "voicings", "own"] as const;

/** The place of a pass: that of its section where nothing is different, so that equal passes are worked out once. */
export function passPlace(song: Song, id: string): Place {
  const pass = passOf(song, id);
  return pass && CHANGES.every((name) => pass[name] === undefined)
    ? sectionPlace(pass.sectionId)
    : { kind: "pass", id };
}

export interface Found {
  /** With the bars that the pass has for itself put in. */
  section: Section;
  pass: Pass | undefined;
}

/** What stands at a place; null where there is no such section or pass. */
export function findPlace(song: Song, { kind, id }: Place): Found | null {
  if (kind === "section") {
    const section = sectionOf(song, id);
    return section ? { section, pass: undefined } : null;
  }
  const pass = passOf(song, id);
  const section = pass && sectionOf(song, pass.sectionId);
  return pass && section ? { section: withOwnBars(song, section, pass), pass } : null;
}

/** Chords outside a stretch, cut where they reach into it, and those of another list inside it. */
export function spliced(
  chords: readonly ChordEvent[],
  own: readonly ChordEvent[],
  from: Ticks,
  to: Ticks,
): ChordEvent[] {
  const outside = chords.flatMap((c) => [...cutChord(c, -Infinity, from), ...cutChord(c, to, Infinity)]);
  return [...outside, ...own.flatMap((c) => cutChord(c, from, to))].sort((a, b) => a.start - b.start);
}

/** What of a chord lies in a stretch; nothing where it does not reach into it. */
export function cutChord(chord: ChordEvent, from: Ticks, to: Ticks): ChordEvent[] {
  const [start, end] = [Math.max(chord.start, from), Math.min(chord.start + chord.duration, to)];
  if (end <= start) return [];
  return start === chord.start && end === chord.start + chord.duration
    ? [chord]
    : [{ ...beginningAt(chord, start), duration: end - start }];
}

/** What of chords, drums and notes lies in a stretch of bars. */
export function cutMusic({ chords, groove, notes }: Music, [from, to]: readonly [number, number], bar: Ticks): Music {
  const inside = beginsIn(from * bar, to * bar);
  return {
    ...(chords ? { chords: chords.flatMap((c) => cutChord(c, from * bar, to * bar)) } : {}),
    ...(groove
      ? { groove: { ...groove, lanes: groove.lanes.map((l) => ({ ...l, hits: l.hits.filter(inside) })) } }
      : {}),
    ...(notes
      ? { notes: Object.fromEntries(Object.entries(notes).map(([part, list]) => [part, list.filter(inside)])) }
      : {}),
  };
}

type Music = { [K in "chords" | "groove" | "notes"]?: Section[K] | undefined };

/** Pieces of one chord that meet again, as one. */
export function rejoined(chords: readonly ChordEvent[]): ChordEvent[] {
  const out: ChordEvent[] = [];
  for (const c of chords) {
    const last = out.at(-1);
    if (last?.id === c.id && last.symbol === c.symbol && last.start + last.duration === c.start)
      out[out.length - 1] = { ...last, duration: last.duration + c.duration };
    else out.push(c);
  }
  return out;
}

/** Whether something begins in a stretch of bars; what begins before the first bar belongs to it. */
export const beginsIn =
  (from: Ticks, to: Ticks) =>
  (x: { start: Ticks }): boolean =>
    (x.start >= from || from === 0) && x.start < to;

/** The same things with an id of their own each: what came from two places may share one. */
function told<T extends { id: string }>(list: readonly T[], taken: Set<string>): T[] {
  const all = list.map((x) => {
    let { id } = x;
    while (taken.has(id)) id = `${id.slice(0, 38)}'`;
    taken.add(id);
    return id === x.id ? x : { ...x, id };
  });
  // A list that is as it was stays the same object, and what rests on it stands.
  return sameEntries(all, list) ? (list as T[]) : all;
}

/**
 * A section as one pass plays it: in the bars that are its own, its chords, drums and notes stand for those of the
 * section.
 */
export function withOwnBars(song: Song, section: Section, pass: Pass): Section {
  if (!pass.own) return section;
  const { bar } = sectionMeter(song, section);
  const put = pass.own.reduce((base, { bars, chords, groove, notes }): Section => {
    const [from, to] = [bars[0] * bar, bars[1] * bar];
    const inside = beginsIn(from, to);
    const either = <T extends { start: Ticks }>(theirs: readonly T[], own: readonly T[]): T[] =>
      [...theirs.filter((x) => !inside(x)), ...own.filter(inside)].sort((a, b) => a.start - b.start);
    const drums = new Set([...base.groove.lanes, ...(groove?.lanes ?? [])].map((l) => l.drum));
    return {
      ...base,
      chords: chords ? spliced(base.chords, chords, from, to) : base.chords,
      groove: groove
        ? {
            ...base.groove,
            lanes: [...drums].map((drum) => {
              const [lane, own] = [base.groove.lanes, groove.lanes].map((lanes) => lanes.find((l) => l.drum === drum));
              return { ...(lane ?? sure(own)), hits: either(lane?.hits ?? [], own?.hits ?? []) };
            }),
          }
        : base.groove,
      notes: notes
        ? {
            ...base.notes,
            ...Object.fromEntries(
              Object.entries(notes).map(([part, own]) => [part, either(base.notes[part] ?? [], own)]),
            ),
          }
        : base.notes,
    };
  }, section);
  const taken = new Set<string>();
  return {
    ...put,
    chords: told(rejoined(put.chords), new Set()),
    notes: Object.fromEntries(Object.entries(put.notes).map(([part, list]) => [part, told(list, taken)])),
  };
}
