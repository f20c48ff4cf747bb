import { firstOf } from "../../../../base/list";
import { intervalWords } from "../../../../theory/pitch/interval";
import { mod } from "../../../../theory/pitch/pitch";
import { positionText } from "../../../../theory/time/meter";
import { chordSymbol, rootPc, transposeChord, type Chord } from "../../../../theory/chord/chord";
import { nameInKey } from "../../../../theory/pitch/key";
import { must } from "../../../../base/result";
import { parseChord } from "../../../../theory/chord/parse";
import { waysOn } from "../../../../song/onward";
import type { CheckContext, RawFinding, Rule } from "../../rule";

/** Semitones from which a loop's return tears (common practice). */
const OCTAVE = 12;

export const loopEnd: Rule = {
  id: "loop-end",
  title: "The end of the loop does not lead to its start",
  family: "form",
  explanation:
    "The section is played again from its beginning. Its last chord stands still into the same chord, or a " +
    "line has to leap more than an octave back to its first note. A turnaround, often the dominant of the " +
    "first chord, or a step before the first note, leads home.",
  source: "common practice (turnarounds)",
  severity: { chorale: "off", band: "off", jazz: "note", loop: "note" },
  find: (ctx) => (repeats(ctx) ? [...standsStill(ctx), ...leapsBack(ctx)] : []),
};

/** Whether a section is followed by itself as it is, or is all there is. */
function repeats({ song, section }: CheckContext): boolean {
  const ways = waysOn(song, section.id);
  return ways.length ? ways.some((w) => w.again) : song.form.every((p) => p.sectionId === section.id);
}

function standsStill(ctx: CheckContext): RawFinding[] {
  const chords = ctx.sliced.real.chords.filter((c) => c.chord);
  const [first, last] = [chords[0], chords.at(-1)];
  const end = ctx.section.bars * ctx.meter.bar;
  if (
    !first?.chord ||
    !last?.chord ||
    first === last ||
    chords.length < 3 ||
    first.start > 0 ||
    last.start + last.duration < end
  )
    return [];
  if (first.symbol !== last.symbol || last.duration < ctx.meter.bar) return [];
  const half = Math.floor(last.duration / 2);
  const dominant = dominantOf(ctx, first.chord);
  return [
    {
      tick: last.start,
      duration: last.duration,
      parts: [],
      notes: [],
      message:
        `${last.symbol} at ${positionText(ctx.meter, last.start)} goes on into ${first.symbol} of the repeat: ` +
        "nothing leads there.",
      amount: "the same chord",
      fixes: [
        {
          label: `${dominant} in its second half`,
          edit: {
            do: "setChords",
            section: ctx.section.id,
            from: last.start + half,
            to: end,
            chords: [{ start: last.start + half, duration: last.duration - half, symbol: dominant }],
          },
        },
      ],
    },
  ];
}

/** The dominant seventh that leads to a chord. */
function dominantOf({ key }: CheckContext, chord: Chord): string {
  const root = nameInKey(mod(rootPc(chord) + 7, 12), key);
  return chordSymbol(transposeChord(must(parseChord("C7")), () => root));
}

const leapsBack = (ctx: CheckContext): RawFinding[] =>
  ctx.sliced.real.parts
    .filter((p) => p.role === "bass" || p.role === "melody" || p.role === "vocal" || p.role === "counter")
    .flatMap(({ id, name, notes }): RawFinding[] => {
      const [first, last] = [notes[0], notes.at(-1)];
      const end = ctx.section.bars * ctx.meter.bar;
      if (
        !first ||
        !last ||
        first === last ||
        end + first.start - (last.start + last.duration) >= firstOf(ctx.meter.beats).duration
      )
        return [];
      const size = Math.abs(first.midi - last.midi);
      if (size <= OCTAVE) return [];
      return [
        {
          tick: last.start,
          duration: last.duration,
          parts: [id],
          notes: [last.id],
          message:
            `${name} leaps a ${intervalWords(size)} from ${last.pitch} at ${positionText(ctx.meter, last.start)} ` +
            `back to ${first.pitch}.`,
          amount: `${size} semitones`,
          fixes: [],
        },
      ];
    });
