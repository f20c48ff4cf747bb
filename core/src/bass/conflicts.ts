import { mod } from "../pitch/pitch";
import { beatsText, positionText, type Ticks } from "../time/meter";
import { bassPc, toneRole } from "../chord/chord";
import { chordAt, type BassContext } from "./context";
import { measuresOf } from "./measures";
import type { BassReport } from "./report";
import type { Chosen } from "./reasons";
import type { BassStyle } from "./style";

/** What keeps a line from its targets. */
export interface Conflict {
  code:
    | "noChord"
    | "pin"
    | "held"
    | "pitchClasses"
    | "range"
    | "noKick"
    | "sounding"
    | "silence"
    | "tune"
    | "leaps"
    | "offKick"
    | "figure"
    | "repeats"
    | "short"
    | "outside";
  message: string;
  tick?: Ticks;
  /** Measures of the report that it explains. */
  measures: string[];
}

/** What stands between the material and the targets: pins, N.C., range, chords that share nothing, accents that leave no room. */
export function findConflicts(
  ctx: BassContext,
  style: BassStyle,
  line: readonly Chosen[],
  over: readonly { from: Ticks; to: Ticks; count: number }[],
  report: BassReport,
): Conflict[] {
  const conflicts: Conflict[] = [];
  const where = (tick: Ticks) => positionText(ctx.meter, tick);
  if (!ctx.kicks.length)
    conflicts.push({ code: "noKick", measures: ["offKick"], message: "No kick is painted: the line follows the chords and beats alone." });
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
        message: `The pinned ${pin.pitch} is held through the main accent at ${where(kick.start)}, so nothing can sound anew there.`,
      });
  }
  for (const { slot, midi } of line) {
    if (slot.pin && slot.chord?.chord && !toneRole(slot.chord.chord, mod(midi, 12)).inChord)
      conflicts.push({
        code: "pin",
        tick: slot.start,
        measures: ["longestOutside", "chordTime", "approaches"],
        message: `The pinned ${slot.pin.pitch} at ${where(slot.start)} lies outside ${slot.chord.symbol} for ${beatsText(ctx.meter, slot.duration)}.`,
      });
    const written = slot.chord?.chord && bassPc(slot.chord.chord);
    if (!slot.pin && slot.use === "anchor" && !style.pedals && typeof written === "number" && mod(midi, 12) !== written) {
      if (!slot.candidates.some((c) => mod(c.midi, 12) === written))
        conflicts.push({
          code: "range",
          tick: slot.start,
          measures: ["register"],
          message: `The bass note of ${slot.chord!.symbol} at ${where(slot.start)} is not in the part's range.`,
        });
    }
  }
  for (const figure of over) {
    const symbols = [
      ...new Set(ctx.chords.filter((c) => c.chord && c.start < figure.to && c.start + c.duration > figure.from).map((c) => c.symbol)),
    ];
    conflicts.push({
      code: "pitchClasses",
      tick: figure.from,
      measures: ["pitchClasses"],
      message: `From ${where(figure.from)} the figure needs ${figure.count} different pitches for ${symbols.join(", ")}; the aim is ${ctx.settings.pitches}.`,
    });
  }
  const explained = new Set(conflicts.flatMap((c) => c.measures));
  for (const m of measuresOf(report, ctx.meter, style, ctx.settings))
    if (m.met === false && !explained.has(m.id)) {
      const found = causeOf(ctx, m.id, line, report);
      if (found) conflicts.push({ ...found, measures: [m.id] });
    }
  return conflicts;
}

/** Why a target cannot be met with this material. Null where nothing in the material prevents it: then the line itself fell short. */
function causeOf(ctx: BassContext, id: string, line: readonly Chosen[], report: BassReport): Omit<Conflict, "measures"> | null {
  const where = (tick: Ticks) => positionText(ctx.meter, tick);
  const must = line.filter(
    (s) => s.slot.use === "anchor" || (s.slot.use === "kick" && ctx.kicks.some((k) => k.main && k.start === s.slot.start)),
  );
  switch (id) {
    case "silence": {
      const free = ctx.length - ctx.chords.reduce((sum, c) => sum + (c.chord ? c.duration : 0), 0);
      if (free > 0)
        return { code: "noChord", message: `${beatsText(ctx.meter, free)} of the section have no chord: the bass is silent there.` };
      return ctx.settings.length === "usual"
        ? {
            code: "silence",
            message: `${must.length} chords and accents must sound, which leaves ${Math.round(report.silence * 100)} % silence.`,
          }
        : { code: "silence", message: `Notes were set to be ${ctx.settings.length}, not as long as the style has them.` };
    }
    case "offKick": {
      const off = line.filter((s) => s.slot.use === "anchor" && !ctx.kicks.some((k) => k.start === s.slot.start)).length;
      return off
        ? { code: "offKick", message: `${off} chords begin where there is no kick, and the bass must state them.` }
        : { code: "offKick", message: `The density lets in more notes than there are kicks.` };
    }
    case "stepwise": {
      let at = 0;
      let widest = 0;
      for (let i = 0; i + 1 < line.length; i++) {
        const d = Math.abs(line[i + 1]!.midi - line[i]!.midi);
        if (d > widest) [widest, at] = [d, i + 1];
      }
      const [from, to] = [line[Math.max(0, at - 1)]!.slot.chord?.symbol, line[at]?.slot.chord?.symbol];
      return {
        code: "leaps",
        tick: line[at]?.slot.start ?? 0,
        message:
          from === to
            ? `Chord tones of ${to ?? "the chord"} lie a third or more apart, and there is no room for a step at ${where(line[at]?.slot.start ?? 0)}.`
            : `From ${from ?? "–"} to ${to ?? "–"} at ${where(line[at]?.slot.start ?? 0)} no step is possible there.`,
      };
    }
    case "tune":
      return {
        code: "tune",
        message: `The tune leaves few gaps: ${report.tune?.under ?? 0} notes of the style fall under its motion.`,
      };
    case "close": {
      const first = line.find((s) => report.links.close.length && s.slot.chord) ?? line[0]!;
      return { code: "tune", tick: first.slot.start, message: "The tune lies so low that the range of the bass reaches into its octave." };
    }
    case "backbeats": {
      const before = ctx.backbeats.find((b) => line.some((s) => s.slot.start < b && b - s.slot.start < 120));
      return before === undefined
        ? null
        : {
            code: "short",
            tick: before,
            message: `An attack less than a sixteenth before the backbeat at ${where(before)} cannot end before it.`,
          };
    }
    case "likeness":
      return { code: "figure", message: "Chords and accents that must sound fall on the same places as in the other section." };
    case "repeats":
      return { code: "repeats", message: "The same chords and the same kick come back, and the density leaves nothing to vary." };
    case "lastBar":
      return ctx.pinned.length || line.every((s) => s.slot.start < (ctx.bars - 1) * ctx.meter.bar)
        ? { code: "figure", message: "The last bar has no room for a turn." }
        : { code: "figure", message: "Every place of the last bar is taken already." };
    case "chordTime":
      return { code: "outside", message: "Steps between the chords take more time than the style wants beside its chord tones." };
    default:
      return null;
  }
}
