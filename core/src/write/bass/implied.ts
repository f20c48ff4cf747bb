import { firstOf, lastOf, nth, sure } from "../../base/list";
import { because } from "../../song/reasons";
import { fail, ok, type Result } from "../../base/result";
import { nameInKey, rootInKey, type Key } from "../../theory/pitch/key";
import { mod, type PitchClass } from "../../theory/pitch/pitch";
import { metricalLevel, type Meter, type Ticks } from "../../theory/time/meter";
import type { ChordEvent, Song } from "../../song/schema";
import type { RealizedNote } from "../../song/realize";
import { cheapestPath } from "../../search/lattice";
import { factsOf } from "../../facts/memory";
import type { BassContext } from "./context";
import { bassRequest } from "./write";

/** What a stretch of a bass line alone says about the harmony. */
export interface ImpliedRoot {
  start: Ticks;
  duration: Ticks;
  root: PitchClass;
  name: string;
  /**
   * Chord that is meant most plainly: a triad of the key where its third is open, by the tones that were played where
   * they tell it.
   */
  symbol: string;
  /** Other roots that explain the stretch nearly as well. */
  others: string[];
  /** Which tones speak for it, in words. */
  reason: string;
  notes: string[];
}

/**
 * How plainly a tone points to a root, by its distance above it (common practice: root, fifth and third tell, the rest
 * speaks against).
 */
const SPEAKS: Record<number, number> = {
  0: 1,
  7: 0.62,
  4: 0.5,
  3: 0.5,
  10: 0.3,
  11: 0.22,
  6: 0.12,
  5: 0.05,
  2: 0.04,
  9: 0.06,
  8: 0.02,
  1: 0,
};
const COST = { change: 0.3, inBar: 0.09, outside: 0.18 } as const;

/** A stretch of time with what sounds in it, and how well each root explains that, 0–1. */
interface Stretch {
  from: Ticks;
  to: Ticks;
  notes: RealizedNote[];
  fit: number[];
}

/**
 * How much a note counts in a stretch: its share of the time, more on strong places; the note that begins it is heard
 * as its bass.
 */
function weightIn(n: RealizedNote, from: Ticks, to: Ticks, meter: Meter): number {
  const time = Math.min(to, n.start + n.duration) - Math.max(from, n.start);
  if (time <= 0) return 0;
  const strong = n.start <= from ? 1.6 : 1 + (metricalLevel(meter, n.start) + 3) * 0.12;
  return (time / (to - from)) * Math.max(0.5, strong);
}

/** Half bars where the meter has a middle, otherwise bars. */
function stretchesOf(notes: readonly RealizedNote[], meter: Meter, bars: number): Stretch[] {
  const middle = meter.beats.length % 2 === 0 ? [nth(meter.beats, meter.beats.length / 2).start] : [];
  const cuts = Array.from({ length: bars }, (_, bar) => [0, ...middle].map((at) => bar * meter.bar + at)).flat();
  return cuts.map((from, i) => {
    const to = cuts[i + 1] ?? bars * meter.bar;
    const inside = notes.map((n) => ({ n, w: weightIn(n, from, to, meter) })).filter((x) => x.w > 0);
    const all = inside.reduce((sum, x) => sum + x.w, 0);
    const fit = Array.from({ length: 12 }, (_, root) =>
      all ? inside.reduce((sum, { n, w }) => sum + w * (SPEAKS[mod(n.midi - root, 12)] ?? 0), 0) / all : 0.5,
    );
    return { from, to, notes: inside.map((x) => x.n), fit };
  });
}

/**
 * Roots that a bass line implies where no chord is written yet: for every half bar (or bar) each root is weighed by how
 * long and how strongly its tones sound, and the cheapest way through the section is taken, in which a change of root
 * costs something. Errors: those of `bassRequest`, and `bass.empty`.
 */
export function impliedRoots(song: Song, sectionId: string, partId: string): Result<ImpliedRoot[]> {
  const context = bassRequest(factsOf(song), { section: sectionId, part: partId });
  if (!context.ok) return context;
  const roots = rootsIn(context.value.ctx);
  return roots.length
    ? ok(roots)
    : fail("bass.empty", "There is no bass line yet", {
        hint: "Click one into the bass lane, play it in, or take it from a MIDI file.",
      });
}

/** The same for a line that is known; empty where it has no notes. */
export function rootsIn({ notes: all, meter, bars, key }: BassContext): ImpliedRoot[] {
  const notes = all.filter((n) => n.start >= 0);
  if (!notes.length) return [];
  const stretches = stretchesOf(notes, meter, bars);
  const silent = (s: Stretch) => s.notes.length === 0;
  const path = sure(
    cheapestPath({
      sizes: stretches.map(() => 12),
      node: (c, root) =>
        (silent(nth(stretches, c)) ? 0 : 1 - nth(nth(stretches, c).fit, root)) +
        (key.pcs.includes(root) ? 0 : COST.outside),
      step: (c, a, b) => {
        const to = nth(stretches, c + 1);
        return a === b ? 0 : COST.change * (silent(to) ? 2 : 1) + (to.from % meter.bar ? COST.inBar : 0);
      },
    }),
  );
  const rows: { root: PitchClass; over: Stretch[] }[] = [];
  path.picks.forEach((root, c) => {
    const last = rows.at(-1);
    if (last?.root === root) last.over.push(nth(stretches, c));
    else rows.push({ root, over: [nth(stretches, c)] });
  });
  return rows.map(({ root, over }) => describe(root, over, key));
}

const TELLS: Record<number, string> = { 0: "root", 7: "fifth", 4: "third", 3: "third", 10: "seventh", 11: "seventh" };
/** A tone counts where it sounds for more than this share. */
const HEARD = 0.06;

/** What a triad is called, with a minor and with a major seventh that the line plays. */
const QUALITIES = {
  major: { plain: "", seventh: "7", majorSeventh: "maj7" },
  minor: { plain: "m", seventh: "m7", majorSeventh: null },
  diminished: { plain: "dim", seventh: "m7b5", majorSeventh: null },
};

/** The chord on a root of which tones are heard, by semitones above it. What the line leaves open the key decides. */
function impliedQuality(heard: (above: number) => boolean, inKey: (above: number) => boolean): string {
  const minor = heard(3) || (!heard(4) && inKey(3) && !inKey(4));
  const diminished = !heard(7) && (heard(6) || (minor && !inKey(7) && inKey(6)));
  const triad = diminished ? QUALITIES.diminished : QUALITIES.minor;
  const qualities = minor ? triad : QUALITIES.major;
  return (heard(10) ? qualities.seventh : heard(11) && qualities.majorSeventh) || qualities.plain;
}

/** What is known of a root: the chord meant most plainly, what speaks for it, and what else it could be. */
function describe(root: PitchClass, over: readonly Stretch[], key: Key): ImpliedRoot {
  const [start, end] = [firstOf(over).from, lastOf(over).to];
  const notes = [...new Set(over.flatMap((s) => s.notes))];
  const time = new Map<number, number>();
  for (const n of notes) {
    const above = mod(n.midi - root, 12);
    time.set(above, (time.get(above) ?? 0) + Math.min(end, n.start + n.duration) - Math.max(start, n.start));
  }
  const total = [...time.values()].reduce((a, b) => a + b, 0) || 1;
  const share = (above: number) => (time.get(above) ?? 0) / total;
  const heard = (above: number) => share(above) > HEARD;
  const name = rootInKey(root, key);
  const spoken = [...time.keys()].filter((above) => TELLS[above] && heard(above)).sort((a, b) => share(b) - share(a));
  const mean = Array.from({ length: 12 }, (_, pc) => over.reduce((sum, s) => sum + nth(s.fit, pc), 0) / over.length);
  return {
    start,
    duration: end - start,
    root,
    name,
    symbol: name + impliedQuality(heard, (above) => key.pcs.includes(mod(root + above, 12))),
    others: [...mean.keys()]
      .filter((pc) => pc !== root && nth(mean, pc) > Math.max(0.3, nth(mean, root) * 0.75))
      .sort((a, b) => nth(mean, b) - nth(mean, a))
      .slice(0, 2)
      .map((pc) => nameInKey(pc, key)),
    reason:
      spoken.map((above) => `its ${TELLS[above]} ${Math.round(share(above) * 100)} % of the time`).join(", ") ||
      "carried on from before",
    notes: notes.map((n) => n.id),
  };
}

/** Implied roots as chords that can be written. */
export const impliedChords = (roots: readonly ImpliedRoot[]): Omit<ChordEvent, "id">[] =>
  roots.map(({ start, duration, symbol }) => ({ start, duration, symbol, why: because("implied") }));
