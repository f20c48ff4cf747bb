import { firstOf, lastOf } from "../../../../base/list";
import { mod, type Midi, type PitchName } from "../../../../theory/pitch/pitch";
import { positionText, type Ticks } from "../../../../theory/time/meter";
import { chordPitchClasses } from "../../../../theory/chord/chord";
import { chordAtTick, type RealizedNote } from "../../../../song/realize";
import { spellAt } from "../../../../song/spell";
import { pairReport, type Between, type BetweenKind, type PairReport } from "../../../../hear/line/between";
import { isSung, rangeOfPart } from "../../../../hear/singer/range";
import type { CheckContext, Fix, Line, RawFinding } from "../../rule";
import { endOf, isLine, linesOf, moveNote, opening, separateLines } from "../lines";

/** How far a tone that mends may lie from the one that stands there. */
const NEAR = 7;

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
interface JudgedPair extends PairReport {
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

/** A line that others are written around is moved last. */
const isGiven = ({ part }: Line): boolean => part.role === "melody";

/** Another tone for one of the two, the one that gives way first; or the two change places. */
function fixesOf(ctx: CheckContext, { a, b, above }: Pick<JudgedPair, "a" | "b" | "above">, place: Between): Fix[] {
  const [top, low] = above ? [a, b] : [b, a];
  const order = isGiven(low) && !isGiven(top) ? [top, low] : [low, top];
  const swap = place.kind === "crossing" ? exchange(ctx, { a, b }, place) : [];
  const moves = order.flatMap((mover) => {
    const first = mover === a;
    const [other, note] = first ? [b, place.first] : [a, place.second];
    const midi = clearTone(ctx, { mover, other, above: mover === top, note, place });
    return midi === null ? [] : moveNote(ctx, mover.part, note, midi);
  });
  return [...swap, ...moves];
}

/** The two give each other their notes: nothing else sounds than before. */
function exchange(
  { song, section }: CheckContext,
  { a, b }: Pick<JudgedPair, "a" | "b">,
  { first, second }: Between,
): Fix[] {
  const same = first.start === second.start && first.duration === second.duration;
  const fits = (l: Line, midi: Midi) => {
    const [low, high] = rangeOfPart(song, l.part).extremes;
    return midi >= low && midi <= high;
  };
  if (!same || first.pinned || second.pinned || !fits(a, second.midi) || !fits(b, first.midi)) return [];
  const at = Math.max(0, first.start);
  const set = (l: Line, note: RealizedNote, midi: Midi) => ({
    do: "changeNotes" as const,
    section: section.id,
    part: l.part.id,
    notes: [{ id: note.id, pitch: spellAt(song, section, at, midi) }],
  });
  return [
    {
      label: `Exchange ${first.pitch} and ${second.pitch}`,
      edit: { do: "all", label: "exchange", edits: [set(a, first, second.midi), set(b, second, first.midi)] },
    },
  ];
}

/** The nearest tone of the chord for a note that leaves nothing between the two voices there; null where none does. */
function clearTone(
  ctx: CheckContext,
  {
    mover,
    other,
    above,
    note,
    place,
  }: { mover: Line; other: Line; above: boolean; note: RealizedNote; place: Between },
): Midi | null {
  if (note.pinned) return null;
  const chord = chordAtTick(ctx.sliced.real.chords, Math.max(0, place.tick))?.chord;
  const pcs = chord ? chordPitchClasses(chord) : ctx.key.pcs;
  const [least, most] = rangeOfPart(ctx.song, mover.part).extremes;
  const at = mover.notes.indexOf(note);
  const own = mover.notes.slice(Math.max(0, at - 1), at + 2);
  const [from, to]: [Ticks, Ticks] = [firstOf(own).start, endOf(lastOf(own))];
  const around = other.notes.filter((n) => n.start < to && endOf(n) > from);
  const tones = Array.from({ length: 2 * NEAR + 1 }, (_, k) => note.midi - NEAR + k)
    .filter((m) => m !== note.midi && m >= least && m <= most && pcs.includes(mod(m, 12)))
    .sort((x, y) => Math.abs(x - note.midi) - Math.abs(y - note.midi));
  const left = (midi: Midi) => {
    const tried = own.map((n) => (n === note ? { ...n, midi } : n));
    return pairReport(tried, around, { meter: ctx.meter, chords: ctx.sliced.real.chords, above }).places;
  };
  const clear = tones.find(
    (midi) => !left(midi).some((p) => p.first.id === note.id || (p.kind === "parallel" && p.second.start <= to)),
  );
  // Where none is clear of everything, one that mends this much.
  return clear ?? tones.find((midi) => !left(midi).some((p) => p.kind === place.kind)) ?? null;
}
