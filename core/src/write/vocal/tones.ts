import { firstOf, nth, sure } from "../../base/list";
import { capital } from "../../theory/words/english";
import { mod, type Midi, type PitchClass } from "../../theory/pitch/pitch";
import { metricalLevel, type Ticks } from "../../theory/time/meter";
import { chordPitchClasses, chordToneName, toneRole } from "../../theory/chord/chord";
import type { RealizedChord } from "../../song/realize";
import { ROLE_WORDS } from "../../hear/slice/roles";
import { isRub, rubsOver } from "../../hear/line/between";
import { chordUnder, type VocalContext, type VocalVoice } from "./context";
import type { Stack, VocalSlot } from "./school";

export const chordPcs = (chord: RealizedChord | null): readonly PitchClass[] =>
  chord?.chord ? chordPitchClasses(chord.chord) : [];
/** Whether a pitch is a tone of a chord; where none sounds, every tone is one. */
export const inChord = (chord: RealizedChord | null, midi: Midi): boolean =>
  !chord?.chord || chordPcs(chord).includes(mod(midi, 12));

/** The scale of a moment: that of the key, in which tones of the chord stand for those of the same letter. */
export function scaleOf({ key }: Pick<VocalContext, "key">, chord: RealizedChord | null): PitchClass[] {
  const own = chordPcs(chord);
  const altered = own.filter((pc) => !key.pcs.includes(pc));
  const letters = altered.map((pc) => chordToneName(sure(sure(chord).chord), pc)?.[0]);
  const kept = key.pcs.filter((pc, i) => own.includes(pc) || !letters.includes(nth(key.scale, i)[0]));
  return [...new Set([...kept, ...altered])].sort((a, b) => a - b);
}

/** The pitch so many steps of a scale above (or below) another one, which may itself lie between them. */
export function stepped(scale: readonly PitchClass[], midi: Midi, steps: number): Midi {
  let at = midi;
  for (let left = Math.abs(steps); left > 0; left--)
    do at += Math.sign(steps);
    while (!scale.includes(mod(at, 12)));
  return at;
}

/** Pitches of some classes from one up to another. */
export function pitchesIn(pcs: readonly PitchClass[], low: Midi, high: Midi): Midi[] {
  const out: Midi[] = [];
  for (let m = low; m <= high; m++) if (pcs.includes(mod(m, 12))) out.push(m);
  return out;
}

const beatOf = (ctx: Pick<VocalContext, "meter">): Ticks => firstOf(ctx.meter.beats).duration;
/** Whether a note counts: it begins on a beat, or lasts one. */
export const weighs = (ctx: Pick<VocalContext, "meter">, start: Ticks, duration: Ticks): boolean =>
  duration >= beatOf(ctx) || metricalLevel(ctx.meter, start) >= -2;

/** Common costs of a tone (common practice throughout). */
const COST = {
  outside: 2,
  weakOutside: 0.3,
  withTune: 0.3,
  longWithTune: 1,
  noKey: 2,
  rub: 3,
  weakRub: 1,
  unison: 2.5,
  stretch: 0.2,
  beyond: 8,
} as const;

/** What lying in a voice costs: nothing at ease, a little at the ends, much beyond them. */
export function rangeCost({ comfortable: [low, high], extremes: [least, most] }: VocalVoice, midi: Midi): number {
  const stretch = Math.max(0, low - midi, midi - high) * COST.stretch;
  const beyond = Math.max(0, least - midi, midi - most);
  return stretch + (beyond ? COST.beyond + beyond : 0);
}

/**
 * Whether a pitch rubs against what sounds with it beside the voices, or lies a minor ninth above a tone of the chord.
 */
export function rubsInVoices(ctx: VocalContext, midi: Midi, tick: Ticks): boolean {
  const tune = ctx.leadAt(tick);
  const around = [
    ...(tune ? [tune.midi] : []),
    ...ctx.harmonyAt(tick),
    ...ctx.others.flatMap((o) => o.at(tick).map((n) => n.midi)),
  ];
  return rubsOver(chordPcs(chordUnder(ctx, tick)), midi, around);
}

/** What a tone costs where it stands: outside the chord or the key, rubbing, doubling the tune. */
export function toneCost(ctx: VocalContext, slot: VocalSlot, midi: Midi, voice: VocalVoice): number {
  const { lead, chord, start, duration } = slot;
  const counts = weighs(ctx, start, duration);
  // A tune that passes through is gone along with.
  const passing = lead !== null && !inChord(chord, lead.midi);
  const long = duration > beatOf(ctx);
  let cost = rangeCost(voice, midi);
  if (!inChord(chord, midi)) {
    const outside = () => {
      if (passing) {
        if (long) return COST.longWithTune;
        return COST.withTune;
      }
      if (counts) return COST.outside;
      return COST.weakOutside;
    };
    cost += outside();
  }
  if (!ctx.key.pcs.includes(mod(midi, 12)) && !chordPcs(chord).includes(mod(midi, 12))) cost += COST.noKey;
  // A tone that goes along with a short passing one of the tune may lie above a tone of the chord, as that does.
  if (rubsInVoices(ctx, midi, start) && !(passing && !long && lead && !isRub(midi, lead.midi)))
    cost += counts ? COST.rub : COST.weakRub;
  if (lead?.midi === midi) cost += COST.unison;
  return cost;
}

/** What a move of one voice costs. */
export function moveCost(from: Midi, to: Midi): number {
  const size = Math.abs(to - from);
  if (size <= 2) return size * 0.05;
  return size * 0.09 + (size === 6 ? 1.2 : 0) + (size >= 8 ? 1.5 : 0) + (size > 12 ? 4 : 0);
}

/** Every way to choose so many of a list, in its order. */
export function choose<T>(list: readonly T[], count: number): T[][] {
  if (count === 0) return [[]];
  return list.flatMap((x, i) => choose(list.slice(i + 1), count - 1).map((rest) => [x, ...rest]));
}

/** One voice as stacks. */
export const asStack = (midi: Midi, cost: number): Stack => ({ pitches: [midi], cost });

/** What a tone is over its chord, for the words of a reason. */
export function roleOver(chord: RealizedChord | null, midi: Midi): { role: string; chord: string } | null {
  if (!chord?.chord) return null;
  const { role } = toneRole(chord.chord, mod(midi, 12));
  return { role: capital(ROLE_WORDS[role] ?? role), chord: chord.symbol };
}
