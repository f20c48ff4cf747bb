import { mod } from "../../../../theory/pitch/pitch";
import { positionText } from "../../../../theory/time/meter";
import { fallsFrom } from "../../../../hear/harmony/tendency";
import type { RealizedChord, RealizedNote } from "../../../../song/realize";
import type { CheckContext, Line, RawFinding } from "../../rule";
import { changesOf, chordOfLine, linesOf, opening, pcsOf } from "../lines";
import type { Pitches } from "../../ways/trouble";
import { waysOut } from "../../ways/ways";

interface Told {
  /** After the name of the voice, before the place. */
  says: string;
  /** "rising": what it does instead of that. */
  instead?: string;
  amount: string;
  clear(pitches: Pitches): boolean;
}

/** A move of one voice that is told where it arrives; the note it goes to gives way before the one it comes from. */
export const moveTold = (
  ctx: CheckContext,
  { line, from, to }: { line: Line; from: RealizedNote; to: RealizedNote },
  { says, instead, amount, clear }: Told,
): RawFinding => ({
  tick: to.start,
  duration: to.duration,
  parts: [line.part.id],
  notes: [from.id, to.id],
  message:
    `${opening(line.name)}${says} at ${positionText(ctx.meter, to.start)}` +
    `${instead === undefined ? "" : ` instead of ${instead}`}.`,
  amount,
  lighter: line.lighter,
  fixes: waysOut(ctx, { notes: [to], later: [from], clear }),
});

/**
 * Tones that want to fall by step and do not, where the next chord neither holds them nor lacks the tone below: "the
 * seventh F4".
 */
export const notFallen = (
  ctx: CheckContext,
  toneOf: (chord: RealizedChord | null) => number | null,
  called: string,
): RawFinding[] =>
  linesOf(ctx).flatMap((line) =>
    changesOf(ctx, line).flatMap(({ from, to }): RawFinding[] => {
      const tone = toneOf(chordOfLine(ctx, from.start));
      const below = fallsFrom(from.midi, to.midi, tone, pcsOf(chordOfLine(ctx, to.start)));
      if (below === null) return [];
      return [
        moveTold(
          ctx,
          { line, from, to },
          {
            says: `: ${called} ${from.pitch} goes to ${to.pitch}`,
            instead: "falling by step",
            amount: `${signed(to.midi - from.midi)} semitones instead of −${below}`,
            clear: (p) => p(from) - p(to) === below || mod(p(from), 12) !== tone,
          },
        ),
      ];
    }),
  );

const signed = (n: number): string => (n < 0 ? `−${-n}` : `+${n}`);
