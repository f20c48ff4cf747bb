import type { Ticks } from "../theory/time/meter";
import type { ChordEvent, Groove, Lane, Note, Section } from "./schema";

/** What lies past the end of a section that was made shorter. */
type Beyond = NonNullable<Section["beyond"]>;

/** Splits a list at a tick: what begins before it, and what does not. */
const split = <T extends { start: Ticks }>(list: readonly T[], end: Ticks): [T[], T[]] => [
  list.filter((x) => x.start < end),
  list.filter((x) => x.start >= end),
];

/** A chord that reaches over the end is cut in two of one id. */
function cutChords(chords: readonly ChordEvent[], end: Ticks): [ChordEvent[], ChordEvent[]] {
  const pieces = chords.flatMap((c): ChordEvent[] =>
    c.start < end && c.start + c.duration > end
      ? [
          { ...c, duration: end - c.start },
          { ...c, start: end, duration: c.start + c.duration - end },
        ]
      : [c],
  );
  return split(pieces, end);
}

/** A section cut at a tick: nothing in it begins later, and what does is kept beside it. */
export function cutAt(section: Section, end: Ticks): Section {
  const [chords, laterChords] = cutChords(section.chords, end);
  const lanes = section.groove.lanes.map((lane) => [lane, ...split(lane.hits, end)] as const);
  const notes = Object.entries(section.notes).map(([part, list]) => [part, ...split(list, end)] as const);
  const { beyond: _, ...rest } = section;
  const accents = section.groove.accents?.filter((a) => a >= end) ?? [];
  const laterLanes = lanes.flatMap(([lane, , later]): Lane[] => (later.length ? [{ ...lane, hits: later }] : []));
  const laterNotes = notes.filter(([, , later]) => later.length).map(([part, , later]) => [part, later] as const);
  const beyond: Beyond = {
    ...(laterChords.length ? { chords: laterChords } : {}),
    ...(laterLanes.length || accents.length
      ? { groove: { lanes: laterLanes, ...(accents.length ? { accents } : {}) } }
      : {}),
    ...(laterNotes.length ? { notes: Object.fromEntries(laterNotes) } : {}),
  };
  if (!Object.keys(beyond).length) return rest;
  return {
    ...rest,
    chords,
    groove: {
      ...section.groove,
      lanes: lanes.map(([lane, within]) => ({ ...lane, hits: within })),
      ...(section.groove.accents ? { accents: section.groove.accents.filter((a) => a < end) } : {}),
    },
    notes: Object.fromEntries(notes.map(([part, within]) => [part, within])),
    beyond,
  };
}

const byStart = <T extends { start: Ticks }>(list: T[]): T[] => list.sort((a, b) => a.start - b.start);

/** Chords and those behind them; the two halves of a chord that was cut are one again. */
function joinChords(chords: readonly ChordEvent[], later: readonly ChordEvent[], fresh: () => string): ChordEvent[] {
  const joined = [...chords];
  for (const chord of later) {
    const same = joined.findIndex((c) => c.id === chord.id);
    const half = joined[same];
    if (!half) joined.push(chord);
    else if (half.symbol === chord.symbol && half.start + half.duration === chord.start)
      joined[same] = { ...half, duration: half.duration + chord.duration };
    else joined.push({ ...chord, id: fresh() });
  }
  return byStart(joined);
}

function joinGroove(groove: Groove, later: Groove | undefined): Groove {
  if (!later) return groove;
  const known = new Set(groove.lanes.map((l) => l.drum));
  const accents = [...(groove.accents ?? []), ...(later.accents ?? [])];
  return {
    ...groove,
    lanes: [
      ...groove.lanes.map((lane) => ({
        ...lane,
        hits: byStart([...lane.hits, ...(later.lanes.find((l) => l.drum === lane.drum)?.hits ?? [])]),
      })),
      ...later.lanes.filter((l) => !known.has(l.drum)),
    ],
    ...(accents.length ? { accents } : {}),
  };
}

/** A section with what was kept beside it. `fresh` makes an id for a chord whose own is taken. */
export function joined(section: Section, fresh: () => string): Section {
  const { beyond, ...rest } = section;
  if (!beyond) return section;
  const parts = [...new Set([...Object.keys(section.notes), ...Object.keys(beyond.notes ?? {})])];
  const notesWithLater = (part: string): Note[] =>
    byStart([...(section.notes[part] ?? []), ...(beyond.notes?.[part] ?? [])]);
  return {
    ...rest,
    chords: joinChords(section.chords, beyond.chords ?? [], fresh),
    groove: joinGroove(section.groove, beyond.groove),
    notes: beyond.notes ? Object.fromEntries(parts.map((part) => [part, notesWithLater(part)])) : section.notes,
  };
}

/** How much is kept past the end of a section. */
export function countBeyond({ beyond }: Section): { chords: number; notes: number; hits: number } {
  return {
    chords: beyond?.chords?.length ?? 0,
    notes: Object.values(beyond?.notes ?? {}).flat().length,
    hits: beyond?.groove?.lanes.reduce((sum, l) => sum + l.hits.length, 0) ?? 0,
  };
}
