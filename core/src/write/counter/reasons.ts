import { intervalWords } from "../../theory/pitch/interval";
import { noteOf } from "../../theory/pitch/pitch";
import { because } from "../../song/reasons";
import type { Reason } from "../../song/schema";
import { outsideReason, stepFrom, type SeenNote } from "../lines/seen";
import { rubbedBeats, rubsInCounter } from "./clash";
import type { CounterContext } from "./context";
import type { CounterSlot, CounterStyle } from "./style";

/** A note that lasts so many beats is one that is held (common practice). */
const HELD_BEATS = 2;

const rubs = (ctx: CounterContext, { midi, start, end }: SeenNote): boolean =>
  rubsInCounter(ctx, midi, start) || rubbedBeats(ctx, midi, start, end - start).length > 0;

/** Whether the line moves while the tune moves, and the other way. */
function opposes(ctx: CounterContext, { start, move }: SeenNote): boolean {
  const [was, is] = [ctx.tuneAt(start - 1), ctx.tuneAt(start)];
  return move !== 0 && was !== null && is !== null && Math.sign(is.midi - was.midi) === -Math.sign(move);
}

function isHeld({ meter }: CounterContext, { start, end }: SeenNote): boolean {
  const beat = meter.beats[0]?.duration ?? meter.bar;
  return end - start >= HELD_BEATS * beat;
}

/** Why a note of a finished line is there: what the style says of it, else what it does. */
export function counterReason(
  ctx: CounterContext,
  style: CounterStyle,
  { note, slot }: { note: SeenNote; slot: CounterSlot },
): Reason {
  const { own } = note;
  if (!own) return because("noChord");
  const styled = () => style.reason?.({ ctx, slot, note, own }) ?? null;
  if (!note.inChord) {
    // A given cell, and a line that hears only the tune, have their own words for what the chord does not hold.
    const first = slot.model !== undefined || style.withoutChords ? styled() : null;
    return first ?? outsideReason(note) ?? because(rubs(ctx, note) ? "over" : "color", own);
  }
  return styled() ?? ledReason(ctx, note, own);
}

/** Why a tone of the chord is there, from where it comes. */
function ledReason(ctx: CounterContext, note: SeenNote, own: NonNullable<SeenNote["own"]>): Reason {
  const { before } = note;
  if (before && note.move === 0 && before.chord !== note.chord) return because("keeps", own);
  if (opposes(ctx, note)) return because("opposes", { ...own, part: ctx.against });
  const from = stepFrom(note);
  if (from) return because("steps", { ...own, from });
  return isHeld(ctx, note) ? because("lasts", own) : because("chordTone", own);
}

/** Why the lower note of a double-stop is there. */
export const stopReason = (lower: SeenNote, upper: SeenNote): Reason =>
  because("stop", {
    ...(lower.own ?? { role: "Note", chord: "" }),
    interval: `a ${intervalWords(upper.midi - lower.midi)}`,
    pitch: noteOf(upper.pitch),
  });
