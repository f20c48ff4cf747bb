import { firstOf } from "../../../../base/list";
import { mod } from "../../../../theory/pitch/pitch";
import { beatsText } from "../../../../theory/time/meter";
import { byVoice } from "../../../../hear/line/between";
import type { Slice, SliceNote } from "../../../../hear/slice/slices";
import type { CheckContext, RawFinding } from "../../rule";
import { endOf, linesOf, mends } from "../lines";

/**
 * Places of at least so many ticks at which several voices sound one of some pitch classes at once. Lines that double
 * each other throughout are one voice; who came last gives way.
 */
export function soundTwice(
  ctx: CheckContext,
  tonesOf: (slice: Slice) => readonly number[],
  { least, say }: { least: number; say(names: string, note: SliceNote, slice: Slice): string },
): RawFinding[] {
  const voices = byVoice(linesOf(ctx), ctx).map((v) => firstOf(v));
  return ctx.sliced.slices.flatMap((slice) => {
    const tones = tonesOf(slice);
    return tones.flatMap((pc): RawFinding[] => {
      const have = voices.flatMap((line) => {
        const sung = slice.notes.find((n) => n.part === line.part.id && mod(n.note.midi, 12) === pc);
        // A bass that walks through the chord is not heard as one of its voices.
        const walks = line.part.role === "bass" && sung !== undefined && sung.note.start !== slice.chord?.start;
        return sung && !walks ? [{ line, sung }] : [];
      });
      if (have.length < 2 || !have.some((h) => h.sung.attack)) return [];
      const duration = Math.min(...have.map((h) => endOf(h.sung.note))) - slice.start;
      if (duration < least) return [];
      const moves = have.reduce((last, h) => (h.sung.note.start >= last.sung.note.start ? h : last));
      return [
        {
          tick: slice.start,
          duration,
          parts: have.map((h) => h.line.part.id),
          notes: have.map((h) => h.sung.note.id),
          message: say(have.map((h) => h.line.part.name).join(" and "), moves.sung, slice),
          amount: beatsText(ctx.meter, duration),
          fixes:
            have.length === 2 ? mends(ctx, moves.line.part, moves.sung.note, (m) => !tones.includes(mod(m, 12))) : [],
        },
      ];
    });
  });
}
