import { DRUM_KINDS, DRUMS, type Drum } from "../theory/instrument/drums";
import type { Lane, Section } from "./schema";

/** One that plays: a part by its id, or a single drum of the drum part. */
export type PlayerId = string;

const PREFIX = "drum:";

/** A single drum as a player: `drum:kick`. */
export const drumPlayer = (drum: Drum): PlayerId => PREFIX + drum;

/** The drum a player is; null where it is a part. */
export function drumOf(player: PlayerId): Drum | null {
  const drum = player.startsWith(PREFIX) ? player.slice(PREFIX.length) : "";
  return (DRUMS as readonly string[]).includes(drum) ? (drum as Drum) : null;
}

/** What a drum lane is called: by its own name, or by that of its drum. */
export const laneTitle = (lane: Pick<Lane, "drum" | "name">): string => lane.name ?? DRUM_KINDS[lane.drum].title;

/** What the lane of a drum is called in a section, whether it has one or not. */
export const laneName = (section: Pick<Section, "groove">, drum: Drum): string =>
  laneTitle(section.groove.lanes.find((l) => l.drum === drum) ?? { drum });
