import { firstOf } from "../../base/list";
import { nameKey } from "../../hear/harmony/keys";
import { parseKey, rootInKey, type Key } from "../../theory/pitch/key";
import { mod, pitchClass, plainName, transposeNote, type NoteName, type PitchClass } from "../../theory/pitch/pitch";
import type { Meter, Ticks } from "../../theory/time/meter";
import { chordPitchClasses, chordSymbol, rootPc, toneName, type Chord } from "../../theory/chord/chord";
import { diatonicChord } from "../../theory/chord/numerals";
import { parseChord } from "../../theory/chord/parse";
import type { RealizedNote } from "../../song/realize";
import { placeWeight } from "./fit";
import type { Proposal, ChordSlot, Spot } from "./technique";

/** Name of a root in a key: a lowered degree, or a raised one, where the key has no name for it. */
export const rootName = (pc: PitchClass, key: Key, flats = true): NoteName => rootInKey(mod(pc, 12), key, !flats);

export const symbolAt = (pc: PitchClass, quality: string, key: Key, flats = true): string =>
  rootName(pc, key, flats) + quality;

export const read = (symbol: string): Chord => {
  const chord = parseChord(symbol);
  if (!chord.ok) throw new Error(chord.error.message);
  return chord.value;
};

/** The length of a slot in two parts, cut on the beat nearest its middle; null when it has no beat inside. */
export function halves(slot: ChordSlot, meter: Meter): [Ticks, Ticks] | null {
  const { start, duration } = slot.event;
  const beats: Ticks[] = [];
  for (let bar = Math.floor(start / meter.bar); bar * meter.bar < start + duration; bar++)
    for (const beat of meter.beats) {
      const at = bar * meter.bar + beat.start;
      if (at > start && at < start + duration) beats.push(at - start);
    }
  if (!beats.length) return null;
  const cut = beats.reduce((best, b) => (Math.abs(b - duration / 2) < Math.abs(best - duration / 2) ? b : best));
  return [cut, duration - cut];
}

/** A slot cut into n equal parts of whole sixteenths, or null. */
export function parts(slot: ChordSlot, n: number): Ticks[] | null {
  const each = slot.event.duration / n;
  return Number.isInteger(each / 120) && each >= 480 ? Array<Ticks>(n).fill(each) : null;
}

/**
 * A root as it is spelled from the one it leads to: the dominant of F# minor stands on C#, not on Db; no E#, B#, Cb, Fb
 * where the key has none.
 */
export function rootFrom(target: NoteName, letters: number, semitones: number, key: Key): NoteName {
  const name = transposeNote(target, letters, semitones);
  const readable = key.scale.includes(name) || (/^[A-G][#b]?$/.test(name) && !["E#", "B#", "Cb", "Fb"].includes(name));
  return readable ? name : rootName(pitchClass(target) + semitones, key);
}

/**
 * A chord of color some way from a note, under the one of its two names that is easier to read: Eb7, not D#7 with its
 * double sharp.
 */
export function colorAt(
  from: NoteName,
  letters: number,
  semitones: number,
  { quality, key }: { quality: string; key: Key },
): string {
  const root = rootFrom(from, letters, semitones, key);
  const awkward = (name: NoteName): number => {
    const chord = read(name + quality);
    return chord.tones
      .map((t) => toneName(chord, t))
      .reduce((sum, n) => {
        const trouble = () => {
          if (n.length > 2) return 2;
          if ((key.flats ? /^(E#|B#)$/ : /^(E#|B#|Cb|Fb)$/).test(n)) return 1;
          return 0;
        };
        return sum + trouble();
      }, 0);
  };
  const other = plainName(pitchClass(root), root.includes("#"));
  return (awkward(other) < awkward(root) ? other : root) + quality;
}

export const dominantRoot = (target: Chord, key: Key): NoteName => rootFrom(target.root, 4, 7, key);
export const twoRoot = (target: Chord, key: Key): NoteName => rootFrom(target.root, 1, 2, key);
export const substituteRoot = (target: Chord, key: Key): NoteName => rootFrom(target.root, 1, 1, key);

/** The note of the tune that counts most in a slot: held longest, on the stronger place. */
export function mainNote({ here, lines }: Spot): RealizedNote | undefined {
  const from = here.event.start;
  const to = from + here.event.duration;
  const weight = (n: RealizedNote) =>
    (Math.min(to, n.start + n.duration) - Math.max(from, n.start)) * placeWeight(lines.meter, Math.max(from, n.start));
  const inside = lines.melody.filter((n) => n.start < to && n.start + n.duration > from);
  return inside.reduce<RealizedNote | undefined>(
    (best, n) => (best && weight(best) >= weight(n) ? best : n),
    undefined,
  );
}

/** The chord stays for its first half and another takes the second. */
export function before(spot: Spot, symbol: string, reason: string, params: Record<string, string>): Proposal[] {
  const cut = halves(spot.here, spot.meter);
  if (!cut || symbol === spot.here.event.symbol) return [];
  return [
    {
      chords: [
        { symbol: spot.here.event.symbol, duration: cut[0] },
        { symbol, duration: cut[1] },
      ],
      needsNext: true,
      reason,
      params,
    },
  ];
}

/** One chord in the place of the whole slot. */
export const replacement = (
  spot: Spot,
  symbol: string,
  reason: string,
  { params, more = {} }: { params: Record<string, string>; more?: Partial<Proposal> | undefined },
): Proposal[] =>
  symbol === spot.here.event.symbol
    ? []
    : [{ chords: [{ symbol, duration: spot.here.event.duration }], reason, params, ...more }];

/** Triads answer triads, sevenths answer sevenths. */
export const sizeOf = (chord: Chord): 3 | 4 => (chord.tones.some((t) => t.degree === 7 || t.degree > 7) ? 4 : 3);

export const diatonicAt = (key: Key, step: number, like: Chord): string => diatonicChord(key, step, sizeOf(like));

/** Quality of the dominant that leads into a chord: with a flat ninth into minor chords. */
export const dominantInto = (target: Chord): string => (target.tones.some((t) => t.role === "b3") ? "7(b9)" : "9");

/** The minor key on the same tonic; where that could not be written, under its other name. */
export function parallelMinor(key: Key): Key {
  const minor = parseKey(`${key.tonic} minor`);
  return minor.ok ? minor.value : nameKey(firstOf(key.pcs), "minor", true);
}

export const has = (chord: Chord, role: string): boolean => chord.tones.some((t) => t.role === role);
export const stepIn = (chord: Chord, key: Key): number => key.pcs.indexOf(rootPc(chord));
export const upper = (chord: Chord): Chord => {
  const { bass: _, ...rest } = chord;
  return rest;
};
export const slashed = (chord: Chord, bass: NoteName): string =>
  chordSymbol(pitchClass(bass) === rootPc(chord) ? upper(chord) : { ...chord, bass });
export const shared = (a: Chord, b: Chord): number =>
  chordPitchClasses(a).filter((pc) => chordPitchClasses(b).includes(pc)).length;
