import { mod } from "../../theory/pitch/pitch";
import { beatsText, positionText, type Ticks } from "../../theory/time/meter";
import { bassPc, toneRole } from "../../theory/chord/chord";
import { chordAt, type BassContext } from "./context";
import { causesOf, type Conflict } from "../lines/measure";
import { EVERY_MEASURE, type BassReport } from "./measures";
import type { Chosen } from "./reasons";
import type { BassStyle } from "./style";

/** Main accents that nothing can meet: no chord there, or a pinned note held through. */
function atKicks(ctx: BassContext, line: readonly Chosen[]): Conflict[] {
  if (!ctx.kicks.length)
    return [
      {
        code: "noKick",
        measures: ["offKick"],
        message: "No kick is painted: the line follows the chords and beats alone.",
      },
    ];
  const missed = ctx.kicks.filter((k) => k.main && !line.some((s) => s.slot.start === k.start));
  return missed.flatMap(({ start: tick }): Conflict[] => {
    const where = positionText(ctx.meter, tick);
    if (!chordAt(ctx, tick)?.chord) {
      const message = `The main accent at ${where} stands where there is no chord: the bass is silent there.`;
      return [{ code: "noChord", tick, measures: ["silence"], message }];
    }
    const pin = ctx.pinned.find((p) => p.start < tick && p.start + p.duration > tick);
    if (!pin) return [];
    const message =
      `The pinned ${pin.pitch} is held through the main accent at ${where}, so nothing can sound ` + "anew there.";
    return [{ code: "held", tick, measures: ["accents"], message }];
  });
}

/** A pinned note outside its chord, and a written bass that the range does not have. */
function atNote(ctx: BassContext, style: BassStyle, { slot, midi }: Chosen): Conflict[] {
  const where = positionText(ctx.meter, slot.start);
  const chord = slot.chord?.chord;
  if (!slot.chord || !chord) return [];
  if (slot.pin) {
    if (toneRole(chord, mod(midi, 12)).inChord) return [];
    const message =
      `The pinned ${slot.pin.pitch} at ${where} lies outside ${slot.chord.symbol} for ` +
      `${beatsText(ctx.meter, slot.duration)}.`;
    const measures = ["longestOutside", "chordTime", "approaches"];
    return [{ code: "pin", tick: slot.start, measures, message }];
  }
  const written = bassPc(chord);
  const had = slot.candidates.some((c) => mod(c.midi, 12) === written);
  if (slot.use !== "anchor" || style.pedals || mod(midi, 12) === written || had) return [];
  const message = `The bass note of ${slot.chord.symbol} at ${where} is not in the part's range.`;
  return [{ code: "range", tick: slot.start, measures: ["register"], message }];
}

/** A figure of more pitches than are aimed at, and the figure's chords. */
interface Over {
  from: Ticks;
  to: Ticks;
  count: number;
}

/** A figure whose chords share too little for as few pitches as are aimed at. */
function atFigure(ctx: BassContext, { from, to, count }: Over): Conflict {
  const under = ctx.chords.filter((c) => c.chord && c.start < to && c.start + c.duration > from);
  const symbols = [...new Set(under.map((c) => c.symbol))];
  return {
    code: "pitchClasses",
    tick: from,
    measures: ["pitchClasses"],
    message:
      `From ${positionText(ctx.meter, from)} the figure needs ${count} different pitches for ` +
      `${symbols.join(", ")}; the aim is ${ctx.settings.pitches}.`,
  };
}

/**
 * What stands between the material and the targets: pins, N.C., range, chords that share nothing, accents that leave no
 * room.
 */
export function findConflicts(
  ctx: BassContext,
  style: BassStyle,
  line: readonly Chosen[],
  { over, report }: { over: readonly Over[]; report: BassReport },
): Conflict[] {
  const conflicts = [
    ...atKicks(ctx, line),
    ...line.flatMap((chosen) => atNote(ctx, style, chosen)),
    ...over.map((figure) => atFigure(ctx, figure)),
  ];
  const aim = { style, settings: ctx.settings, meter: ctx.meter };
  return [...conflicts, ...causesOf(EVERY_MEASURE, conflicts, { ctx, line, report, aim })];
}
