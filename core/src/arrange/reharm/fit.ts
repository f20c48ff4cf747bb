import { firstOf, sure } from "../../base/list";
import { mod, typeset } from "../../theory/pitch/pitch";
import { beatsText, metricalLevel, positionText, type Meter, type Ticks } from "../../theory/time/meter";
import { chordPitchClasses, rootPc, toneRole, type Chord } from "../../theory/chord/chord";
import { memberOf } from "../../theory/chord/numerals";
import { realize, type RealizedNote } from "../../song/realize";
import type { Song } from "../../song/schema";
import { soundingBetween } from "../../hear/slice/soundingIn";
import { tensions } from "../../hear/harmony/scales";
import type { Key } from "../../theory/pitch/key";

/** Notes that chords are tested against: tunes on top, the bass below. */
export interface Lines {
  melody: RealizedNote[];
  bass: RealizedNote[];
  /** The parts of the bass. */
  low: ReadonlySet<string>;
  names: Map<string, string>;
  meter: Meter;
}

export function tuneAndBass(song: Song, section: string, meter: Meter): Lines {
  const real = realize(song, { section });
  const of = (roles: readonly string[]) =>
    real.parts
      .filter((p) => roles.includes(p.role))
      .flatMap((p) => p.notes)
      .sort((a, b) => a.start - b.start);
  return {
    melody: of(["melody", "vocal", "counter"]),
    bass: of(["bass"]),
    low: new Set(real.parts.filter((p) => p.role === "bass").map((p) => p.id)),
    names: new Map(real.parts.map((p) => [p.id, firstOf(p.name.split(","))])),
    meter,
  };
}

const nameOf = (lines: Lines, note: RealizedNote): string => lines.names.get(note.part) ?? note.part;

export interface Fit {
  chordTones: number;
  tensions: number;
  /** Notes that neither belong to the chord nor color it, with where and for how long. */
  clashes: { note: string; tick: Ticks; text: string }[];
  cost: number;
}

/** Weights of a place in the bar: a downbeat counts fully, weak places less (common practice). */
export const placeWeight = (meter: Meter, tick: Ticks): number =>
  [1, 0.9, 0.75, 0.45, 0.3][-metricalLevel(meter, tick)] ?? 0.25;

/** Shorter than this off the beat, a note passes and is not held against a chord. */
const PASSING: Ticks = 240;

const tensionCache = new WeakMap<Chord, Map<Key, Map<number, boolean>>>();
function available(chord: Chord, key: Key): Map<number, boolean> {
  let byKey = tensionCache.get(chord);
  if (!byKey) tensionCache.set(chord, (byKey = new Map()));
  let found = byKey.get(key);
  if (!found) byKey.set(key, (found = new Map(tensions(chord, key).map((t) => [t.pc, t.available]))));
  return found;
}

/**
 * How a chord stands to the notes that sound over (or under) it. Costs are in beats of clash, weighted by place; a
 * semitone counts double. A tune that rests on the root rubs against a major seventh below it, though both are in the
 * chord (any arranging handbook).
 */
export function fitOf(
  chord: Chord,
  key: Key,
  { from, to, notes, lines }: { from: Ticks; to: Ticks; notes: readonly RealizedNote[]; lines: Lines },
): Fit {
  const major = chord.tones.some((t) => t.role === "7");
  const pcs = chordPitchClasses(chord);
  const fit: Fit = { chordTones: 0, tensions: 0, clashes: [], cost: 0 };
  const beat = firstOf(lines.meter.beats).duration;
  for (const note of soundingBetween(notes, from, to)) {
    const start = Math.max(from, note.start);
    const end = Math.min(to, note.start + note.duration);
    const pc = mod(note.midi, 12);
    const beats = (end - start) / beat;
    const weight = placeWeight(lines.meter, start);
    if (major && pc === rootPc(chord) && !lines.low.has(note.part) && beats * weight >= 1) {
      fit.cost += 0.8 * beats * weight;
      fit.clashes.push({
        note: note.id,
        tick: start,
        text:
          `${nameOf(lines, note)}: ${typeset(note.pitch)} at ${positionText(lines.meter, start)} would rub ` +
          `against ${typeset(sure(memberOf(chord, 7)).name)}, the major seventh of ` +
          `${typeset(chord.root + chord.quality)}, ${beatsText(lines.meter, end - start)}`,
      });
      continue;
    }
    if (pcs.includes(pc)) {
      fit.chordTones++;
      continue;
    }
    const tension = available(chord, key).get(pc);
    if (tension) {
      fit.tensions++;
      fit.cost += 0.12 * beats * weight;
      continue;
    }
    if (end - start <= PASSING && weight < 0.7) {
      fit.cost += 0.1 * beats;
      continue;
    }
    const semitone = pcs.some((p) => mod(pc - p, 12) === 1);
    fit.cost += beats * weight * (semitone ? 2 : 1);
    const { role } = toneRole(chord, pc);
    fit.clashes.push({
      note: note.id,
      tick: start,
      text:
        `${nameOf(lines, note)}: ${typeset(note.pitch)} at ${positionText(lines.meter, start)} would be the ` +
        `${typeset(role)} of ${typeset(chord.root + chord.quality)}, ${beatsText(lines.meter, end - start)}`,
    });
  }
  return fit;
}

/** The bass part against a chord: tones of the chord are fine in any inversion. */
export const bassFit = (chord: Chord, key: Key, from: Ticks, { to, lines }: { to: Ticks; lines: Lines }): Fit => {
  const fit = fitOf(chord, key, { from, to, notes: lines.bass, lines });
  // In the bass a tension is a foreign note, but a line can be written anew more easily than a tune.
  return { ...fit, cost: fit.cost * 0.5 + fit.tensions * 0.2 };
};

/** Outside notes of a chord, counted against a key. */
export const outsideOf = (chord: Chord, key: Key): number =>
  chordPitchClasses(chord).filter((pc) => !key.pcs.includes(pc)).length;
