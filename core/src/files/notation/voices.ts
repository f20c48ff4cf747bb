import { firstOf, lastOf, nth, sure } from "../../base/list";
import type { Midi } from "../../theory/pitch/pitch";
import { NINTH_SPAN } from "../../theory/instrument/hands";
import type { RealizedNote } from "../../song/realize";

/** Notes that begin and end together move as one. */
interface Event {
  start: number;
  end: number;
  notes: RealizedNote[];
}

const heightOf = ({ notes }: Event): number => notes.reduce((sum, n) => sum + n.midi, 0) / notes.length;

/** A note is held under the next attack when it goes on for an eighth and a quarter of its own length. */
const heldUnder = (a: Event, b: Event): boolean =>
  a.start < b.start && a.end - b.start >= Math.max(240, (a.end - a.start) / 4);

type Rivals = ReadonlyMap<Event, readonly Event[]>;

/** Notes that begin and end together are one event. */
function eventsOf(notes: readonly RealizedNote[]): Event[] {
  const byShape = new Map<string, Event>();
  for (const n of notes) {
    const end = n.start + n.duration;
    const id = `${n.start}:${end}`;
    const event = byShape.get(id);
    if (event) event.notes.push(n);
    else byShape.set(id, { start: n.start, end, notes: [n] });
  }
  return [...byShape.values()].sort((a, b) => a.start - b.start || a.end - b.end);
}

/** Struck together, so much longer is left far behind. */
const FAR = 480;

/** Events that cannot be in one voice: held under the other, or struck with it and left far behind. */
function rivalsOf(events: readonly Event[]): Rivals {
  const rivals = new Map<Event, Event[]>(events.map((e) => [e, []]));
  const leftBehind = (a: Event, b: Event) =>
    a.start === b.start &&
    Math.abs(a.end - b.end) >= FAR &&
    events.some((e) => e.start > a.start && e.start < Math.max(a.end, b.end));
  for (let i = 0; i < events.length; i++)
    for (let j = i + 1; j < events.length && nth(events, j).start < nth(events, i).end; j++) {
      const [a, b] = [nth(events, i), nth(events, j)];
      if (!heldUnder(a, b) && !leftBehind(a, b)) continue;
      sure(rivals.get(a)).push(b);
      sure(rivals.get(b)).push(a);
    }
  return rivals;
}

/** Two sides of all that hang together by rivalry, so that no rivals are on one side. */
function sidesFrom(event: Event, rivals: Rivals, seen: Set<Event>): [Set<Event>, Set<Event>] {
  const sides: [Set<Event>, Set<Event>] = [new Set(), new Set()];
  const queue: [Event, 0 | 1][] = [[event, 0]];
  seen.add(event);
  for (let next = queue.shift(); next; next = queue.shift()) {
    const [e, side] = next;
    sides[side].add(e);
    for (const r of sure(rivals.get(e)).filter((x) => !seen.has(x))) {
      seen.add(r);
      queue.push([r, side === 0 ? 1 : 0]);
    }
  }
  return sides;
}

/** Events of the lower voice among those that have rivals. */
function lowerOf(events: readonly Event[], rivals: Rivals): Set<Event> {
  const lower = new Set<Event>();
  const seen = new Set<Event>();
  const mean = (set: Set<Event>) => [...set].reduce((s, e) => s + heightOf(e), 0) / Math.max(1, set.size);
  for (const event of events) {
    if (seen.has(event) || !sure(rivals.get(event)).length) continue;
    const [a, b] = sidesFrom(event, rivals, seen);
    for (const e of mean(a) >= mean(b) ? b : a) lower.add(e);
  }
  return lower;
}

/** A note that begins so shortly before another one ends does not cut it. */
const GRAZES = 60;

/**
 * One voice or two, the upper first: two only where a note is held while another one of the staff moves. Notes that
 * hold under each other go to different voices, the higher ones above; where three would be needed the shorter note is
 * cut in writing.
 */
export function splitVoices(notes: readonly RealizedNote[]): [upper: RealizedNote[], lower: RealizedNote[]] {
  const events = eventsOf(notes);
  const rivals = rivalsOf(events);
  const lower = lowerOf(events, rivals);
  // What begins while the upper of two voices still sounds, and lies below it, joins the lower one instead of cutting
  // it short.
  let sounding: Event[] = [];
  for (const event of events) {
    sounding = sounding.filter((e) => e.end > event.start + GRAZES);
    const under = (e: Event) => !lower.has(e) && e.start < event.start && heightOf(e) > heightOf(event);
    if (sure(rivals.get(event)).length) sounding.push(event);
    else if (sounding.length && sounding.every(under)) lower.add(event);
  }
  const of = (list: Event[]) => list.flatMap((e) => e.notes);
  return [of(events.filter((e) => !lower.has(e))), of(events.filter((e) => lower.has(e)))];
}

const MIDDLE: Midi = 60;
/** Costs of a division: a semitone past middle C on the wrong staff, and a second that two staves tear apart. */
const PAST = 0.5;
const TORN = 0.8;

/**
 * The notes of a keyboard by the hand that plays them. What begins together is divided near middle C, where hands can
 * hold it and no second is torn apart (common practice of engraving).
 */
export function handsOf(notes: readonly RealizedNote[]): [right: RealizedNote[], left: RealizedNote[]] {
  const right: RealizedNote[] = [];
  const left: RealizedNote[] = [];
  const groups = new Map<number, RealizedNote[]>();
  for (const n of notes) groups.set(n.start, [...(groups.get(n.start) ?? []), n]);
  for (const group of groups.values()) {
    const sorted = [...group].sort((a, b) => a.midi - b.midi);
    const cost = (split: number) => {
      const [low, high] = [sorted.slice(0, split), sorted.slice(split)];
      const held = [low, high].every(
        (h) => h.length <= 5 && (h.length < 2 || lastOf(h).midi - firstOf(h).midi <= NINTH_SPAN),
      );
      const past =
        low.reduce((s, n) => s + Math.max(0, n.midi + 1 - MIDDLE), 0) +
        high.reduce((s, n) => s + Math.max(0, MIDDLE - n.midi), 0);
      const torn = split > 0 && split < sorted.length && nth(sorted, split).midi - nth(sorted, split - 1).midi <= 2;
      return past * PAST + (torn ? TORN : 0) + (held ? 0 : 4);
    };
    let best = 0;
    for (let split = 1; split <= sorted.length; split++) if (cost(split) < cost(best)) best = split;
    left.push(...sorted.slice(0, best));
    right.push(...sorted.slice(best));
  }
  return [right, left];
}
