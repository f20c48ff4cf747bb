import { type Drum, Drums, type Edit, type Hit, type KickHit, Meter, type Ticks } from "../../../core/src/index";
import { edit, sectionNow } from "../store/song";

/** Hits of a drum as they are stored now. */
export const hitsNow = (section: string, drum: Drum): readonly Hit[] =>
  sectionNow(section)?.groove.lanes.find((l) => l.drum === drum)?.hits ?? [];

/** Loudness a hit is painted with: on a quarter, or off it. */
export const usualVelocity = (drum: Drum, start: Ticks): number =>
  Drums.KINDS[drum].velocity[start % Meter.QUARTER === 0 ? 0 : 1];

/** Sets a hit, or clears it (null). */
export const setHit = (
  section: string,
  drum: Drum,
  start: Ticks,
  { velocity, quiet = false }: { velocity: number | null; quiet?: boolean | undefined },
): boolean =>
  edit({ do: "setHit", section, drum, start, velocity: velocity && Math.min(127, Math.max(1, velocity)) }, { quiet });

/** Sets or clears the hits of several steps, as one step of undo; those that are so already stay as they are. */
export function paintHits(
  section: string,
  drum: Drum,
  starts: readonly Ticks[],
  { on, quiet }: { on: boolean; quiet: boolean },
): void {
  const there = new Set(hitsNow(section, drum).map((h) => h.start));
  const edits = starts
    .filter((start) => there.has(start) !== on)
    .map((start): Edit => ({ do: "setHit", section, drum, start, velocity: on ? usualVelocity(drum, start) : null }));
  if (edits.length) edit({ do: "all", label: "hits", edits }, { quiet });
}

/** Marks kicks as main accents, or takes the mark away; from then on the marks count, not the rule. */
export function setMain(section: string, kicks: readonly KickHit[], starts: readonly Ticks[], main: boolean): boolean {
  const others = kicks.filter((k) => k.main && !starts.includes(k.start)).map((k) => k.start);
  return edit({ do: "setAccents", section, accents: main ? [...others, ...starts].sort((a, b) => a - b) : others });
}
