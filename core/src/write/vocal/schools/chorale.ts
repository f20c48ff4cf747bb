import { firstOf, nth, pairwise, sure } from "../../../base/list";
import { mod, type Midi } from "../../../theory/pitch/pitch";
import { isAugmentedSecond } from "../../../theory/pitch/interval";
import { bassPc, chordToneName, rootPc, type Chord } from "../../../theory/chord/chord";
import { because } from "../../../song/reasons";
import { isRub } from "../../../hear/line/between";
import { belowLimit, parallelPerfect } from "../../../theory/motion/motion";
import type { VocalContext } from "../context";
import type { Stack, VocalSchool, VocalSlot } from "../school";
import { hymnSlots } from "../slots";
import { leadingToneOf, seventhOf, WIDEST_UPPER } from "../../../hear/harmony/tendency";
import { chordPcs, pitchesIn, rangeCost, roleOver } from "../tones";
import { distanceWords } from "./inScale";

const NAMES = ["alto", "tenor", "bass"] as const;

/**
 * What each doubling costs: the root is best, then the fifth, then the third; leading tones and sevenths are not
 * doubled (Kostka & Payne).
 */
function doublingCost(ctx: VocalContext, slot: VocalSlot, pc: number): number {
  const chord = sure(sure(slot.chord).chord);
  if (pc === leadingToneOf(ctx.key, slot.chord) || pc === seventhOf(slot.chord)) return 9;
  const above = mod(pc - rootPc(chord), 12);
  if (above === 0) return 0;
  if (above === 7) return 0.5;
  if (above === 3) return 0.9;
  if (above === 4) return 1.4;
  return 3;
}

/** What it costs to leave out a tone, by degree. */
const MISSING: Record<number, number> = { 1: 2.5, 2: 5, 3: 5, 4: 5, 5: 0.7 };

/** What the bass costs, by semitones over the root: a third is well, a fifth must be led to. */
function bassCost(above: number): number {
  if (above === 0) return 0;
  if (above === 3 || above === 4) return 0.8;
  return above === 7 ? 3.5 : 1.6;
}

/** Two voices on one pitch, soprano to bass. */
const unisonCost = (pitches: readonly Midi[]): number =>
  pairwise(pitches).reduce((sum, [upper, lower], i) => sum + (upper === lower ? nth(UNISON, i) : 0), 0);
const UNISON = [1.2, 1.2, 0.8];

/** Which tones are sung how often: doublings, what is missing, a seventh above all. */
function tonesCost(ctx: VocalContext, slot: VocalSlot, chord: Chord, pitches: readonly Midi[]): number {
  const counts = new Map<number, number>();
  for (const m of pitches) counts.set(mod(m, 12), (counts.get(mod(m, 12)) ?? 0) + 1);
  let cost = 0;
  for (const [pc, n] of counts) cost += (n - 1) * doublingCost(ctx, slot, pc) + (n > 2 ? 2 : 0);
  for (const tone of chord.tones)
    if (!counts.has(mod(rootPc(chord) + tone.semitones, 12))) cost += MISSING[tone.degree] ?? 1.5;
  const seventh = seventhOf(slot.chord);
  return cost + (seventh !== null && !counts.has(seventh) ? 5 : 0);
}

/** Alto, tenor and bass under a note of the tune: complete, spaced, nothing doubled that should not be. */
function settings(ctx: VocalContext, slot: VocalSlot): Stack[] {
  const { chord } = slot;
  if (!chord?.chord) return [];
  const pcs = chordPcs(chord);
  const [alto, tenor, bass] = ctx.voices;
  const s = sure(slot.lead).midi;
  const inside = (v: number, low: Midi, high: Midi): Midi[] => {
    const [least, most] = nth(ctx.voices, v).extremes;
    return pitchesIn(pcs, Math.max(low, least), Math.min(high, most));
  };
  const written = bassPc(chord.chord);
  const slashed = chord.chord.bass !== undefined;
  const out: Stack[] = [];
  for (const a of inside(0, s - WIDEST_UPPER, s))
    for (const t of inside(1, a - WIDEST_UPPER, a))
      for (const b of inside(2, t - 24, t)) {
        const pc = mod(b, 12);
        if (slashed && pc !== written) continue;
        let cost = slashed ? 0 : bassCost(mod(pc - rootPc(chord.chord), 12));
        cost += tonesCost(ctx, slot, chord.chord, [s, a, t, b]);
        cost += rangeCost(sure(alto), a) + rangeCost(sure(tenor), t) + rangeCost(sure(bass), b);
        cost += unisonCost([s, a, t, b]);
        cost += Math.max(0, t - b - 16) * 0.1 + belowLimit(b, t) * 1.5;
        if (!pcs.includes(mod(s, 12))) cost += [a, t, b].filter((m) => isRub(m, s)).length * 4;
        out.push({ pitches: [a, t, b], cost });
      }
  return bestOf(out);
}

/**
 * Settings that cost much more than the best are not tried, nor more than so many (chords of five and more tones have
 * thousands).
 */
const WORSE = 8;
const MOST = 90;
function bestOf(stacks: Stack[]): Stack[] {
  const sorted = stacks.sort((x, y) => x.cost - y.cost);
  return sorted.filter((x) => x.cost <= firstOf(sorted).cost + WORSE).slice(0, MOST);
}

/** What breaks the rules of moving costs (common practice of the chorale style). */
const MOVE = {
  parallel: 20,
  direct: 2,
  overlap: 4,
  semitone: { bass: 0.04, inner: 0.12 },
  dissonant: 3,
  wide: 8,
  innerLeap: 1,
} as const;

/** Parallels between all voices; `ends`: where the soprano stands as the place ends. */
function parallelsOf(was: readonly Midi[], now: readonly Midi[], ends: Midi): number {
  let cost = 0;
  for (let high = 0; high < 4; high++)
    for (let low = high + 1; low < 4; low++) {
      const between = (top: Midi) => parallelPerfect(nth(was, low), nth(now, low), top, nth(now, high));
      // A passing note of the tune neither makes nor hides a parallel.
      if (high === 0 && ends !== was[0] && between(ends)) cost += MOVE.parallel;
      if (between(nth(was, high))) cost += MOVE.parallel;
      else if (high === 0 && low === 3 && directPerfect(was, now)) cost += MOVE.direct;
    }
  return cost;
}

/** What the move of one voice costs by its size; the bass may leap. */
function leapOf(voice: number, size: number): number {
  const bass = voice === 3;
  let cost = size * (bass ? MOVE.semitone.bass : MOVE.semitone.inner);
  if (size === 6 || size === 10 || size === 11) cost += MOVE.dissonant;
  if (size > 12) cost += MOVE.wide;
  if (!bass && size > 5) cost += MOVE.innerLeap;
  return cost;
}

/** What moving from one setting to the next costs: parallels, overlaps, leaps, tones that must resolve. */
function moving(ctx: VocalContext, from: Stack, to: Stack, { a, b }: { a: VocalSlot; b: VocalSlot }): number {
  const was = [sure(a.lead).midi, ...from.pitches];
  const now = [sure(b.lead).midi, ...to.pitches];
  let cost = parallelsOf(was, now, a.leadEnd ?? firstOf(was));
  for (let v = 0; v < 3; v++) if (nth(now, v + 1) > nth(was, v) || nth(now, v) < nth(was, v + 1)) cost += MOVE.overlap;
  for (let v = 1; v < 4; v++) {
    const [x, y] = [nth(was, v), nth(now, v)];
    cost += leapOf(v, Math.abs(y - x)) + (isAugmented(a, b, x, y) ? MOVE.dissonant : 0);
  }
  return cost + unresolved(ctx, was, now, { a, b });
}

/** A step of three semitones, by the names of the tones in their chords. */
function isAugmented(a: VocalSlot, b: VocalSlot, from: Midi, to: Midi): boolean {
  if (Math.abs(to - from) !== 3 || !a.chord?.chord || !b.chord?.chord) return false;
  const [x, y] = [chordToneName(a.chord.chord, mod(from, 12)), chordToneName(b.chord.chord, mod(to, 12))];
  return x !== null && y !== null && isAugmentedSecond(x, y, to - from);
}

/** Outer voices that move the same way into a fifth or octave, the upper one by leap. */
const directPerfect = (was: readonly Midi[], now: readonly Midi[]): boolean => {
  const [top, low] = [firstOf(now) - firstOf(was), nth(now, 3) - nth(was, 3)];
  return Math.abs(top) > 2 && Math.sign(top) === Math.sign(low) && [0, 7].includes(mod(firstOf(now) - nth(now, 3), 12));
};

/** Leading tones that do not rise and sevenths that do not fall, where the next chord has the tone they want. */
function unresolved(
  ctx: VocalContext,
  was: readonly Midi[],
  now: readonly Midi[],
  { a, b }: { a: VocalSlot; b: VocalSlot },
): number {
  const leading = leadingToneOf(ctx.key, a.chord);
  const seventh = seventhOf(a.chord);
  const next = chordPcs(b.chord);
  let cost = 0;
  for (let v = 1; v < 4; v++) {
    const [pc, move] = [mod(nth(was, v), 12), nth(now, v) - nth(was, v)];
    if (a.chord === b.chord) continue;
    if (pc === leading && next.includes(mod(leading + 1, 12)) && move !== 1 && !next.includes(leading))
      cost += v === 3 ? 12 : 4;
    if (
      pc === seventh &&
      !next.includes(pc) &&
      move !== -1 &&
      move !== -2 &&
      (next.includes(mod(pc - 1, 12)) || next.includes(mod(pc - 2, 12)))
    )
      cost += 10;
  }
  return cost;
}

export const chorale: VocalSchool = {
  id: "chorale",
  title: "Four-part chorale",
  explanation:
    "Alto, tenor and bass under the tune as the soprano, moving with the chords and beats: complete chords " +
    "with the root doubled first, upper voices at most an octave apart, no parallel fifths or octaves, leading " +
    "tones up and sevenths down. Assumes four independent voices.",
  source: "Kostka & Payne, Tonal Harmony",
  voices: [3, 3],
  types: ["alto", "tenor", "bassVoice"],
  needs: ["tune", "chords"],
  targets: { chordTime: 0.95, strict: true },
  usual: { voices: 4 },
  uses: [],
  ways: (ctx) => [
    {
      title: "Soprano, alto, tenor, bass",
      slots: hymnSlots(ctx),
      several: true,
      stacks: (slot) => settings(ctx, slot),
      step: (from, to, a, b) => moving(ctx, from, to, { a, b }),
      free: true,
      reason: ({ voice, slot, midi }) =>
        because("inner", {
          ...sure(roleOver(slot.chord, midi)),
          voice: nth(NAMES, voice),
          interval: distanceWords(sure(slot.lead).midi, midi),
          pitch: sure(slot.lead).pitch,
        }),
    },
  ],
};
