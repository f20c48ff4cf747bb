import type { Midi } from "../../theory/pitch/pitch";
import type { Ticks } from "../../theory/time/meter";
import { chordPitchClasses } from "../../theory/chord/chord";
import { rubsOver } from "../../hear/line/between";
import { beatsWithin, chordAt, type CounterContext } from "./context";

/**
 * Whether a pitch rubs at a moment: against the tune, a part that lays out the chords, or a tone of the chord below it.
 */
export function rubsInCounter(ctx: CounterContext, midi: Midi, tick: Ticks): boolean {
  const chord = chordAt(ctx, Math.max(0, tick))?.chord;
  const tune = ctx.tuneAt(tick);
  return rubsOver(chord ? chordPitchClasses(chord) : [], midi, [...(tune ? [tune.midi] : []), ...ctx.harmonyAt(tick)]);
}

/** Moments of a note that are judged: every beat it sounds on. */
export const judged = (ctx: CounterContext, start: Ticks, duration: Ticks): Ticks[] =>
  beatsWithin(ctx.meter, start, start + duration);

/** Beats on which a pitch rubs while it is held. */
export const rubbedBeats = (ctx: CounterContext, midi: Midi, start: Ticks, duration: Ticks): Ticks[] =>
  judged(ctx, start, duration).filter((t) => rubsInCounter(ctx, midi, t));
