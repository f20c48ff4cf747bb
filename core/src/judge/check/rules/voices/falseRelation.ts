import { sure } from "../../../../base/list";
import { mod, parseNote, noteOf, type Midi } from "../../../../theory/pitch/pitch";
import { positionText } from "../../../../theory/time/meter";
import { lastBegun, type RealizedNote } from "../../../../song/realize";
import type { Line, RawFinding, Rule } from "../../rule";
import { waysOut } from "../../ways/ways";
import { chordOfLine, endOf, linesOf, noteAt } from "../lines";

/** The altered note in the octave nearest to the other one. */
const chromatic = (was: RealizedNote, now: RealizedNote): Midi => {
  const up = mod(now.midi - was.midi, 12);
  return was.midi + (up > 6 ? up - 12 : up);
};

export const falseRelation: Rule = {
  id: "false-relation",
  title: "False relation",
  family: "voices",
  explanation:
    "A note and its alteration follow each other in two different lines (F in one, F sharp in the other): the " +
    "ear hears one of them as out of tune. In one and the same line the step is chromatic, and fine.",
  source: "any textbook of counterpoint",
  severity: { chorale: "warning", band: "off", jazz: "off", loop: "off" },
  find(ctx) {
    const lines = linesOf(ctx);
    const starts = ctx.sliced.real.chords.map((c) => c.start).slice(1);
    const read = (n: RealizedNote) => sure(parseNote(noteOf(n.pitch)));
    const altered = (a: RealizedNote, b: RealizedNote) =>
      read(a).step === read(b).step && read(a).alter !== read(b).alter;
    const last = ({ notes }: Line, tick: number) => {
      const note = notes[lastBegun(notes, tick - 1)];
      return note && endOf(note) >= tick ? note : undefined;
    };
    return starts.flatMap((tick) =>
      lines.flatMap((a) =>
        lines.flatMap((b): RawFinding[] => {
          const [was, now] = [last(a, tick), noteAt(b, tick)];
          if (
            a === b ||
            !was ||
            now?.start !== tick ||
            !altered(was, now) ||
            chordOfLine(ctx, tick - 1) === chordOfLine(ctx, tick)
          )
            return [];
          // The line itself takes the chromatic step, or the other one had the note as well.
          const own = noteAt(a, tick);
          const before = last(b, tick);
          if ((own && altered(was, own)) || (before && altered(before, now))) return [];
          return [
            {
              tick,
              duration: now.duration,
              parts: [a.part.id, b.part.id],
              notes: [was.id, now.id],
              message:
                `${was.pitch} of ${a.name} is contradicted by ${now.pitch} of ${b.name} at ` +
                `${positionText(ctx.meter, tick)}.`,
              amount: "a chromatic semitone",
              // Another tone of the chord, or the line that had the note takes the chromatic step itself.
              fixes: waysOut(ctx, {
                notes: [now],
                later: [was],
                clear: (p) => mod(p(now) - now.midi, 12) !== 0 || mod(p(was) - was.midi, 12) !== 0,
                ways:
                  own?.start === tick && !own.pinned && Math.abs(was.midi - chromatic(was, now)) === 1
                    ? [{ way: [{ note: own, midi: chromatic(was, now) }] }]
                    : [],
              }),
              lighter: Math.max(a.lighter, b.lighter),
            },
          ];
        }),
      ),
    );
  },
};
