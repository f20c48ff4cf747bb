import { DRUMS, type Drum } from "../instrument/drums";

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
