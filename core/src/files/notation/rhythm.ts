import { sure } from "../../base/list";
import type { Meter, Ticks } from "../../theory/time/meter";
import type { RealizedNote } from "../../song/realize";
import { gridsOf, snapEdge, type BeatGrid } from "./durations";

export type Articulation = "staccato" | "tenuto";

/**
 * Notes of one voice that begin together, with the value a copyist gives them. Ticks from the beginning of the section.
 */
export interface WrittenAttack {
  start: Ticks;
  /** Where the written value ends: at the next attack, or earlier where silence is meant. */
  end: Ticks;
  notes: RealizedNote[];
  articulation: Articulation | null;
}

/**
 * Played for no more than this share of its value, a note is dotted; for all of it between short ones it has a line.
 */
const STACCATO = 0.6;
const TENUTO = 0.97;

const barOf = (tick: Ticks, meter: Meter): number => Math.floor(tick / meter.bar);

/**
 * Grids of the beats of each bar, asked for by attacks alone: where a note ends says nothing about how it is counted.
 */
export function gridsOfBars(notes: readonly { start: Ticks }[], meter: Meter): (bar: number) => readonly BeatGrid[] {
  const attacks = new Map<number, Ticks[]>();
  for (const n of notes) {
    const bar = barOf(n.start, meter);
    attacks.set(bar, [...(attacks.get(bar) ?? []), n.start - bar * meter.bar]);
  }
  const known = new Map<number, readonly BeatGrid[]>();
  return (bar) => {
    let grids = known.get(bar);
    if (!grids) known.set(bar, (grids = gridsOf(meter, attacks.get(bar) ?? [])));
    return grids;
  };
}

/** The nearest place on its bar's grid. */
export function snapTick(tick: Ticks, meter: Meter, grids: (bar: number) => readonly BeatGrid[]): Ticks {
  const bar = barOf(tick, meter);
  return bar * meter.bar + snapEdge(tick - bar * meter.bar, grids(bar));
}

/**
 * The coarsest part of a beat on which both a place and the one after it lie: what the rests and ties between them may
 * be made of.
 */
function unitBetween(start: Ticks, next: Ticks, meter: Meter, grids: (bar: number) => readonly BeatGrid[]): Ticks {
  const into = (tick: Ticks): { into: Ticks; beat: BeatGrid } => {
    const bar = barOf(tick, meter);
    const inBar = tick - bar * meter.bar;
    const beat = sure(grids(bar).findLast((g) => g.start <= inBar));
    return { into: inBar - beat.start, beat };
  };
  const [a, b] = [into(start), into(next)];
  const length = a.beat.end - a.beat.start;
  let parts: number[];
  if (a.beat.triplet) parts = [length, 160, 80];
  else if (length % 720 === 0) parts = [length, 240, 120, 60];
  else parts = [length, 240, 120, 60];
  return (
    parts.find(
      (part) =>
        a.into % part === 0 && (b.beat.triplet !== a.beat.triplet ? b.into === 0 || part < 160 : b.into % part === 0),
    ) ?? 60
  );
}

/**
 * The rhythm of one voice as it is written: each note lasts to the next attack, unless at least a unit of silence is
 * meant; shortness is a dot, not a rest (any handbook of notation). `length` is where the music ends.
 */
export function writeRhythm(notes: readonly RealizedNote[], meter: Meter, length: Ticks): WrittenAttack[] {
  const grids = gridsOfBars(notes, meter);
  const groups = new Map<Ticks, RealizedNote[]>();
  for (const n of notes) {
    const start = snapTick(n.start, meter, grids);
    groups.set(start, [...(groups.get(start) ?? []), n]);
  }
  const starts = [...groups.keys()].filter((t) => t < length).sort((a, b) => a - b);
  const out = starts.map((start, i): WrittenAttack & { share: number } => {
    const own = sure(groups.get(start));
    const next = starts[i + 1] ?? length;
    const sounding = Math.max(...own.map((n) => n.duration));
    const unit = unitBetween(start, next, meter, grids);
    const space = next - start;
    const wanted = Math.max(unit, Math.round(sounding / unit) * unit);
    const end = space - sounding < unit ? next : Math.min(next, snapTick(start + wanted, meter, grids));
    const value = Math.max(60, end - start);
    return { start, end: start + value, notes: own, articulation: null, share: Math.min(sounding, space) / value };
  });
  const short = out.filter((a) => a.share < 0.8).length;
  return out.map(({ share, ...attack }) => {
    const articulation = () => {
      if (share <= STACCATO && attack.end - attack.start <= 960) return "staccato";
      if (share >= TENUTO && attack.end - attack.start <= 480 && out.length > 3 && short > out.length * 0.6)
        return "tenuto";
      return null;
    };
    return {
      ...attack,
      articulation: articulation(),
    };
  });
}
