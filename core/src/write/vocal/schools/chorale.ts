import { mod, type Midi } from "../../../theory/pitch/pitch";
import { bassPc, rootPc } from "../../../theory/chord/chord";
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

/** What each doubling costs: the root is best, then the fifth, then the third; leading tones and sevenths are not doubled (Kostka & Payne). */
function doublingCost(ctx: VocalContext, slot: VocalSlot, pc: number): number {
  const chord = slot.chord!.chord!;
  if (pc === leadingToneOf(ctx.key, slot.chord) || pc === seventhOf(slot.chord)) return 9;
  const above = mod(pc - rootPc(chord), 12);
  return above === 0 ? 0 : above === 7 ? 0.5 : above === 3 ? 0.9 : above === 4 ? 1.4 : 3;
}

/** Alto, tenor and bass under a note of the tune: complete, spaced, nothing doubled that should not be. */
function settings(ctx: VocalContext, slot: VocalSlot): Stack[] {
  const { chord } = slot;
  if (!chord?.chord) return [];
  const pcs = chordPcs(chord);
  const [alto, tenor, bass] = ctx.voices;
  const s = slot.lead!.midi;
  const inside = (v: number, low: Midi, high: Midi): Midi[] => {
    const [least, most] = ctx.voices[v]!.extremes;
    return pitchesIn(pcs, Math.max(low, least), Math.min(high, most));
  };
  const written = bassPc(chord.chord);
  const slashed = chord.chord.bass !== undefined;
  const seventh = seventhOf(chord);
  const out: Stack[] = [];
  for (const a of inside(0, s - WIDEST_UPPER, s))
    for (const t of inside(1, a - WIDEST_UPPER, a))
      for (const b of inside(2, t - 24, t)) {
        const pc = mod(b, 12);
        if (slashed && pc !== written) continue;
        const above = mod(pc - rootPc(chord.chord), 12);
        let cost = slashed || above === 0 ? 0 : above === 3 || above === 4 ? 0.8 : above === 7 ? 3.5 : 1.6;
        const counts = new Map<number, number>();
        for (const m of [s, a, t, b]) counts.set(mod(m, 12), (counts.get(mod(m, 12)) ?? 0) + 1);
        for (const [own, n] of counts) cost += (n - 1) * doublingCost(ctx, slot, own) + (n > 2 ? 2 : 0);
        for (const tone of chord.chord.tones)
          if (!counts.has(mod(rootPc(chord.chord) + tone.semitones, 12)))
            cost +=
              tone.degree === 5 ? 0.7 : tone.degree === 1 ? 2.5 : tone.degree === 3 || tone.degree === 4 || tone.degree === 2 ? 5 : 1.5;
        if (seventh !== null && !counts.has(seventh)) cost += 5;
        cost +=
          rangeCost(alto!, a) +
          rangeCost(tenor!, t) +
          rangeCost(bass!, b) +
          (a === s ? 1.2 : 0) +
          (t === a ? 1.2 : 0) +
          (t === b ? 0.8 : 0);
        cost += Math.max(0, t - b - 16) * 0.1 + belowLimit(b, t) * 1.5;
        if (!pcs.includes(mod(s, 12))) cost += [a, t, b].filter((m) => isRub(m, s)).length * 4;
        out.push({ pitches: [a, t, b], cost });
      }
  return bestOf(out);
}

/** Settings that cost much more than the best are not tried, nor more than so many (chords of five and more tones have thousands). */
const WORSE = 8;
const MOST = 90;
function bestOf(stacks: Stack[]): Stack[] {
  const sorted = stacks.sort((x, y) => x.cost - y.cost);
  return sorted.filter((x) => x.cost <= sorted[0]!.cost + WORSE).slice(0, MOST);
}

/** What moving from one setting to the next costs: parallels, overlaps, leaps, tones that must resolve. */
function moving(ctx: VocalContext, from: Stack, to: Stack, a: VocalSlot, b: VocalSlot): number {
  const was = [a.lead!.midi, ...from.pitches];
  const now = [b.lead!.midi, ...to.pitches];
  // A passing note of the tune neither makes nor hides a parallel.
  const ends = a.leadEnd ?? was[0]!;
  let cost = 0;
  for (let high = 0; high < 4; high++)
    for (let low = high + 1; low < 4; low++) {
      const kind = parallelPerfect(was[low]!, now[low]!, was[high]!, now[high]!);
      if (high === 0 && ends !== was[0] && parallelPerfect(was[low]!, now[low]!, ends, now[0]!)) cost += 20;
      if (kind) cost += 20;
      else if (high === 0 && low === 3 && directPerfect(was, now)) cost += 2;
    }
  for (let v = 0; v < 3; v++) if (now[v + 1]! > was[v]! || now[v]! < was[v + 1]!) cost += 4;
  for (let v = 1; v < 4; v++) {
    const size = Math.abs(now[v]! - was[v]!);
    cost += v === 3 ? size * 0.04 : size * 0.12;
    if (size === 6 || size === 10 || size === 11) cost += 3;
    if (size > 12) cost += 8;
    if (v < 3 && size > 5) cost += 1;
  }
  return cost + unresolved(ctx, was, now, a, b);
}

/** Outer voices that move the same way into a fifth or octave, the upper one by leap. */
const directPerfect = (was: readonly Midi[], now: readonly Midi[]): boolean => {
  const [top, low] = [now[0]! - was[0]!, now[3]! - was[3]!];
  return Math.abs(top) > 2 && Math.sign(top) === Math.sign(low) && [0, 7].includes(mod(now[0]! - now[3]!, 12));
};

/** Leading tones that do not rise and sevenths that do not fall, where the next chord has the tone they want. */
function unresolved(ctx: VocalContext, was: readonly Midi[], now: readonly Midi[], a: VocalSlot, b: VocalSlot): number {
  const leading = leadingToneOf(ctx.key, a.chord);
  const seventh = seventhOf(a.chord);
  const next = chordPcs(b.chord);
  let cost = 0;
  for (let v = 1; v < 4; v++) {
    const [pc, move] = [mod(was[v]!, 12), now[v]! - was[v]!];
    if (a.chord === b.chord) continue;
    if (pc === leading && next.includes(mod(leading + 1, 12)) && move !== 1 && !next.includes(leading)) cost += v === 3 ? 12 : 4;
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
    "Alto, tenor and bass under the tune as the soprano, moving with the chords and beats: complete chords with the root doubled first, upper voices at most an octave apart, no parallel fifths or octaves, leading tones up and sevenths down. Assumes four independent voices.",
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
      step: (from, to, a, b) => moving(ctx, from, to, a, b),
      free: true,
      reason: ({ voice, slot, midi }) =>
        because("inner", {
          ...roleOver(slot.chord, midi)!,
          voice: NAMES[voice]!,
          interval: distanceWords(slot.lead!.midi, midi),
          pitch: slot.lead!.pitch,
        }),
    },
  ],
};
