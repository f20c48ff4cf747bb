import { metricalLevel, type Meter, type Ticks } from "../../theory/time/meter";
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
  return hits.map((hit) => ({
    start: hit.start,
    velocity: hit.velocity,
    main: groove.accents
      ? groove.accents.includes(hit.start)
      : metricalLevel(meter, hit.start) >= -2 || hit.velocity >= LOUD_KICK,
  }));
}
