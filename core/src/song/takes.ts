import { firstOf, sure } from "../base/list";
import type { Ticks } from "../theory/time/meter";
import { LIMITS } from "./schema/scalars";
import { chosenOf, type Chosen, type Music } from "./stretch";
import type { ChordEvent, Groove, NewNote, Note, Section, Song, Take } from "./schema";

const notesIn = ({ notes = {} }: Take): number => Object.values(notes).reduce((sum, list) => sum + list.length, 0);

/** Whether a song can keep another take. */
export const hasRoom = ({ takes }: Pick<Song, "takes">): boolean =>
  takes.length < LIMITS.takes && takes.reduce((sum, t) => sum + notesIn(t), 0) < LIMITS.taken;

/** Bars a take is about; all of its section where it does not say. */
export const barsOf = (take: Take, section: Section): readonly [number, number] => take.bars ?? [0, section.bars];

const inside =
  ([from, to]: readonly [Ticks, Ticks]) =>
  (x: { start: Ticks }): boolean =>
    (x.start >= from || from === 0) && x.start < to;

/** What of a section a take would keep, as it stands: only what begins in its bars. */
export function kept(section: Section, bar: Ticks, chosen: Chosen, [a, b]: readonly [number, number]): Music {
  const { chords, groove, notes = {} } = chosenOf(section, chosen);
  const begins = inside([a * bar, b * bar]);
  return {
    ...(chords ? { chords: chords.filter(begins) } : {}),
    ...(groove ? { groove: { lanes: groove.lanes.map((l) => ({ ...l, hits: l.hits.filter(begins) })) } } : {}),
    notes: Object.fromEntries(Object.entries(notes).map(([part, list]) => [part, list.filter(begins)])),
  };
}

const noteText = (notes: readonly Note[]): string =>
  notes.map((n) => `${n.start}:${n.duration}:${n.pitch}:${n.velocity}`).join();
const chordText = (chords: readonly ChordEvent[]): string =>
  chords.map((c) => `${c.start}:${c.duration}:${c.symbol}`).join();
const hitText = ({ lanes }: Groove): string =>
  lanes
    .flatMap((l) => l.hits.map((h) => `${l.drum}:${h.start}:${h.velocity}`))
    .sort()
    .join();

/** Music as text: what sounds, without ids. Parts without notes say nothing. */
export const musicText = ({ chords, groove, notes = {} }: Music): string =>
  [
    chords ? `c ${chordText(chords)}` : "",
    groove ? `d ${hitText(groove)}` : "",
    ...Object.entries(notes)
      .filter(([, list]) => list.length)
      .map(([part, list]) => `${part} ${noteText(list)}`)
      .sort(),
  ].join("|");

/** How a take differs from what stands there now. */
export interface TakeDifference {
  /** Bars that differ, counted from 0. */
  bars: number[];
  /** Other places or lengths; other pitches at the same places; other chords; other hits. */
  rhythm: boolean;
  pitches: boolean;
  chords: boolean;
  drums: boolean;
  /** Notes more than there are now; below nothing: fewer. */
  notes: number;
}

const within = <T extends { start: Ticks }>(list: readonly T[], bar: Ticks, b: number): T[] =>
  list.filter(inside([b * bar, (b + 1) * bar]));

/** Where and how a take differs from its section as it is now. */
export function differenceOf(take: Take, section: Section, bar: Ticks): TakeDifference {
  const [from, to] = barsOf(take, section);
  const out: TakeDifference = { bars: [], rhythm: false, pitches: false, chords: false, drums: false, notes: 0 };
  const now = (part: string): readonly Note[] => section.notes[part] ?? [];
  for (let b = from; b < to; b++) {
    const lists = Object.entries(take.notes ?? {}).map(
      ([part, list]) => [within(list, bar, b), within(now(part), bar, b)] as const,
    );
    const rhythm = lists.some(
      ([a, c]) => a.map((n) => `${n.start}:${n.duration}`).join() !== c.map((n) => `${n.start}:${n.duration}`).join(),
    );
    const pitches = !rhythm && lists.some(([a, c]) => a.map((n) => n.pitch).join() !== c.map((n) => n.pitch).join());
    const chords =
      take.chords !== undefined && chordText(within(take.chords, bar, b)) !== chordText(within(section.chords, bar, b));
    const cut = (g: Groove): Groove => ({ lanes: g.lanes.map((l) => ({ ...l, hits: within(l.hits, bar, b) })) });
    const drums = take.groove !== undefined && hitText(cut(take.groove)) !== hitText(cut(section.groove));
    const loud = lists.some(([a, c]) => a.map((n) => n.velocity).join() !== c.map((n) => n.velocity).join());
    if (rhythm || pitches || chords || drums || loud) out.bars.push(b);
    out.rhythm ||= rhythm;
    out.pitches ||= pitches;
    out.chords ||= chords;
    out.drums ||= drums;
    out.notes += lists.reduce((sum, [a, c]) => sum + a.length - c.length, 0);
  }
  return out;
}

/** The note of a line that sounds at a tick, or the last before it, or its first. */
const soundingAt = (notes: readonly Note[], tick: Ticks): Note =>
  notes.findLast((n) => n.start <= tick) ?? firstOf(notes);

/** A line in the rhythm of another: each attack has the pitch that sounds there now. */
export const inRhythmOf = (now: readonly Note[], take: readonly Note[]): NewNote[] =>
  now.length
    ? take.map(({ start, duration, velocity }) => ({ start, duration, velocity, pitch: soundingAt(now, start).pitch }))
    : [];

/** A line with the pitches of another: one by one where there are as many, else the one that sounds there. */
export function withPitchesOf(now: readonly Note[], take: readonly Note[]): NewNote[] {
  if (!take.length) return [...now];
  const byOrder = now.length === take.length;
  return now.map(({ reason: _, slide: _slide, ...n }, i) => ({
    ...n,
    pitch: byOrder ? sure(take[i]).pitch : soundingAt(take, n.start).pitch,
  }));
}
