import { mod } from "../../../../theory/pitch/pitch";
import { positionText } from "../../../../theory/time/meter";
import { rootPc } from "../../../../theory/chord/chord";
import type { RawFinding, Rule } from "../../rule";
import { chordOfLine, endOf, linesOf, mends } from "../lines";

const step = (semitones: number): boolean => Math.abs(semitones) === 1 || Math.abs(semitones) === 2;

export const sixFour: Rule = {
  id: "six-four",
  title: "A six-four chord without a reason",
  family: "voices",
  explanation:
    "The fifth of a triad in the bass sounds unfinished. It is at home before the dominant (cadential), passed " +
    "through by step, over a bass that stays, or where the bass only walks through one chord; elsewhere the " +
    "root or the third stands better.",
  source: "Kostka & Payne, Tonal Harmony",
  severity: { chorale: "warning", band: "off", jazz: "off", loop: "off" },
  find(ctx) {
    const lines = linesOf(ctx);
    const lowest = (tick: number, midi: number) =>
      lines.every((l) => !l.notes.some((n) => n.start <= tick && tick < endOf(n) && n.midi < midi));
    return lines.flatMap(({ part, notes }) =>
      notes.flatMap((note, i): RawFinding[] => {
        const here = chordOfLine(ctx, note.start);
        const chord = here?.chord;
        const fifth = chord?.tones.find((t) => t.degree === 5 && t.alter === 0);
        if (!chord || !fifth || chord.tones.some((t) => t.degree === 7) || mod(note.midi - rootPc(chord), 12) !== 7)
          return [];
        if (!lowest(note.start, note.midi)) return [];
        const [before, after] = [notes[i - 1], notes[i + 1]];
        const next = ctx.sliced.real.chords.find((c) => c.start > here.start && c.chord);
        const cadential = next?.chord && rootPc(next.chord) === mod(note.midi, 12);
        const passing = before && after && step(note.midi - before.midi) && step(after.midi - note.midi);
        const stays = before && after && before.midi === note.midi && after.midi === note.midi;
        const walks = [before, after].some((n) => n && chordOfLine(ctx, n.start) === here);
        if (cadential || passing || stays || walks) return [];
        return [
          {
            tick: note.start,
            duration: note.duration,
            parts: [part.id],
            notes: [note.id],
            message:
              `${part.name} stands on ${note.pitch}, the fifth of ${here.symbol}, at ` +
              `${positionText(ctx.meter, note.start)}, and it leads to no dominant.`,
            amount: "six-four",
            fixes: mends(ctx, part, note, (m) => mod(m - rootPc(chord), 12) !== 7 && lowest(note.start, m)),
          },
        ];
      }),
    );
  },
};
