import { firstOf, nth, sure } from "../../base/list";
import type { Meter, Ticks } from "../../theory/time/meter";

/** A written note value: vexflow and MusicXML call them so. */
export type NoteValue = "w" | "h" | "q" | "8" | "16" | "32";

export interface Written {
  start: Ticks;
  ticks: Ticks;
  value: NoteValue;
  dots: 0 | 1;
  /** One of three in the time of two. */
  triplet: boolean;
}

/** Inside a quarter every value reads; in a longer beat they stand on its eighths. */
const readsInBeat = (at: Ticks, ticks: Ticks, { start, end }: BeatGrid): boolean =>
  end - start <= 480 || (at - start) % Math.min(ticks, 240) === 0 || ticks <= 120;

const VALUES: [Ticks, NoteValue, 0 | 1][] = [
  [1920, "w", 0],
  [1440, "h", 1],
  [960, "h", 0],
  [720, "q", 1],
  [480, "q", 0],
  [360, "8", 1],
  [240, "8", 0],
  [180, "16", 1],
  [120, "16", 0],
  [60, "32", 0],
];

/** The finest straight and triplet grids that are written. */
const FINE: Ticks = 60;
const THIRD: Ticks = 80;

export interface BeatGrid {
  start: Ticks;
  end: Ticks;
  triplet: boolean;
}

/** Beats of a bar (quarters, dotted quarters, groups) with the grid the given edges ask for. */
export function gridsOf(meter: Meter, edges: readonly Ticks[]): BeatGrid[] {
  return meter.beats.map(({ start, duration }) => {
    const inside = edges.filter((e) => e > start && e < start + duration).map((e) => e - start);
    const far = (grid: Ticks) => inside.reduce((sum, e) => sum + Math.abs(e - Math.round(e / grid) * grid), 0);
    return { start, end: start + duration, triplet: duration === 480 && inside.length > 0 && far(THIRD) < far(FINE) };
  });
}

/** The nearest place that can be written. */
export function snapEdge(tick: Ticks, grids: readonly BeatGrid[]): Ticks {
  const beat = grids.findLast((g) => g.start <= tick) ?? firstOf(grids);
  const grid = beat.triplet ? THIRD : FINE;
  return Math.min(beat.end, beat.start + Math.round((tick - beat.start) / grid) * grid);
}

/**
 * Note values that write a stretch of a bar, tied one to the next, so that the beats can be seen: a value that begins
 * on a beat may last several, but crosses the middle of an even bar only from its beginning; one that begins between
 * beats ends with its beat, or is a syncopated value over one beat. Rests show the beats: they are not syncopated,
 * dotted only as the beat of a compound meter, and longer than a beat only where the bar is halved (Gould, *Behind
 * Bars*, from memory).
 */
export function write(
  from: Ticks,
  to: Ticks,
  meter: Meter,
  { grids, rest = false }: { grids: readonly BeatGrid[]; rest?: boolean | undefined },
): Written[] {
  const out: Written[] = [];
  const middle = meter.beats.length % 2 === 0 ? nth(meter.beats, meter.beats.length / 2).start : -1;
  let at = from;
  while (at < to) {
    const beat = sure(grids.findLast((g) => g.start <= at));
    if (beat.triplet) {
      const end = Math.min(to, beat.end);
      if (at === beat.start && end === beat.end)
        out.push({ start: at, ticks: 480, value: "q", dots: 0, triplet: false });
      else
        for (let t = at; t < end;) {
          const rest = end - t;
          const restValue = (): [Ticks, NoteValue] => {
            if (rest >= 320) return [320, "q"];
            if (rest >= 160 && (t - beat.start) % 160 === 0) return [160, "8"];
            return [80, "16"];
          };
          const [ticks, value] = restValue();
          out.push({ start: t, ticks, value, dots: 0, triplet: true });
          t += ticks;
        }
      at = end;
      continue;
    }
    const onBeat = at === beat.start;
    const nextTriplet = grids.find((g) => g.start >= beat.end && g.triplet)?.start ?? meter.bar;
    const limit = Math.min(to, nextTriplet, middle > at && at > 0 ? middle : to);
    const fits = ([ticks, , dots]: (typeof VALUES)[number]): boolean => {
      const end = at + ticks;
      if (end > limit) return false;
      if (rest && !restFits(at, ticks, dots, { meter, beat })) return false;
      if (end <= beat.end) return readsInBeat(at, ticks, beat);
      if (onBeat)
        return meter.beats.some((b) => b.start === end) || end === meter.bar || (ticks === 720 && meter.unit < 8);
      // A syncopation: an eighth before the beat to an eighth after it.
      if (meter.unit >= 8 || (at - beat.start) % 240 !== 0) return false;
      return ticks === 480 || (ticks === 720 && (end === middle || end === meter.bar));
    };
    const [ticks, value, dots] = VALUES.find(fits) ?? [Math.min(FINE, to - at), "32", 0];
    out.push({ start: at, ticks, value, dots, triplet: false });
    at += ticks;
  }
  return out;
}

/**
 * A rest that can be read: a whole beat of a compound meter, halves of an even bar, or a plain part of a beat in its
 * place.
 */
function restFits(at: Ticks, ticks: Ticks, dots: 0 | 1, { meter, beat }: { meter: Meter; beat: BeatGrid }): boolean {
  const length = beat.end - beat.start;
  const into = at - beat.start;
  if (ticks === length && into === 0) return true;
  if (dots) return false;
  if (ticks < length) return into % ticks === 0 && into + ticks <= length;
  const even = meter.beats.length % 2 === 0 && meter.beats.every((b) => b.duration === length);
  return even && ticks === 2 * length && at % ticks === 0;
}
