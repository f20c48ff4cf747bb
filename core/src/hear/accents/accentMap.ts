import { firstOf, nth } from "../../base/list";
import { onceFor } from "../../base/once";
import { fail, ok, type Result } from "../../base/result";
import { mod } from "../../theory/pitch/pitch";
import type { Meter, Ticks } from "../../theory/time/meter";
import { sectionMeter, sectionOf } from "../../song/document";
import type { Drum } from "../../theory/instrument/drums";
import { drumOf, drumPlayer, laneTitle, type PlayerId } from "../../song/players";
import { realize, type RealizedSong } from "../../song/realize";
import type { Song } from "../../song/schema";
import { syncopations, type Syncopation } from "./syncopation";

/** Two accents that miss each other by no more than this are heard as unclean: a sixteenth. */
const NEAR_MISS: Ticks = 120;
/** Grids a bar can be shown on, the coarsest first: sixteenths, sixteenth triplets, both. */
const GRIDS: readonly Ticks[] = [120, 80, 40];

/** One player: a pitched part, or one drum. */
export interface AccentRow {
  id: PlayerId;
  name: string;
  /** For every step of the bar from 0 to 1: how often and how strongly it is struck there. */
  strength: number[];
  /** Steps that are accents of this player: struck in most bars, and not much softer than its strongest one. */
  accents: number[];
  /** Syncopated attacks, held notes counted, and their weight for a bar. */
  syncopations: Syncopation[];
  syncopation: number;
}

export type PairKind = "agree" | "interlock" | "fight" | "apart";

/** How the accents of two players stand to each other. */
export interface AccentPair {
  a: PlayerId;
  b: PlayerId;
  kind: PairKind;
  /** Steps on which both have an accent. */
  together: number[];
  /** Accents of the two that miss each other by a sixteenth: heard as unclean. */
  nearMisses: [number, number][];
}

export interface AccentMap {
  meter: Meter;
  /** Length of a step, in ticks: sixteenths, or finer where triplets are attacks. */
  step: Ticks;
  steps: number;
  rows: AccentRow[];
  /** Over all players: who strikes where, added up. */
  total: number[];
  pairs: AccentPair[];
}

const STREAMS: readonly Drum[] = ["closedHat", "openHat", "pedalHat", "shaker", "ride", "tambourine"];

/** Players that keep time: they have no accent of their own to give up. */
export const keepsTime = (id: PlayerId): boolean => STREAMS.some((drum) => drum === drumOf(id));

const ACCENT_SHARE = 0.6;

/** Accents are what most bars have and what is not much softer than the strongest of the row (common practice). */
const accentsOf = (strength: readonly number[]): number[] => {
  const most = Math.max(...strength);
  return strength.flatMap((s, i) => (most > 0 && s >= most * ACCENT_SHARE ? [i] : []));
};

/** Whether two steps of the bar miss each other by a sixteenth or less. */
export const nearMiss = (x: number, y: number, steps: number, step: Ticks): boolean => {
  const apart = Math.min(mod(x - y, steps), mod(y - x, steps)) * step;
  return apart > 0 && apart <= NEAR_MISS;
};

/** How many attacks there are from the beginning on, and how many of them stand on each grid. */
const standing = (attacks: readonly Attack[]): { all: number; on: readonly number[] } =>
  onceFor([attacks], "standing on grids", () => {
    const ticks = attacks.flatMap(({ start }) => (start < 0 ? [] : [start]));
    const on = GRIDS.map((grid) => ticks.filter((t) => Math.abs(t - Math.round(t / grid) * grid) <= 6).length);
    return { all: ticks.length, on };
  });

/** The coarsest grid on which nearly all attacks stand. */
function gridOf(players: readonly (readonly Attack[])[], bar: Ticks): Ticks {
  const each = players.map(standing);
  const all = each.reduce((sum, e) => sum + e.all, 0);
  const fits = (grid: Ticks, i: number) =>
    bar % grid === 0 && each.reduce((sum, e) => sum + nth(e.on, i), 0) >= all * 0.98;
  return GRIDS.find(fits) ?? firstOf(GRIDS);
}

/**
 * Two players agree where most accents of the one with fewer fall together; they fight where at least a third of them
 * miss each other by a sixteenth; they interlock where hardly any fall together and each fills what the other leaves
 * (common practice).
 */
export function pairOf(
  a: Pick<AccentRow, "id" | "accents">,
  b: Pick<AccentRow, "id" | "accents">,
  steps: number,
  step: Ticks = NEAR_MISS,
): AccentPair {
  const together = a.accents.filter((x) => b.accents.includes(x));
  const nearMisses: [number, number][] = [];
  for (const x of a.accents)
    for (const y of b.accents) {
      if (nearMiss(x, y, steps, step) && !together.includes(x) && !together.includes(y)) nearMisses.push([x, y]);
    }
  const fewer = Math.max(1, Math.min(a.accents.length, b.accents.length));
  let kind: PairKind;
  if (nearMisses.length * 3 >= fewer && nearMisses.length) kind = "fight";
  else if (together.length >= fewer * ACCENT_SHARE) kind = "agree";
  else if (together.length <= fewer * 0.34 && a.accents.length > 1 && b.accents.length > 1) kind = "interlock";
  else kind = "apart";
  return { a: a.id, b: b.id, kind, together, nearMisses };
}

interface Attack {
  start: Ticks;
  velocity: number;
}

/** Where and how strongly a player strikes in the bar, over a section; null where it does not. */
const strikes = (
  attacks: readonly Attack[],
  { step, steps, meter, bars }: { step: Ticks; steps: number; meter: Meter; bars: number },
): Omit<AccentRow, "id" | "name"> | null =>
  onceFor([attacks], `strikes ${step} ${meter.text} ${bars}`, () => {
    const length = bars * meter.bar;
    // The notes of a chord are one attack, as strong as its strongest.
    const loudest = new Map<Ticks, number>();
    for (const { start, velocity } of attacks)
      if (start >= 0 && start < length) {
        const at = Math.round(start / step) * step;
        loudest.set(at, Math.max(loudest.get(at) ?? 0, velocity));
      }
    if (!loudest.size) return null;
    const strength = new Array<number>(steps).fill(0);
    for (const [at, velocity] of loudest) {
      const k = (at / step) % steps;
      strength[k] = nth(strength, k) + velocity / 127 / bars;
    }
    const found = syncopations([...loudest.keys()], meter, length);
    return {
      strength,
      accents: accentsOf(strength),
      syncopations: found,
      syncopation: found.reduce((sum, s) => sum + s.weight, 0) / bars,
    };
  });

/**
 * Who strikes where in the bar of a section, how syncopated each is, and how the players stand to each other. Errors:
 * `accents.section`.
 */
export function accentMap(
  song: Song,
  sectionId: string,
  real: Pick<RealizedSong, "parts"> = realize(song, { section: sectionId }),
): Result<AccentMap> {
  const section = sectionOf(song, sectionId);
  if (!section) return fail("accents.section", `No section "${sectionId}"`);
  const meter = sectionMeter(song, section);
  const players: { id: string; name: string; attacks: readonly Attack[] }[] = real.parts
    .filter((p) => p.role !== "drums")
    .map((p) => ({ id: p.id, name: p.name, attacks: p.notes }));
  for (const lane of section.groove.lanes)
    players.push({ id: drumPlayer(lane.drum), name: laneTitle(lane), attacks: lane.hits });
  const step = gridOf(
    players.map((p) => p.attacks),
    meter.bar,
  );
  const steps = Math.round(meter.bar / step);
  const grid = { step, steps, meter, bars: section.bars };
  const rows = players.flatMap(({ id, name, attacks }): AccentRow[] => {
    const struck = strikes(attacks, grid);
    return struck ? [{ id, name, ...struck }] : [];
  });
  const pairs = rows.flatMap((a, i) =>
    rows.slice(i + 1).map((b): AccentPair => {
      const pair = pairOf(a, b, steps, step);
      // Against an even stream nobody missed.
      return pair.kind === "fight" && (keepsTime(a.id) || keepsTime(b.id)) ? { ...pair, kind: "apart" } : pair;
    }),
  );
  const total = Array.from({ length: steps }, (_, i) => rows.reduce((sum, r) => sum + nth(r.strength, i), 0));
  return ok({ meter, step, steps, rows, total, pairs });
}
