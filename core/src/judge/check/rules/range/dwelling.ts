import { firstOf, sure } from "../../../../base/list";
import { onceFor } from "../../../../base/once";
import { inSentence, percent } from "../../../../theory/words/english";
import { pitchMidi, type Midi } from "../../../../theory/pitch/pitch";
import { positionText } from "../../../../theory/time/meter";
import { spellAt } from "../../../../song/spell";
import { isWritten } from "../../../../song/document";
import { instrumentOf } from "../../../../theory/instrument/instruments";
import { isSung, rangeOfPart } from "../../../../hear/singer/range";
import type { RealizedNote } from "../../../../song/realize";
import type { CheckContext, Fix, RawFinding, Rule } from "../../rule";

/**
 * Share of its time a part may spend past the ends of its comfortable range, and how many beats of sound say something
 * (common practice).
 */
const SHARE = 0.4;
const LEAST_BEATS = 8;

const lengthOf = (notes: readonly RealizedNote[]): number =>
  onceFor([notes], "sum of lengths", () => notes.reduce((sum, n) => sum + n.duration, 0));

/** Notes from one pitch to another. */
const between = (notes: readonly RealizedNote[], low: Midi, high: Midi): readonly RealizedNote[] =>
  onceFor([notes], `between ${low} ${high}`, () => notes.filter((n) => n.midi >= low && n.midi <= high));

export const dwelling: Rule = {
  id: "dwelling",
  title: "Stays at the edge of the range",
  family: "range",
  explanation:
    "Much of the part lies past the comfortable range, though inside what is possible. A player or singer who " +
    "lives there tires, plays thin or loud, and has nowhere to go. Long stretches at the top of a voice can " +
    "injure it: rest, and ask a voice professional when it hurts.",
  source: "comfortable ranges of the instrument list; common practice for the share",
  severity: { chorale: "note", band: "note", jazz: "note", loop: "off" },
  find(ctx) {
    const { song, sliced, meter } = ctx;
    return sliced.real.parts
      .filter((p) => p.role !== "drums" && p.notes.length)
      .flatMap(({ id, notes }): RawFinding[] => {
        const part = sure(song.parts.find((p) => p.id === id));
        const all = lengthOf(notes);
        if (all < LEAST_BEATS * firstOf(meter.beats).duration) return [];
        const { comfortable, extremes } = rangeOfPart(song, part);
        return (["top", "bottom"] as const).flatMap((edge): RawFinding[] => {
          const past =
            edge === "top"
              ? between(notes, comfortable[1] + 1, extremes[1])
              : between(notes, extremes[0], comfortable[0] - 1);
          const share = lengthOf(past) / all;
          if (share < SHARE) return [];
          const who = isSung(song, part) ? "the voice" : `the ${inSentence(instrumentOf(part.instrument, song).title)}`;
          return [
            {
              tick: firstOf(past).start,
              duration: firstOf(past).duration,
              parts: [id],
              notes: past.map((n) => n.id),
              message:
                `${part.name} spends ${percent(share)} of its time at the ${edge} of ${who}, from ` +
                `${positionText(meter, firstOf(past).start)}.`,
              amount: percent(share),
              fixes: byOctave(ctx, id, edge === "top" ? -12 : 12, extremes),
            },
          ];
        });
      });
  },
};

/** The whole part an octave nearer, where it has the notes. */
function byOctave(
  { song, section, sliced }: CheckContext,
  id: string,
  by: number,
  [low, high]: [number, number],
): Fix[] {
  const part = sure(song.parts.find((p) => p.id === id));
  const notes = sure(sliced.real.parts.find((p) => p.id === id)).notes;
  if (!isWritten(part) || notes.some((n) => n.midi + by < low || n.midi + by > high)) return [];
  return [
    {
      label: `All of it an octave ${by < 0 ? "lower" : "higher"}`,
      edit: {
        do: "changeNotes",
        section: section.id,
        part: id,
        notes: (section.notes[id] ?? []).map((n) => ({
          id: n.id,
          pitch: spellAt(song, section, Math.max(0, n.start), pitchMidi(n.pitch) + by),
        })),
      },
    },
  ];
}
