import { sure } from "../../base/list";
import { passPlace, placeKey } from "../../song/place";
import type { Song } from "../../song/schema";
import { realizedAt } from "../sounding";
import type { Reader } from "../../facts/memory";

/** How much a part plays in a pass. */
export interface Busy {
  /** Attacks a bar: notes struck together count once; of drums, moments with a hit. */
  attacks: number;
  muted: boolean;
}

/** For each part and pass how busy it is. Passes that differ in nothing are worked out once. */
export function busyOf(song: Song, read: Reader): Map<string, Map<string, Busy>> {
  const known = new Map<string, Map<string, number>>();
  const out = new Map<string, Map<string, Busy>>(song.parts.map((p) => [p.id, new Map()]));
  for (const pass of song.form) {
    const place = passPlace(song, pass.id);
    let attacks = known.get(placeKey(place));
    if (!attacks) {
      const real = read.get(realizedAt, place, "played");
      const bars = Math.max(1, real.sections[0]?.bars ?? 1);
      const count = (starts: readonly { start: number }[]) => new Set(starts.map((x) => x.start)).size / bars;
      attacks = new Map(real.parts.map((p) => [p.id, count(p.role === "drums" ? real.hits : p.notes)]));
      known.set(placeKey(place), attacks);
    }
    for (const part of song.parts)
      sure(out.get(part.id)).set(pass.id, {
        attacks: attacks.get(part.id) ?? 0,
        muted: (part.muted ?? false) || (pass.muted?.includes(part.id) ?? false),
      });
  }
  return out;
}
