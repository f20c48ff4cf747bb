import { firstOf, nth, sure } from "../../../../base/list";
import { mod } from "../../../../theory/pitch/pitch";
import { beatsText, metricalLevel, positionText } from "../../../../theory/time/meter";
import { rootPc } from "../../../../theory/chord/chord";
import type { RealizedChord } from "../../../../song/realize";
import { textbookKind, type RoleSpan } from "../../../../hear/slice/roles";
import type { CheckContext, RawFinding, Rule } from "../../rule";
import { isStep } from "../../../../theory/pitch/interval";
import { waysOut } from "../../ways/ways";
import { chordOfLine, endOf, goesOn, linesOf, opening } from "../lines";
import { notFallen } from "./moves";

/** The fourth that stands for the third of a chord, as a pitch class; null where the chord has none. */
const suspendedOf = (chord: RealizedChord | null): number | null => {
  const tones = chord?.chord?.tones;
  const fourth = tones?.find((t) => t.degree === 4);
  return fourth && !sure(tones).some((t) => t.degree === 3)
    ? mod(rootPc(sure(sure(chord).chord)) + fourth.semitones, 12)
    : null;
};

export const suspension: Rule = {
  id: "suspension",
  title: "Suspension not prepared or not resolved",
  family: "voices",
  explanation:
    "A suspension is prepared (the same voice has the tone before, or at least comes to it by step), stands on " +
    "the beat, and falls by step. That goes for the fourth of a sus chord and for a tone that is held into a " +
    "chord it does not belong to. In pop and jazz a sus chord is a color of its own.",
  source: "any textbook of counterpoint; Kostka & Payne, Tonal Harmony",
  severity: { chorale: "warning", band: "off", jazz: "off", loop: "off" },
  find: (ctx) => [...notFallen(ctx, suspendedOf, "the suspended fourth"), ...unprepared(ctx), ...leftByLeap(ctx)],
};

/** Fourths of sus chords that are leapt to. */
const unprepared = (ctx: CheckContext): RawFinding[] =>
  linesOf(ctx).flatMap(({ part, name, notes, lighter }) =>
    notes.slice(1).flatMap((note, i): RawFinding[] => {
      const before = nth(notes, i);
      const chord = chordOfLine(ctx, note.start);
      if (
        suspendedOf(chord) !== mod(note.midi, 12) ||
        chordOfLine(ctx, before.start) === chord ||
        !goesOn(ctx, before, note)
      )
        return [];
      if (Math.abs(note.midi - before.midi) <= 2) return [];
      return [
        {
          tick: note.start,
          duration: note.duration,
          parts: [part.id],
          notes: [before.id, note.id],
          message:
            `${opening(name)} leaps to ${note.pitch}, the suspended fourth of ${sure(chord).symbol}, at ` +
            `${positionText(ctx.meter, note.start)}: it is not prepared.`,
          amount: `${Math.abs(note.midi - before.midi)} semitones`,
          fixes: waysOut(ctx, {
            notes: [note],
            later: [before],
            clear: (p) => mod(p(note), 12) !== mod(note.midi, 12) || Math.abs(p(note) - p(before)) <= 2,
          }),
          lighter,
        },
      ];
    }),
  );

/** A tone without a name of its own, outside a chord that comes on a beat, for half a beat or more. */
function hangs(ctx: CheckContext, span: RoleSpan): boolean {
  const beat = firstOf(ctx.meter.beats).duration;
  const { kind, duration, start } = span;
  const named = kind !== "outside" || textbookKind(span) !== null;
  return !named && duration < beat && duration >= beat / 2 && metricalLevel(ctx.meter, start) >= -2;
}

/**
 * Tones held into a chord on a beat that rub for less than a beat and are left by leap; longer ones are told as tones
 * outside the chord.
 */
function leftByLeap(ctx: CheckContext): RawFinding[] {
  return linesOf(ctx).flatMap(({ part, name, notes, lighter }) =>
    notes.slice(0, -1).flatMap((note, i): RawFinding[] => {
      const spans = ctx.sliced.roles.get(part.id)?.get(note) ?? [];
      const last = spans.at(-1);
      if (spans.length < 2 || !last?.chord?.chord || !hangs(ctx, last)) return [];
      const next = nth(notes, i + 1);
      const left = goesOn(ctx, note, next) && chordOfLine(ctx, next.start) === last.chord;
      if (!left || Math.abs(next.midi - note.midi) <= 2) return [];
      return [
        {
          tick: last.start,
          duration: last.duration,
          parts: [part.id],
          notes: [note.id, next.id],
          message:
            `${opening(name)} holds ${note.pitch} into ${last.chord.symbol} and leaves it by leap to ${next.pitch} ` +
            `at ${positionText(ctx.meter, endOf(note))}: it does not resolve.`,
          amount: beatsText(ctx.meter, last.duration),
          fixes: waysOut(ctx, { notes: [next], clear: (p) => isStep(p(next) - p(note)) }),
          lighter,
        },
      ];
    }),
  );
}
