import type { SearchMemory } from "../../search/pruned";
import type { Setting } from "./setting";
import type { RawVoicing } from "./style";
import type { Candidate, Column } from "./candidate";

/** Layouts of a chord, and what became of its wishes. */
export interface LaidWays extends Pick<Column, "fallback" | "top" | "bottomMissed"> {
  raw: RawVoicing[];
  /** Roughness of each, worked out when it first counts. */
  rough?: number[];
}

/** The last search over spaces that are alike. */
export interface Searched {
  memory?: SearchMemory | undefined;
}

/**
 * What is known of one way of laying chords out: it follows from the setting and a chord alone, whatever song it is
 * for.
 */
export interface Kept {
  /** By chord and wish; null where nothing can be laid out. */
  laid: Map<string, LaidWays | null>;
  priced: Map<string, Candidate[]>;
  /** A layout that is to stay, alone. */
  alone: WeakMap<Candidate, Candidate[]>;
  /** Searches in which every chord has all its layouts, and those in which some stay. */
  free: Searched;
  held: Searched;
}

/** Ways of laying out, and chords in each, that are kept: a whole section of one part, and room to change it. */
const WAYS = 4;
const CHORDS = 160;

const layouts = new Map<string, Kept["laid"]>();
const ways = new Map<string, Kept>();

/** The value of a key, which becomes the youngest; the oldest of more than `most` is forgotten. */
export function remembered<T>(map: Map<string, T>, key: string, most: number, make: () => T): T {
  const value = map.has(key) ? map.get(key)! : make();
  map.delete(key);
  map.set(key, value);
  if (map.size > most) map.delete(map.keys().next().value!);
  return value;
}

/** What is kept for a setting. Weights leave the layouts as they are; only their costs are others. */
export function keptFor({ style, free, replaced, instrument, limits, hands, judge, center }: Setting): Kept {
  const layout = JSON.stringify([style.id, free.id, replaced, instrument, limits, hands]);
  const laid = remembered(layouts, layout, WAYS, () => new Map());
  const way = `${layout} ${JSON.stringify([judge, center])}`;
  return remembered(ways, way, WAYS, () => ({ laid, priced: new Map(), alone: new WeakMap(), free: {}, held: {} }));
}

export const laidFor = (kept: Kept, id: string, make: () => LaidWays | null): LaidWays | null =>
  remembered(kept.laid, id, CHORDS, make);

export const pricedFor = (kept: Kept, id: string, make: () => Candidate[]): Candidate[] =>
  remembered(kept.priced, id, CHORDS, make);

/** The candidates of a chord whose layout is to stay: the same object each time. */
export function aloneIn({ alone }: Kept, kept: Candidate): Candidate[] {
  let list = alone.get(kept);
  if (!list) alone.set(kept, (list = [kept]));
  return list;
}
