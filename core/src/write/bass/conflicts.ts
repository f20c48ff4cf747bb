import { sure } from "../../base/list";
import { mod } from "../../theory/pitch/pitch";
import { beatsText, positionText, type Ticks } from "../../theory/time/meter";
import { bassPc, toneRole } from "../../theory/chord/chord";
import { chordAt, type BassContext } from "./context";
import { causesOf, type Conflict } from "../lines/measure";
import { EVERY_MEASURE, type BassReport } from "./measures";
import type { Chosen } from "./reasons";
import type { BassStyle } from "./style";

/**
 * What stands between the material and the targets: pins, N.C., range, chords that share nothing, accents that leave no
 * room.
 */
export function findConflicts(
  ctx: BassContext,
  style: BassStyle,
  line: readonly Chosen[],
  { over, report }: { over: readonly { from: Ticks; to: Ticks; count: number }[]; report: BassReport },
): Conflict[] {
  const conflicts: Conflict[] = [];
  const where = (tick: Ticks) => positionText(ctx.meter, tick);
  if (!ctx.kicks.length)
    conflicts.push({
      code: "noKick",
      measures: ["offKick"],
      message: "No kick is painted: the line follows the chords and beats alone.",
    });
  for (const kick of ctx.kicks.filter((k) => k.main)) {
    const chord = chordAt(ctx, kick.start);
    if (line.some((s) => s.slot.start === kick.start)) continue;
    const pin = ctx.pinned.find((p) => p.start < kick.start && p.start + p.duration > kick.start);
    if (!chord?.chord)
      conflicts.push({
        code: "noChord",
        tick: kick.start,
        measures: ["silence"],
        message: `The main accent at ${where(kick.start)} stands where there is no chord: the bass is silent there.`,
      });
    else if (pin)
      conflicts.push({
        code: "held",
        tick: kick.start,
        measures: ["accents"],
        message:
          `The pinned ${pin.pitch} is held through the main accent at ${where(kick.start)}, so nothing can sound ` +
          "anew there.",
      });
  }
  for (const { slot, midi } of line) {
    if (slot.pin && slot.chord?.chord && !toneRole(slot.chord.chord, mod(midi, 12)).inChord)
      conflicts.push({
        code: "pin",
        tick: slot.start,
        measures: ["longestOutside", "chordTime", "approaches"],
        message:
          `The pinned ${slot.pin.pitch} at ${where(slot.start)} lies outside ${slot.chord.symbol} for ` +
          `${beatsText(ctx.meter, slot.duration)}.`,
      });
    const written = slot.chord?.chord && bassPc(slot.chord.chord);
    if (
      !slot.pin &&
      slot.use === "anchor" &&
      !style.pedals &&
      typeof written === "number" &&
      mod(midi, 12) !== written
    ) {
      if (!slot.candidates.some((c) => mod(c.midi, 12) === written))
        conflicts.push({
          code: "range",
          tick: slot.start,
          measures: ["register"],
          message: `The bass note of ${sure(slot.chord).symbol} at ${where(slot.start)} is not in the part's range.`,
        });
    }
  }
  for (const figure of over) {
    const symbols = [
      ...new Set(
        ctx.chords
          .filter((c) => c.chord && c.start < figure.to && c.start + c.duration > figure.from)
          .map((c) => c.symbol),
      ),
    ];
    conflicts.push({
      code: "pitchClasses",
      tick: figure.from,
      measures: ["pitchClasses"],
      message:
        `From ${where(figure.from)} the figure needs ${figure.count} different pitches for ` +
        `${symbols.join(", ")}; the aim is ${ctx.settings.pitches}.`,
    });
  }
  const aim = { style, settings: ctx.settings, meter: ctx.meter };
  return [...conflicts, ...causesOf(EVERY_MEASURE, conflicts, { ctx, line, report, aim })];
}
