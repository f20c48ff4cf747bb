import { firstOf, sure } from "../../base/list";
import { QUARTER, type Ticks } from "../../theory/time/meter";
import { USUAL_BREATH } from "../../hear/singer/range";
import { chordUnder, type VocalContext } from "./context";
import type { VocalSlot } from "./school";
import { inChord, weighs } from "./tones";

/** A rest of this share of a beat or more between two notes lets a voice begin anew. */
const isFresh = (ctx: VocalContext, end: Ticks | null, start: Ticks): boolean =>
  end === null || start - end >= firstOf(ctx.meter.beats).duration / 2;

/** A place for every note of the tune, cut where the chord changes under a held one. */
export function tuneSlots(ctx: VocalContext): VocalSlot[] {
  let end: Ticks | null = null;
  return ctx.tune.flatMap((lead): VocalSlot[] => {
    const to = lead.start + lead.duration;
    const cuts = ctx
      .chordsWithin(lead.start, to)
      .map((c) => c.start)
      .filter((t) => t > lead.start);
    const fresh = isFresh(ctx, end, lead.start);
    end = to;
    return [lead.start, ...cuts].map((start, i): VocalSlot => ({
      start,
      duration: (cuts[i] ?? to) - start,
      lead,
      chord: chordUnder(ctx, start),
      fresh: fresh && i === 0,
      joins: i > 0,
    }));
  });
}

/**
 * Places of a hymn: the voices move with the chords and with the beats of the tune; what passes above them is its own.
 */
export function hymnSlots(ctx: VocalContext): VocalSlot[] {
  const out: VocalSlot[] = [];
  for (const slot of tuneSlots(ctx)) {
    const last = out.at(-1);
    if (!last || movesAnew(ctx, last, slot)) out.push({ ...slot, joins: false });
    else {
      last.duration = slot.start + slot.duration - last.start;
      last.leadEnd = sure(slot.lead).midi;
    }
  }
  return out;
}

/** Longest stretch a voice holds in one breath, in whole bars. */
export function breathBars(ctx: Pick<VocalContext, "tempo" | "meter">): number {
  const seconds = (ctx.meter.bar / QUARTER) * (60 / ctx.tempo);
  return Math.max(1, Math.min(4, Math.floor(USUAL_BREATH / seconds)));
}

/** A place for each chord, cut where a breath ends: voices that go by themselves. N.C. is a rest. */
export function chordSlots(ctx: VocalContext): VocalSlot[] {
  const breath = breathBars(ctx) * ctx.meter.bar;
  let end: Ticks | null = null;
  return ctx.chords.flatMap((chord): VocalSlot[] => {
    if (!chord.chord) return [];
    const out: VocalSlot[] = [];
    for (let from = chord.start; from < chord.start + chord.duration;) {
      const to = Math.min(chord.start + chord.duration, (Math.floor(from / breath) + 1) * breath);
      const begins = from % breath === 0;
      out.push({
        start: from,
        duration: to - from,
        lead: null,
        chord,
        fresh: end !== from,
        joins: !begins && end === from,
      });
      end = from = to;
    }
    return out;
  });
}

/** Whether all voices move: with a new chord, or with a note of the tune that the chord holds, by leap or on a beat. */
function movesAnew(ctx: VocalContext, last: VocalSlot, slot: VocalSlot): boolean {
  if (slot.fresh || last.chord !== slot.chord) return true;
  const { midi } = sure(slot.lead);
  if (!inChord(slot.chord, midi) || last.lead === slot.lead) return false;
  const leaps = Math.abs(midi - (last.leadEnd ?? last.lead?.midi ?? midi)) > 2;
  return leaps || weighs(ctx, slot.start, slot.duration);
}
