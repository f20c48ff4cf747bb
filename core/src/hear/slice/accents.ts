import { metricalLevel, type Meter, type Ticks } from "../../theory/time/meter";
import type { RealizedHit } from "../../song/realized";
import type { Groove } from "../../song/schema";

/** A kick at or above this velocity is a main accent wherever it stands (common practice). */
export const LOUD_KICK = 96;

export interface KickHit {
  start: Ticks;
  velocity: number;
  main: boolean;
}

/** All kicks of a section with their weight: main when on a beat or clearly loud, unless accents were set by hand. */
export function kicks(groove: Groove, meter: Meter): KickHit[] {
  const hits = groove.lanes.find((l) => l.drum === "kick")?.hits ?? [];
  return hits.map(({ start, velocity }) => ({ start, velocity, main: isMain(groove, meter, { start, velocity }) }));
}

/** The same of kicks as they are realized; `groundOf` gives drums and meter of the pass a tick lies in. */
export const kicksStruck = (
  hits: readonly RealizedHit[],
  groundOf: (tick: Ticks) => { groove: Groove; meter: Meter } | undefined,
): KickHit[] =>
  hits.flatMap(({ drum, start, velocity, inSection }) => {
    const ground = drum === "kick" ? groundOf(start) : undefined;
    return ground
      ? [{ start, velocity, main: isMain(ground.groove, ground.meter, { start: inSection, velocity }) }]
      : [];
  });

const isMain = (groove: Groove, meter: Meter, { start, velocity }: { start: Ticks; velocity: number }): boolean =>
  groove.accents ? groove.accents.includes(start) : metricalLevel(meter, start) >= -2 || velocity >= LOUD_KICK;
