import { firstOf, sure } from "../../../../base/list";
import { mod, noteOf } from "../../../../theory/pitch/pitch";
import { positionText } from "../../../../theory/time/meter";
import { rootPc } from "../../../../theory/chord/chord";
import { leadingToneOf } from "../../../../hear/harmony/tendency";
import type { Rule } from "../../rule";
import { soundTwice } from "./twice";

export const doubledThird: Rule = {
  id: "doubled-third",
  title: "Third of a major chord twice",
  family: "voices",
  explanation:
    "In root position a major triad doubles its root, then its fifth; its third, heard twice, stands out. Some " +
    "schools forbid it, others let it be where both voices go on by step, or after a deceptive cadence.",
  source: "any harmony textbook; schools differ",
  severity: { chorale: "note", band: "off", jazz: "off", loop: "off" },
  find: (ctx) =>
    soundTwice(
      ctx,
      ({ chord }) => {
        const tones = chord?.chord?.tones ?? [];
        const third = tones.find((t) => t.role === "3");
        if (!chord?.chord || !third || tones.length > 3 || chord.chord.bass) return [];
        const pc = mod(rootPc(chord.chord) + third.semitones, 12);
        // The leading tone is told by itself.
        return pc === leadingToneOf(ctx.key, chord) ? [] : [pc];
      },
      {
        least: firstOf(ctx.meter.beats).duration,
        say: (have, { note }, { start, chord }) =>
          `${have} ${noteOf(note.pitch)}, the third of ${sure(chord).symbol}, at ` +
          `${positionText(ctx.meter, start)}.`,
      },
    ),
};
