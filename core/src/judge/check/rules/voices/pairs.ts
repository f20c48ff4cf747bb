import { nth } from "../../../../base/list";
import { type PitchName } from "../../../../theory/pitch/pitch";
import { positionText, type Ticks } from "../../../../theory/time/meter";
import { type RealizedNote } from "../../../../song/realize";
import { placesBetween, type Between, type BetweenKind, type PairPlaces } from "../../../../hear/line/between";
import { isSung, rangeOfPart } from "../../../../hear/singer/range";
import type { CheckContext, Fix, Line, RawFinding } from "../../rule";
import type { Pitches } from "../../ways/trouble";
import { waysOut, type NamedWay } from "../../ways/ways";
import { isLine, linesOf, notesWithin, opening, separateLines } from "../lines";

interface PairRule {
  kind: BetweenKind;
  /** Which places count; all where it is absent. */
  counts?(place: Between, ctx: CheckContext, pair: Pair): boolean;
  /** "cross", "are on one note" … after the names of the two. */
  says: string;
  /** Words of one place, from the pitches of the upper and the lower voice. */
  at?(place: Between, top: PitchName, low: PitchName): string;
  amount(place: Between, ctx: CheckContext): string;
  /** Voices inside chords count too, not lines alone. */
  inside?: boolean;
}

/** Two voices, the upper one first. */
export interface Pair {
  top: Line;
  low: Line;
}

/** Two voices as they stand in the song, with how they go together. */
interface JudgedPair extends PairPlaces {
  a: Line;
  b: Line;
}

/**
 * All pairs that are judged: lines with lines, and the voices inside one chord part with each other. Chords beside
 * lines accompany them.
 */
const judgedPairs = (ctx: CheckContext, inside: boolean): JudgedPair[] =>
  [...linePairs(ctx), ...(inside ? insidePairs(ctx) : [])].map(([a, b]) => ({ a, b, ...ctx.pair(a, b) }));

const pairsOf = (lines: readonly Line[]): [Line, Line][] =>
  lines.flatMap((a, i) => lines.slice(i + 1).map((b): [Line, Line] => [a, b]));
const linePairs = (ctx: CheckContext): [Line, Line][] => pairsOf(separateLines(ctx));

function insidePairs(ctx: CheckContext): [Line, Line][] {
  const threads = linesOf(ctx).filter((l) => !isLine(l));
  return [...new Set(threads.map((t) => t.part))].flatMap((part) => pairsOf(threads.filter((t) => t.part === part)));
}

/** Moments that follow each other without a break are one place: a crossing that lasts is crossed once. */
function joined(places: readonly Between[]): Between[] {
  const out: Between[] = [];
  for (const p of places) {
    const last = out.at(-1);
    if (last && p.tick <= last.tick + last.duration)
      last.duration = Math.max(last.duration, p.tick + p.duration - last.tick);
    else out.push({ ...p });
  }
  return out;
}

/** Every place at which two voices do something to each other. */
export function betweenVoices(ctx: CheckContext, rule: PairRule): RawFinding[] {
  return judgedPairs(ctx, rule.inside ?? false).flatMap((pair): RawFinding[] => {
    const { a, b, above } = pair;
    const [top, low] = above ? [a, b] : [b, a];
    const all = pair.places.filter((p) => p.kind === rule.kind && (rule.counts?.(p, ctx, { top, low }) ?? true));
    const places = rule.kind === "crossing" ? joined(all) : all;
    const said = (place: Between) => {
      const { first, second } = place;
      const [high, deep] = above ? [first.pitch, second.pitch] : [second.pitch, first.pitch];
      return rule.at ? `: ${rule.at(place, high, deep)}` : "";
    };
    return places.map((place): RawFinding => ({
      tick: place.tick,
      duration: place.duration,
      parts: [low.part.id, top.part.id],
      notes: [...new Set([place.first, place.second, ...(place.before ?? [])].map((n) => n.id))],
      message:
        `${opening(top.name)} and ${low.name} ${rule.says} at ` +
        `${positionText(ctx.meter, place.tick)}${said(place)}.`,
      amount: rule.amount(place, ctx),
      // A crossing lasts: it has no number of chances.
      ...(rule.kind === "crossing" ? {} : { chances: pair.moves }),
      lighter: Math.max(a.lighter, b.lighter),
      fixes: fixesOf(ctx, { a, b, above }, place),
    }));
  });
}

export const areSung = ({ song }: CheckContext, { top, low }: Pair): boolean =>
  isSung(song, top.part) && isSung(song, low.part);

/** Whether one of the two is the tune or is sung: in a band the others accompany it. */
export const isLed = ({ song }: CheckContext, { top, low }: Pair): boolean =>
  [top, low].some(({ part }) => part.role === "melody" || isSung(song, part));

/** Another tone for one of the two or for both, another octave for a phrase; or the two change places. */
function fixesOf(ctx: CheckContext, pair: Pick<JudgedPair, "a" | "b" | "above">, place: Between): Fix[] {
  if (ctx.bare) return [];
  const { a, b, above } = pair;
  const { first, second, before = [], kind } = place;
  const [from, to] = [place.before?.[0].start ?? place.tick, place.tick + place.duration];
  const ground = { meter: ctx.meter, chords: ctx.sliced.real.chords, above };
  const [x, y] = [a, b].map((l) => notesWithin(l, from, to));
  const sounding = (notes: readonly RealizedNote[] | undefined, p: Pitches) =>
    (notes ?? []).map((n) => (p(n) === n.midi ? n : { ...n, midi: p(n) }));
  const clear = (p: Pitches) =>
    !placesBetween(sounding(x, p), sounding(y, p), ground).some(
      (left) => left.kind === kind && left.tick < to && left.tick + left.duration > place.tick,
    );
  return waysOut(ctx, {
    notes: [first, second],
    later: before,
    clear,
    phrases: OF_HEIGHT.has(kind),
    ways: kind === "crossing" ? exchanged(ctx, pair, { from: place.tick, to }) : [],
  });
}

/** What comes of where a line lies. */
const OF_HEIGHT = new Set<BetweenKind>(["crossing", "overlap", "unison"]);

/** The two give each other what they have there, note for note: nothing else sounds than before. */
function exchanged(
  ctx: CheckContext,
  { a, b }: Pick<JudgedPair, "a" | "b">,
  { from, to }: { from: Ticks; to: Ticks },
): NamedWay[] {
  const [mine, yours] = [a, b].map((l) => notesWithin(l, from, to));
  if (!mine || mine.length !== yours?.length) return [];
  const pairs = mine.map((n, i): [RealizedNote, RealizedNote] => [n, nth(yours, i)]);
  const fits = (l: Line, { midi }: RealizedNote) => {
    const [low, high] = rangeOfPart(ctx.song, l.part).extremes;
    return midi >= low && midi <= high;
  };
  const same = pairs.every(
    ([m, n]) => m.start === n.start && m.duration === n.duration && !m.pinned && !n.pinned && fits(a, n) && fits(b, m),
  );
  if (!same) return [];
  const [first] = pairs;
  const label =
    pairs.length === 1 && first
      ? `Exchange ${first[0].pitch} and ${first[1].pitch}`
      : "Exchange the two while they cross";
  const way = pairs.flatMap(([m, n]) => [
    { note: m, midi: n.midi },
    { note: n, midi: m.midi },
  ]);
  return [{ way, label }];
}
