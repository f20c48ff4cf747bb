import { firstOf, nth, sure } from "../../base/list";
import type { Ticks } from "../../theory/time/meter";
import { keepsTime, nearMiss } from "../../hear/accents/accentMap";
import { accentsAt } from "../../hear/accents/facts";
import { drumOf } from "../../song/players";
import type { BassContext } from "./context";

/** A step of the bar that somebody accents, and whether a weaving bass sounds on it. */
export interface WeavePlace {
  step: number;
  /** The same in ticks of the bar. */
  tick: Ticks;
  /** Who accents it, the strongest first. */
  names: string[];
  /** How much it matters among all such steps, 0–1: how strongly it is struck, and by how many. */
  share: number;
  take: boolean;
  why: string;
}

type WeaveContext = Pick<BassContext, "song" | "section" | "part" | "meter" | "read">;

/**
 * Where a bass line that weaves sounds: on the kick's accents and on those of others that stand clear of them. Of two
 * accents a sixteenth apart it takes the weightier one; with the tune it does not compete.
 */
export function weavePlan(ctx: WeaveContext): WeavePlace[] {
  const map = ctx.read.get(accentsAt, ctx.section.id);
  if (!map.ok) return [];
  const { steps, step: length } = map.value;
  const tune = new Set(ctx.song.parts.filter((p) => p.role === "melody" || p.role === "vocal").map((p) => p.id));
  const found = new Map<number, { sum: number; who: { name: string; w: number; kick: boolean; tune: boolean }[] }>();
  for (const row of map.value.rows) {
    if (row.id === ctx.part.id || keepsTime(row.id)) continue;
    for (const step of row.accents) {
      const kick = drumOf(row.id) === "kick";
      const weightOf = () => {
        if (kick) return 1.5;
        if (tune.has(row.id)) return 0.4;
        return 1;
      };
      const w = nth(row.strength, step) * weightOf();
      const known = found.get(step) ?? { sum: 0, who: [] };
      found.set(step, {
        sum: known.sum + w,
        who: [...known.who, { name: firstOf(row.name.split(",")), w, kick, tune: tune.has(row.id) }],
      });
    }
  }
  const most = Math.max(0.01, ...[...found.values()].map((f) => f.sum));
  return [...found]
    .sort(([a], [b]) => a - b)
    .map(([step, { sum, who }]) => {
      const names = [...who].sort((a, b) => b.w - a.w).map((x) => x.name);
      const share = sum / most;
      const beside = [...found.keys()].find((s) => nearMiss(s, step, steps, length) && sure(found.get(s)).sum > sum);
      const onlyTune = who.every((x) => x.tune);
      const kick = who.some((x) => x.kick);
      const take = kick
        ? beside === undefined || sum >= 0.5 * sure(found.get(beside)).sum
        : !onlyTune && beside === undefined && share >= 0.25;
      let why: string;
      if (take) {
        if (who.length > 1) why = `${names.slice(0, 2).join(" and ")} meet here`;
        else if (kick) why = "the kick asks for it";
        else why = `${names[0]} is alone here: the bass stands by`;
      } else if (beside !== undefined)
        why = `a sixteenth from ${firstOf(sure(found.get(beside)).who).name}, which weighs more: both would smear`;
      else if (onlyTune) why = "the tune has it to itself";
      else why = "too light to be met";
      return { step, tick: step * length, names, share, take, why };
    });
}

/** The places of a weaving line over the whole section. */
export function weavePlaces(
  ctx: WeaveContext & Pick<BassContext, "bars">,
): { at: Ticks; name: string; share: number }[] {
  const plan = weavePlan(ctx).filter((p) => p.take);
  return Array.from({ length: ctx.bars }, (_, bar) =>
    plan.map(({ tick, names, share }) => ({ at: bar * ctx.meter.bar + tick, name: firstOf(names), share })),
  ).flat();
}
