import { mod } from "../../../../theory/pitch/pitch";
import { listed } from "../../../../theory/words/english";
import { beatsText } from "../../../../theory/time/meter";
import type { Slice, SliceNote } from "../../../../hear/slice/slices";
import type { CheckContext, Line, RawFinding } from "../../rule";
import { waysOut } from "../../ways/ways";
import { endOf, isLine, linesOf, noteAt, opening, separateLines } from "../lines";

interface Told {
  /** For so long at least. */
  least: number;
  say(have: string, note: SliceNote, slice: Slice): string;
}

/**
 * Places of at least so many ticks at which several voices sound one of some pitch classes at once. Lines that double
 * each other throughout are one voice; who came last gives way.
 */
export function soundTwice(
  ctx: CheckContext,
  tonesOf: (slice: Slice) => readonly number[],
  { least, say }: Told,
): RawFinding[] {
  // Lines among themselves, and the voices inside a chord part: chords that double a tune's tones accompany it.
  const inside = linesOf(ctx).filter((l) => !isLine(l));
  const parts = [...new Set(inside.map((l) => l.part))];
  const groups = [separateLines(ctx), ...parts.map((part) => inside.filter((l) => l.part === part))];
  return groups.flatMap((voices) => twiceAmong(ctx, voices, tonesOf, { least, say }));
}

function twiceAmong(
  ctx: CheckContext,
  voices: readonly Line[],
  tonesOf: (slice: Slice) => readonly number[],
  { least, say }: Told,
): RawFinding[] {
  return ctx.sliced.slices.flatMap((slice) => {
    const tones = tonesOf(slice);
    return tones.flatMap((pc): RawFinding[] => {
      const have = voices.flatMap((line) => {
        const own = noteAt(line, slice.start);
        const sung = own && mod(own.midi, 12) === pc ? slice.notes.find((n) => n.note === own) : undefined;
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
          chances: ctx.sliced.real.chords.filter((c) => c.chord).length,
          parts: have.map((h) => h.line.part.id),
          notes: have.map((h) => h.sung.note.id),
          message: say(
            opening(`${listed(have.map((h) => h.line.name))}${have.length === 2 ? " both" : " all"} have`),
            moves.sung,
            slice,
          ),
          lighter: Math.max(...have.map((h) => h.line.lighter)),
          amount: beatsText(ctx.meter, duration),
          fixes: waysOut(ctx, {
            notes: [moves, ...have.filter((h) => h !== moves)].map((h) => h.sung.note),
            clear: (p) => have.filter((h) => mod(p(h.sung.note), 12) === pc).length < 2,
          }),
        },
      ];
    });
  });
}
