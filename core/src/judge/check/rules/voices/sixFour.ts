import { isStep } from "../../../../theory/pitch/interval";
import { mod, type Midi } from "../../../../theory/pitch/pitch";
import { positionText } from "../../../../theory/time/meter";
import { rootPc, type Chord } from "../../../../theory/chord/chord";
import type { RawFinding, Rule } from "../../rule";
import type { RealizedNote } from "../../../../song/realize";
import type { Pitches } from "../../ways/trouble";
import { waysOut } from "../../ways/ways";
import { chordOfLine, harmonyLines, noteAt, opening } from "../lines";

/** Passed through by step, or stayed on. */
const isLed = (before: Midi, here: Midi, after: Midi): boolean =>
  (isStep(here - before) && isStep(after - here)) || (before === here && after === here);

const isFifthOfTriad = (chord: Chord, midi: Midi): boolean =>
  chord.tones.some((t) => t.degree === 5 && t.alter === 0) &&
  !chord.tones.some((t) => t.degree === 7) &&
  mod(midi - rootPc(chord), 12) === 7;

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
    const lines = harmonyLines(ctx);
    const lowest = (note: RealizedNote, p: Pitches) =>
      lines.every((l) => {
        const other = noteAt(l, note.start);
        return !other || p(other) >= p(note);
      });
    return lines.flatMap(({ part, name, notes, lighter }) =>
      notes.flatMap((note, i): RawFinding[] => {
        const here = chordOfLine(ctx, note.start);
        const chord = here?.chord;
        if (!chord || !isFifthOfTriad(chord, note.midi) || !lowest(note, (n) => n.midi)) return [];
        const [before, after] = [notes[i - 1], notes[i + 1]];
        const next = ctx.sliced.real.chords.find((c) => c.start > here.start && c.chord);
        const cadential = next?.chord && rootPc(next.chord) === mod(note.midi, 12);
        const walks = [before, after].some((n) => n && chordOfLine(ctx, n.start) === here);
        if (cadential || walks || (before && after && isLed(before.midi, note.midi, after.midi))) return [];
        return [
          {
            tick: note.start,
            duration: note.duration,
            parts: [part.id],
            notes: [note.id],
            message:
              `${opening(name)} stands on ${note.pitch}, the fifth of ${here.symbol}, at ` +
              `${positionText(ctx.meter, note.start)}, and it leads to no dominant.`,
            amount: "six-four",
            lighter,
            fixes: waysOut(ctx, {
              notes: [note],
              clear: (p) => mod(p(note) - rootPc(chord), 12) !== 7 && lowest(note, p),
            }),
          },
        ];
      }),
    );
  },
};
