import type { Ticks } from "../theory/time/meter";
import { sectionMeter } from "./document";
import { beginningAt } from "./layouts";
import { cutChord } from "./place";
import type { ChordEvent, Groove, Note, Section, Song, Stroke, Voicing } from "./schema";

/** What of a section, of bars a pass has for itself, or of a take is music. */
export type Music = { [K in "chords" | "groove" | "notes"]?: Section[K] | undefined };

/** How the time of a section is changed; null where something falls out. */
interface TimeMap {
  /** Where what begins at a tick goes. */
  begins(start: Ticks): Ticks | null;
  /** How much longer or shorter what lasts from one tick to another becomes. */
  lasts(start: Ticks, end: Ticks): Ticks;
}

/**
 * Room is made at a tick: what begins there or later goes along, what is held over it lasts on. An upbeat goes along
 * with the first bar it leads into.
 */
const widening = (at: Ticks, by: Ticks): TimeMap => ({
  begins: (start) => (start >= at || at === 0 ? start + by : start),
  lasts: (start, end) => (at > 0 && start < at && end > at ? by : 0),
});

/**
 * A stretch is taken out: what begins in it goes with it, what is held into it is shorter, what comes later moves up.
 * Of the first bars, what leads into the bar that follows becomes the upbeat (of so many ticks).
 */
const narrowing = (from: Ticks, to: Ticks, pickup: Ticks): TimeMap => ({
  begins(start) {
    const upbeat = from === 0 && start >= to - pickup;
    if (start >= to || upbeat) return start - (to - from);
    // The upbeat of the first bars goes with them.
    return from > 0 && start < from ? start : null;
  },
  lasts: (start, end) => (start < from && end > from ? from - Math.min(end, to) : 0),
});

function mapped<T extends { start: Ticks; duration: Ticks }>(list: readonly T[], time: TimeMap): T[] {
  return list.flatMap((x): T[] => {
    const start = time.begins(x.start);
    const by = time.lasts(x.start, x.start + x.duration);
    if (start === null) return [];
    return start === x.start && !by ? [x] : [{ ...x, start, duration: x.duration + by }];
  });
}

/** Strokes of a chord go with the ticks at which they are struck. */
function strokesMapped(chord: ChordEvent, start: Ticks, time: TimeMap): ChordEvent["voicings"] {
  const moved = (strokes: readonly Stroke[]) =>
    strokes.flatMap((s): Stroke[] => {
      const at = time.begins(Math.max(0, chord.start + s.at));
      return at === null ? [] : [{ ...s, at: at - start }];
    });
  return Object.fromEntries(
    Object.entries(chord.voicings ?? {}).map(([part, v]): [string, Voicing] => [
      part,
      v.strokes ? { ...v, strokes: moved(v.strokes) } : v,
    ]),
  );
}

/** Chords are held over their whole length: of one that begins in a stretch that goes, what comes later stays. */
function chordsMapped(
  chords: readonly ChordEvent[],
  time: TimeMap,
  gone: readonly [Ticks, Ticks] | null,
): ChordEvent[] {
  return chords.flatMap((chord): ChordEvent[] => {
    const [from, to] = gone ?? [0, 0];
    const end = chord.start + chord.duration;
    const cut = gone && chord.start >= from && chord.start < to && end > to ? beginningAt(chord, to) : chord;
    const kept = cut === chord ? chord : { ...cut, duration: end - to };
    const [moved] = mapped([kept], time);
    if (!moved || moved === kept) return moved ? [moved] : [];
    const strokes = kept.voicings && Object.values(kept.voicings).some((v) => v.strokes);
    return [strokes ? { ...moved, voicings: strokesMapped(kept, moved.start, time) } : moved];
  });
}

function grooveMapped(groove: Groove, { begins }: TimeMap): Groove {
  const accents = groove.accents?.flatMap((a) => begins(a) ?? []);
  return {
    ...groove,
    lanes: groove.lanes.map((lane) => ({
      ...lane,
      hits: lane.hits.flatMap((h) => {
        const start = begins(h.start);
        return start === null || start < 0 ? [] : [start === h.start ? h : { ...h, start }];
      }),
    })),
    ...(accents ? { accents: accents.filter((a) => a >= 0) } : {}),
  };
}

function musicMapped<M extends Music>(music: M, time: TimeMap, gone: readonly [Ticks, Ticks] | null): M {
  const { chords, groove, notes } = music;
  return {
    ...music,
    ...(chords ? { chords: chordsMapped(chords, time, gone) } : {}),
    ...(groove ? { groove: grooveMapped(groove, time) } : {}),
    ...(notes
      ? { notes: Object.fromEntries(Object.entries(notes).map(([part, list]) => [part, mapped(list, time)])) }
      : {}),
  };
}

/** Music with room made at a tick. */
export const widened = <M extends Music>(music: M, at: Ticks, by: Ticks): M =>
  musicMapped(music, widening(at, by), null);

/** Music without a stretch; `pickup`: the upbeat its section has. */
export const narrowed = <M extends Music>(music: M, [from, to]: readonly [Ticks, Ticks], pickup: Ticks): M =>
  musicMapped(music, narrowing(from, to, pickup), [from, to]);

/** Where a tick goes when room is made, or a stretch is taken out; null where it is in that. */
export const tickWidened = (tick: Ticks, at: Ticks, by: Ticks): Ticks => (tick >= at ? tick + by : tick);
export function tickNarrowed(tick: Ticks, [from, to]: readonly [Ticks, Ticks]): Ticks | null {
  if (tick < from) return tick;
  return tick < to ? null : tick - (to - from);
}

/** Music as much later, or earlier. */
export function shifted<M extends Music>(music: M, by: Ticks): M {
  const later = <T extends { start: Ticks }>(list: readonly T[]): T[] =>
    list.map((x) => ({ ...x, start: x.start + by }));
  const { chords, groove, notes } = music;
  return {
    ...music,
    ...(chords ? { chords: later(chords) } : {}),
    ...(groove
      ? {
          groove: {
            ...groove,
            lanes: groove.lanes.map((l) => ({ ...l, hits: later(l.hits) })),
            ...(groove.accents ? { accents: groove.accents.map((a) => a + by) } : {}),
          },
        }
      : {}),
    ...(notes ? { notes: Object.fromEntries(Object.entries(notes).map(([part, list]) => [part, later(list)])) } : {}),
  };
}

/** What of a stretch is meant: chords, drums, parts; all that there is where nothing is said. */
export interface Chosen {
  chords?: boolean | undefined;
  drums?: boolean | undefined;
  /** Ids; all parts where absent. */
  parts?: readonly string[] | undefined;
}

/** Bars that were copied: their music from their first bar on, and how long a bar is. */
export interface Piece {
  bars: number;
  bar: Ticks;
  chords?: ChordEvent[];
  groove?: Groove;
  notes?: Record<string, Note[]>;
}

/** Whether a part is among those that are chosen. */
const isChosen = ({ parts }: Chosen, part: string): boolean => parts?.includes(part) ?? true;

/** What of a section is chosen; all of its bars. */
export function chosenOf({ chords, groove, notes }: Section, chosen: Chosen): Music {
  const whole = chosen.chords === undefined && chosen.drums === undefined && chosen.parts === undefined;
  const { accents: _, ...drums } = groove;
  return {
    ...((chosen.chords ?? whole) ? { chords } : {}),
    ...((chosen.drums ?? whole) ? { groove: drums } : {}),
    notes: Object.fromEntries(
      Object.entries(notes).filter(([part]) => (chosen.parts || whole ? isChosen(chosen, part) : false)),
    ),
  };
}

/**
 * A copy of bars: chords cut to them, what begins in them with its whole length. What leads into the first bar as an
 * upbeat goes along with it.
 */
export function pieceOf(
  song: Song,
  section: Section,
  { bars: [from, to], ...chosen }: { bars: readonly [number, number] } & Chosen,
): Piece {
  const { bar } = sectionMeter(song, section);
  const [begin, end] = [from * bar, to * bar];
  const { chords, groove, notes = {} } = chosenOf(section, chosen);
  const inside = (x: { start: Ticks }) => (x.start >= begin || from === 0) && x.start < end;
  const music: Music = {
    ...(chords ? { chords: chords.flatMap((c) => cutChord(c, begin, end)) } : {}),
    ...(groove ? { groove: { lanes: groove.lanes.map((l) => ({ ...l, hits: l.hits.filter(inside) })) } } : {}),
    notes: Object.fromEntries(Object.entries(notes).map(([part, list]) => [part, list.filter(inside)] as const)),
  };
  const { notes: cut = {}, ...rest } = shifted(music, -begin);
  return { bars: to - from, bar, ...(rest as Omit<Piece, "bars" | "bar">), notes: cut };
}
