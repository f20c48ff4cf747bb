import { firstOf, lastBefore, lastOf, nth, sure } from "../../base/list";
import { mod } from "../../theory/pitch/pitch";
import { bassPc } from "../../theory/chord/chord";
import type { Ticks } from "../../theory/time/meter";
import { lastBegun } from "../../song/realize";
import { halfOf, noise } from "../../hear/line/figure";
import { beatLength, chordAt, figureAt, figures, inGap, type BassContext } from "./context";
import { leadsTo } from "./pitches";
import type { BassStyle, RhythmPlace, Slot } from "./style";

/** Every beat of the section that has a chord. */
export function beatsOf(
  ctx: BassContext,
): { at: Ticks; beat: number; duration: Ticks; bar: number; since: Ticks; last: boolean }[] {
  const out = [];
  for (let bar = 0; bar < ctx.bars; bar++)
    for (const [beat, { start, duration }] of ctx.meter.beats.entries()) {
      const at = bar * ctx.meter.bar + start;
      const chord = chordAt(ctx, at);
      if (chord?.chord)
        out.push({
          at,
          beat,
          duration,
          bar,
          since: at - chord.start,
          last: at + duration >= chord.start + chord.duration,
        });
    }
  return out;
}

/** Places a half-beat before each change of chord, from which a note can lead into the next one. */
export function approachPlaces(ctx: BassContext, priority: number): RhythmPlace[] {
  return ctx.chords.flatMap((chord, i): RhythmPlace[] => {
    const next = ctx.chords[i + 1] ?? ctx.onward?.chord ?? firstOf(ctx.chords);
    if (!chord.chord || !next.chord || next.symbol === chord.symbol) return [];
    const end = chord.start + chord.duration;
    const beat = beatLength(ctx, end - 1);
    const at = end - (beat - halfOf(beat));
    return at > chord.start && Number.isInteger(at) ? [{ at, use: "approach", priority }] : [];
  });
}

/** Bars that depart from the figure: every fourth one. */
const departs = (bar: number): boolean => bar % 4 === 3;

/**
 * What must sound: the beginnings of chords (of the first one where a note is held under all of them), and the kicks
 * the settings name.
 */
function requiredPlaces(ctx: BassContext, style: BassStyle): Map<Ticks, RhythmPlace> {
  const places = new Map<Ticks, RhythmPlace>();
  ctx.chords.forEach((chord, i) => {
    if (chord.chord && !(style.sustains && i > 0 && nth(ctx.chords, i - 1).chord))
      places.set(chord.start, { at: chord.start, use: "anchor", priority: 1 });
  });
  if (ctx.settings.lock !== "chords")
    for (const kick of ctx.kicks)
      if ((kick.main || ctx.settings.lock === "every") && chordAt(ctx, kick.start)?.chord && !places.has(kick.start))
        places.set(kick.start, { at: kick.start, use: "kick", priority: 1 });
  return places;
}

/** How much a place is wanted, with what speaks for it and against it; 1 and more must sound. */
function scorer(ctx: BassContext, seed: number): (place: RhythmPlace) => number {
  const { settings, meter } = ctx;
  const kickAt = new Set(ctx.kicks.map((k) => k.start));
  const tuneAt = new Set(ctx.tune.starts);
  const obeys = settings.melody && ctx.tune.notes.length > 0;
  /** Where the tune rests, or where it begins a note; on a kick it has no say. */
  const ofTune = ({ at, priority }: RhythmPlace): number => {
    if (!obeys) return 0;
    if (inGap(ctx, at)) return 0.12;
    if (kickAt.has(at)) return 0;
    // What makes the style gives way least.
    const giving = Math.min(1, 2.5 * (1 - priority) + 0.1);
    return -(tuneAt.has(at) ? 0.35 : 0.15) * (ctx.tune.sung ? 1.2 : 1) * giving;
  };
  return (place) => {
    if (place.priority >= 1) return place.priority;
    const position = mod(place.at, meter.bar);
    let score = place.priority + ofTune(place);
    if (kickAt.has(place.at) && settings.lock !== "chords") score += 0.15;
    if (place.use === "octave" && settings.octaves === "many") score += 0.2;
    score += (noise(seed, position) - 0.5) * 0.5;
    if (departs(Math.floor(place.at / meter.bar))) score += (noise(seed + 101, position) - 0.4) * settings.variation;
    return score;
  };
}

/** Whether a style may sound at a place where nothing must: under a chord, inside the section, in no rest. */
function isOpen(ctx: BassContext, place: RhythmPlace, rests: readonly { from: Ticks; to: Ticks }[]): boolean {
  if (place.at < 0 || place.at >= ctx.length || !chordAt(ctx, place.at)?.chord) return false;
  if (place.use === "octave" && ctx.settings.octaves === "none") return false;
  return figureAt(rests, place.at) < 0;
}

/** The beginning of a chord takes over what the style wishes for there. */
const wishing = (known: RhythmPlace, { prefers, with: also }: RhythmPlace): RhythmPlace =>
  prefers && !known.prefers ? { ...known, prefers, ...(also ? { with: also } : {}) } : known;

/** A kick says that something must sound; what sounds there is what the style wants most of what it may do there. */
function meetKicks(chosen: Map<Ticks, RhythmPlace>, may: readonly RhythmPlace[]): void {
  const wanted = new Map<Ticks, RhythmPlace>();
  for (const place of may) if (place.priority > (wanted.get(place.at)?.priority ?? 0)) wanted.set(place.at, place);
  for (const [at, place] of wanted) if (chosen.get(at)?.use === "kick") chosen.set(at, { ...place, priority: 1 });
}

/**
 * The rhythm of a line: what must sound, and of the style's other places those that the density lets through. Kicks and
 * gaps of the tune speak for a place, notes of the tune that begin there against it; chance decides between equals, in
 * the same way in every bar.
 */
export function rhythmOf(ctx: BassContext, style: BassStyle, seed: number, places = style.places(ctx)): Slot[] {
  const { settings } = ctx;
  const chosen = requiredPlaces(ctx, style);
  const restAt = settings.rests ? restsOf(ctx) : [];
  const scoreOf = scorer(ctx, seed);
  const kicked: RhythmPlace[] = [];
  for (const place of places) {
    const known = chosen.get(place.at);
    const passes = scoreOf(place) >= 1 - settings.density;
    if (!known) {
      if (passes && isOpen(ctx, place, restAt)) chosen.set(place.at, place);
    } else if (known.use !== "kick") chosen.set(place.at, wishing(known, place));
    // A kick is met in a rest, too.
    else if (isOpen(ctx, place, [])) {
      kicked.push(place);
      if (passes) chosen.set(place.at, { ...place, priority: 1 });
    }
  }
  meetKicks(chosen, kicked);
  if (settings.ending) addEnding(ctx, chosen, seed);
  if (!style.pedals && !style.sustains) addLead(ctx, style, chosen);
  return toSlots(ctx, style, chosen, restAt);
}

/** The last beat of every figure, where rests are placed on purpose. */
export const restsOf = (ctx: BassContext): { from: Ticks; to: Ticks }[] =>
  figures(ctx).map(({ to }) => ({ from: to - lastOf(ctx.meter.beats).duration, to }));

/** Sorted slots; each lasts until the next one, its chord's end or the style's own limit, whichever comes first. */
function toSlots(
  ctx: BassContext,
  style: BassStyle,
  places: ReadonlyMap<Ticks, RhythmPlace>,
  rests: readonly { from: Ticks; to: Ticks }[],
): Slot[] {
  const sorted = [...places.values()].sort((a, b) => a.at - b.at);
  const { length, gate } = ctx.settings;
  return sorted.map(({ at, use, prefers, with: other }, i): Slot => {
    const chord = sure(chordAt(ctx, at));
    const end = style.sustains ? silenceAfter(ctx, at) : chord.start + chord.duration;
    const room = Math.min(sorted[i + 1]?.at ?? ctx.length, end) - at;
    const hold = length === "long" ? Infinity : style.hold(ctx, at, use) * (length === "short" ? 0.5 : 1);
    const rest = rests[lastBefore(rests, (r) => r.from <= at) + 1];
    const most = Math.min(room, hold, rest ? rest.from - at : Infinity);
    const duration = gate === "cut" ? untilBackbeat(ctx.backbeats, at, most) : most;
    return {
      start: at,
      duration: Math.max(60, Math.min(room, Math.round(duration))),
      use,
      ...(prefers ? { prefers } : {}),
      ...(other ? { with: other } : {}),
      ...(inGap(ctx, at) ? { inGap: true } : {}),
    };
  });
}

/** Where the chords stop: at N.C., at a gap, or at the end. */
function silenceAfter(ctx: BassContext, at: Ticks): Ticks {
  let end = at;
  for (let i = Math.max(0, lastBegun(ctx.chords, at)); i < ctx.chords.length; i++) {
    const c = nth(ctx.chords, i);
    if (c.start + c.duration <= at) continue;
    if (!c.chord || c.start > Math.max(at, end)) break;
    end = c.start + c.duration;
  }
  return Math.max(end, at);
}

/** Whether the last bar's rhythm is one that an earlier bar already had. Starts are in order. */
export function lastBarRepeats(starts: readonly Ticks[], bars: number, length: Ticks): boolean {
  const figures = Array.from({ length: bars }, (): Ticks[] => []);
  for (const s of starts) figures[Math.floor(s / length)]?.push(mod(s, length));
  const [last, ...earlier] = figures.map((f) => f.join()).reverse();
  return earlier.includes(sure(last));
}

/**
 * The repetition ends with a fill: what sounds in its last beat leads back. Where the last bar would repeat an earlier
 * one's rhythm, a note is added in a free half-beat near the end; where there is none, the line breathes just before
 * the fill.
 */
function addEnding(ctx: BassContext, places: Map<Ticks, RhythmPlace>, seed: number): void {
  const { bar, beats } = ctx.meter;
  const from = (ctx.bars - 1) * bar;
  const fill = from + lastOf(beats).start;
  const repeats = () =>
    lastBarRepeats(
      [...places.keys()].sort((a, b) => a - b),
      ctx.bars,
      bar,
    );
  for (const [at, place] of places)
    if (at > fill && place.use !== "anchor" && place.use !== "approach")
      places.set(at, { at, use: "ending", priority: 1 });
  const fine = beats.flatMap((b) => [b.start + halfOf(b.duration), b.start]);
  const finer = Array.from({ length: bar / 120 }, (_, i) => i * 120);
  const free = (list: readonly Ticks[]) =>
    list
      .map((at) => from + at)
      .filter((at) => at > from && at % 120 === 0 && !places.has(at) && chordAt(ctx, at)?.chord)
      .sort((a, b) => b - a);
  const first = free(fine);
  const shift = Math.floor(noise(seed, 3) * Math.min(2, first.length));
  for (const at of [...first.slice(shift), ...first.slice(0, shift)]) {
    if (!repeats()) return;
    places.set(at, { at, use: "ending", priority: 1 });
  }
  // A dense line is told apart by what it leaves out.
  for (const at of [...places.keys()].filter((t) => t > from && t < fill).sort((a, b) => b - a)) {
    if (!repeats()) return;
    if (sure(places.get(at)).priority < 1) places.delete(at);
  }
  for (const at of free(finer)) {
    if (!repeats()) return;
    places.set(at, { at, use: "ending", priority: 1 });
  }
}

/** Where the last chord's bass does not lead into what follows in the form, the last note does. */
function addLead(ctx: BassContext, style: BassStyle, places: Map<Ticks, RhythmPlace>): void {
  const last = ctx.chords.at(-1);
  if (!ctx.onward || !last?.chord) return;
  const [root, target] = [bassPc(last.chord), mod(ctx.onward.first?.midi ?? bassPc(sure(ctx.onward.chord.chord)), 12)];
  if (root === target || leadsTo(root, target)) return;
  const end = Math.min(ctx.length, last.start + last.duration);
  const beat = beatLength(ctx, end - 1);
  // A style that goes outside the chord only briefly leads in the last half-beat.
  const from = (style.targets.longestOutside ?? 1) < 1 ? end - (beat - halfOf(beat)) : end - beat;
  const latest = Math.max(-1, ...[...places.keys()].filter((at) => at < end));
  const free =
    latest >= from && sure(places.get(latest)).use !== "anchor"
      ? latest
      : [from, end - (beat - halfOf(beat))].find((at) => at > latest);
  if (free !== undefined) places.set(free, { at: free, use: "approach", priority: 1 });
}

/** The length that ends before the next snare or clap, so that the line breathes; at least a sixteenth remains. */
export function untilBackbeat(backbeats: readonly Ticks[], start: Ticks, most: Ticks): Ticks {
  const next = backbeats.find((b) => b > start);
  return next !== undefined && next - start < most ? Math.max(120, next - start) : most;
}
