import { mod, type Midi } from "../pitch/pitch";
import type { Ticks } from "../time/meter";
import { chordPitchClasses } from "../chord/chord";
import { beatsWithin, chordAt, type CounterContext } from "./context";

/** A semitone or a minor ninth between two pitches: the intervals that rub most (any arranging handbook). */
export const rubs = (a: Midi, b: Midi): boolean => Math.abs(a - b) === 1 || Math.abs(a - b) === 13;

/**
 * Whether a pitch rubs at a moment: a semitone or minor ninth against the tune or a part that lays out the chords, or a minor ninth above a tone
 * of the chord. Two tones that both belong to the chord are its own color.
 */
export function rubsAt(ctx: CounterContext, midi: Midi, tick: Ticks): boolean {
  const chord = chordAt(ctx, Math.max(0, tick))?.chord;
  const pcs = chord ? chordPitchClasses(chord) : [];
  const own = pcs.includes(mod(midi, 12));
  const against = (other: Midi) => rubs(midi, other) && !(own && pcs.includes(mod(other, 12)));
  const tune = ctx.tuneAt(tick);
  if (tune && against(tune.midi)) return true;
  if (ctx.harmonyAt(tick).some(against)) return true;
  return !own && pcs.includes(mod(midi - 1, 12));
}

/** Moments of a note that are judged: every beat it sounds on. */
export const judged = (ctx: CounterContext, start: Ticks, duration: Ticks): Ticks[] => beatsWithin(ctx.meter, start, start + duration);

/** Beats on which a pitch rubs while it is held. */
export const rubbedBeats = (ctx: CounterContext, midi: Midi, start: Ticks, duration: Ticks): Ticks[] =>
  judged(ctx, start, duration).filter((t) => rubsAt(ctx, midi, t));
