import { endOf, harmonyLines, noteAt } from "../lines";
import type { CheckContext, Rule } from "../../rule";
import type { Between } from "../../../../hear/line/between";
import { betweenVoices, type Pair } from "./pairs";

/** Whether two voices are the lowest and the highest that sound where they arrive. */
function areOuter({ tick }: Between, ctx: CheckContext, { top, low }: Pair): boolean {
  const sounding = harmonyLines(ctx).flatMap((l) => {
    const note = noteAt(l, tick);
    return note && tick < endOf(note) ? [note.midi] : [];
  });
  const [high, bass] = [noteAt(top, tick), noteAt(low, tick)];
  return high !== undefined && bass !== undefined && sounding.every((m) => m <= high.midi && m >= bass.midi);
}

export const unequalFifths: Rule = {
  id: "unequal-fifths",
  title: "A diminished fifth that rises into a perfect one",
  family: "voices",
  explanation:
    "Bass and top voice rise together from a diminished fifth into a perfect one: the tritone does not resolve, " +
    "and the fifth stands bare. The other way round, and between inner voices, it passes.",
  source: "Kostka & Payne, Tonal Harmony (unequal fifths)",
  severity: { chorale: "warning", band: "off", jazz: "off", loop: "off" },
  find: (ctx) =>
    betweenVoices(ctx, {
      kind: "unequal",
      says: "rise from a diminished into a perfect fifth",
      counts: areOuter,
      at: (_, top, low) => `${top} and ${low}`,
      amount: () => "unequal fifths",
    }),
};
