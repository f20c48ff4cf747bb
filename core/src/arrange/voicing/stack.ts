import { firstOf, lastOf } from "../../base/list";
import { mod, type Midi, type PitchClass } from "../../theory/pitch/pitch";
import { bassPc, dispensable, rootPc, tone, type Chord, type ChordTone } from "../../theory/chord/chord";
import type { RawVoicing, VoicingLimits } from "./style";

export const pcOf = (chord: Chord, tone: ChordTone): PitchClass => mod(rootPc(chord) + tone.semitones, 12);

export const toneAt = (chord: Chord, ...degrees: number[]): ChordTone | undefined =>
  degrees.map((d) => chord.tones.find((t) => t.degree === d)).find((t) => t !== undefined);

/**
 * Tones in the order of what they tell of the name: third (or suspension), seventh or sixth, highest color, altered
 * fifth, root, fifth, the rest.
 */
export function byWorth(chord: Chord, bassCovered: boolean): ChordTone[] {
  const rankOf = (t: ChordTone): number => {
    if (t.degree === 3 || t.degree === 2 || t.degree === 4) return 0;
    if (t.degree === 7 || t.degree === 6) return 1;
    if (t.degree > 7) return t.alter ? 2 : 3 + (13 - t.degree) / 10;
    if (t.degree === 5) return t.alter ? 2 : 6;
    return bassCovered ? 5 : -1;
  };
  return [...chord.tones].sort((a, b) => rankOf(a) - rankOf(b));
}

/**
 * What is lost by the tones left out: the fifth hardly counts, the root little where a bass plays it (common practice).
 */
export function lossOf(chord: Chord, used: readonly ChordTone[], bassCovered: boolean): number {
  const loss = ({ degree, alter }: ChordTone): number => {
    if (degree === 1) return bassCovered ? 0.4 : 4;
    if (alter) return 4;
    if (degree === 5) return 0.4;
    return degree > 7 ? 0.8 : 4;
  };
  return chord.tones.filter((t) => !used.includes(t)).reduce((sum, t) => sum + loss(t), 0);
}

/**
 * A ninth or thirteenth that the symbol does not name but the key has, or, without a key, that colors without
 * contradicting: ninths over major, minor and dominant sevenths, thirteenths over dominants (Levine, The Jazz Piano
 * Book). None where the chord is altered, diminished or has another one.
 */
export function colorOf(chord: Chord, degree: 9 | 13, scale?: readonly PitchClass[]): ChordTone | undefined {
  const has = (role: string) => chord.tones.some((t) => t.role === role);
  const dominant = has("3") && has("b7");
  if (
    !has("5") ||
    chord.tones.some((t) => t.degree === degree || (t.degree > 7 && t.alter !== 0)) ||
    (degree === 13 && !dominant)
  )
    return undefined;
  const natural = tone(degree);
  const inKey = (t: ChordTone) => scale?.includes(pcOf(chord, t)) ?? true;
  if (inKey(natural)) return natural;
  const flat = tone(degree, -1);
  return dominant && inKey(flat) ? flat : undefined;
}

/** Notes stacked upward from the lowest, each in the next place above the one before. */
export function stackUp(bottom: Midi, pcs: readonly PitchClass[]): Midi[] {
  const out = [bottom];
  for (const pc of pcs) out.push(lastOf(out) + 1 + mod(pc - lastOf(out) - 1, 12));
  return out;
}

/** Every place of a stack of pitch classes (the first at the bottom) within the limits. */
export function places(pcs: readonly PitchClass[], { low, high }: Pick<VoicingLimits, "low" | "high">): Midi[][] {
  const out: Midi[][] = [];
  for (let bottom = low + mod(firstOf(pcs) - low, 12); bottom <= high; bottom += 12) {
    const stack = stackUp(bottom, pcs.slice(1));
    if (lastOf(stack) <= high) out.push(stack);
  }
  return out;
}

/** Close positions: all turns of the tones, each stacked as tightly as it goes. */
export function closePositions(pcs: readonly PitchClass[], limits: Pick<VoicingLimits, "low" | "high">): Midi[][] {
  const order = [...new Set(pcs)];
  const ring = order.sort((a, b) => a - b);
  return ring.flatMap((_, rotation) => places([...ring.slice(rotation), ...ring.slice(0, rotation)], limits));
}

/**
 * A set of layouts as voicings, duplicates and those outside the limits left out; a written slash bass goes below where
 * no bass part plays it.
 */
export function voiced(
  chord: Chord,
  layouts: readonly (readonly Midi[])[],
  { low, high, bassCovered }: VoicingLimits,
  { missing = 0, doubling = 0 }: { missing?: number | undefined; doubling?: number | undefined } = {},
): RawVoicing[] {
  const seen = new Set<string>();
  const out: RawVoicing[] = [];
  // Without a bass part the bass lies lowest; where no layout has it there it is laid below.
  const stands = (layout: readonly Midi[]) => mod(Math.min(...layout), 12) === bassPc(chord);
  const usable = bassCovered || !layouts.some(stands) ? layouts : layouts.filter(stands);
  for (const layout of usable) {
    const pitches = [...layout].sort((a, b) => a - b);
    if (!bassCovered && mod(firstOf(pitches), 12) !== bassPc(chord)) {
      const bottom = firstOf(pitches) - 1 - mod(firstOf(pitches) - 1 - bassPc(chord), 12);
      if (bottom < low - 12) continue;
      pitches.unshift(bottom);
    } else if (firstOf(pitches) < low) continue;
    if (lastOf(pitches) > high || new Set(pitches).size < pitches.length) continue;
    const id = pitches.join();
    if (seen.has(id)) continue;
    seen.add(id);
    out.push({ pitches, missing, doubling });
  }
  return out.sort((a, b) => firstOf(a.pitches) - firstOf(b.pitches) || lastOf(a.pitches) - lastOf(b.pitches));
}

/**
 * The tones of a chord for a number of voices, most telling first; a chord of three tones doubles its root for the
 * fourth voice.
 */
export function chosenTones(chord: Chord, voices: number, bassCovered: boolean): ChordTone[] {
  return byWorth(chord, bassCovered).slice(0, Math.max(3, voices));
}

/**
 * What it costs to leave a tone out: thirds, suspensions and sevenths name the chord; fifths hardly matter; the root
 * may go to the bass.
 */
export function importanceOf(tone: ChordTone, chord: Chord, bassCovered: boolean): number {
  if (tone.degree === 1) return bassCovered ? 0.8 : 5;
  if (dispensable(chord).includes(tone)) return tone.degree === 5 ? 0.6 : 1;
  if (tone.degree <= 4 || tone.degree === 7 || tone.degree === 6) return 8;
  if (tone.degree === 5) {
    if (tone.alter) return 6;
    return 0.8;
  }
  return 5;
}

/** Doubling the root or fifth is neutral, doubling a colored tone is heard (common practice). */
export const doublingCost = (tone: ChordTone): number => {
  if (tone.degree === 1) return 0.3;
  if (tone.degree === 5 && !tone.alter) return 0.6;
  if (tone.degree === 3) return 1.5;
  return 3;
};
