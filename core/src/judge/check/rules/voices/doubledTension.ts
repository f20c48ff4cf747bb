import { firstOf, sure } from "../../../../base/list";
import { mod, noteOf } from "../../../../theory/pitch/pitch";
import { positionText } from "../../../../theory/time/meter";
import { rootPc } from "../../../../theory/chord/chord";
import { ROLE_WORDS } from "../../../../hear/slice/roles";
import type { RealizedChord } from "../../../../song/realize";
import type { Rule } from "../../rule";
import { soundTwice } from "./twice";

/**
 * Sevenths, ninths, elevenths and thirteenths of a chord, and altered fifths over its major third, as pitch classes.
 */
function tensionsOf(chord: RealizedChord | null): number[] {
  const tones = chord?.chord?.tones ?? [];
  const major = tones.some((t) => t.role === "3");
  return tones
    .filter((t) => t.degree >= 7 || (major && t.degree === 5 && t.alter !== 0))
    .map((t) => mod(rootPc(sure(sure(chord).chord)) + t.semitones, 12));
}

export const doubledTension: Rule = {
  id: "doubled-tension",
  title: "Seventh or tension twice",
  family: "voices",
  explanation:
    "Two voices have the same seventh, ninth, thirteenth or altered fifth at once. Both want to go the same " +
    "way, so that octaves follow, and a stable tone is missing elsewhere. Lines that double each other " +
    "throughout are one voice.",
  source: "Kostka & Payne, Tonal Harmony (sevenths); common practice (tensions)",
  severity: { chorale: "warning", band: "off", jazz: "note", loop: "off" },
  find: (ctx) =>
    soundTwice(ctx, ({ chord }) => tensionsOf(chord), {
      least: firstOf(ctx.meter.beats).duration / 2,
      say: (have, { note, span }, { start, chord }) =>
        `${have} ${noteOf(note.pitch)}, the ${ROLE_WORDS[span.role] ?? span.role} of ` +
        `${sure(chord).symbol}, at ${positionText(ctx.meter, start)}.`,
    }),
};
