import { onceFor } from "../../../../base/once";
import { counted } from "../../../../theory/words/english";
import { positionText, type Ticks } from "../../../../theory/time/meter";
import type { RealizedNote } from "../../../../song/realize";
import { withFill } from "../../../../arrange/groove/patterns";
import type { CheckContext, RawFinding, Rule } from "../../rule";
import { playingIn } from "../room/pairs";

/**
 * The same bars this often, and for so many bars at least, before it is told (common practice: the third time something
 * should be new).
 */
const TIMES = 3;
const BARS = 12;
/** Lengths of what may repeat, in bars. */
const LENGTHS = [2, 4, 8];

export const repeated: Rule = {
  id: "repeated",
  title: "Note for note again",
  family: "groove",
  explanation:
    "Every part and the drums play the same bars three times or more, note for note. The ear stops listening " +
    "the third time unless something is added, left out or ends differently. A loop lives of it, so it is not " +
    "told there; words of several verses are a variation.",
  source: "common practice",
  severity: { chorale: "off", band: "note", jazz: "note", loop: "off" },
  heard: 0.5,
  find(ctx) {
    const texts = barsOf(ctx);
    const several = new Set(texts).size > 1 || texts.length < 2;
    if (!several || ctx.sliced.real.parts.some((p) => p.notes.some((n) => n.lyrics))) return [];
    for (const length of LENGTHS)
      for (let from = 0; from + TIMES * length <= texts.length; from++) {
        let end = from + length;
        while (end < texts.length && texts[end] === texts[end - length]) end++;
        const times = Math.floor((end - from) / length);
        // A stretch of one bar again and again is a drum pattern or a held chord, not a phrase.
        if (times < TIMES || times * length < BARS || new Set(texts.slice(from, from + length)).size < 2) continue;
        return [found(ctx, from, length, times)];
      }
    return [];
  },
};

/** What all parts and drums do, bar by bar; empty bars are empty texts. */
function barsOf(ctx: CheckContext): string[] {
  const { bar } = ctx.meter;
  const texts = Array.from({ length: ctx.section.bars }, (): string[] => []);
  for (const { part, notes } of playingIn(ctx)) textsOf(notes, part.id, bar).forEach((own, b) => texts[b]?.push(own));
  for (const h of ctx.sliced.real.hits) texts[Math.floor(h.start / bar)]?.push(`${h.drum}@${h.start % bar}`);
  return texts.map((t) => t.sort().join());
}

/** What a part does, by the bars in which it does something. */
const textsOf = (notes: readonly RealizedNote[], part: string, bar: Ticks): ReadonlyMap<number, string> =>
  onceFor([notes], `bars ${part} ${bar}`, () => {
    const bars = new Map<number, string[]>();
    for (const n of notes) {
      const b = Math.floor(n.start / bar);
      const text = `${part}:${n.start % bar}:${n.duration}:${n.midi}`;
      const others = bars.get(b);
      if (others) others.push(text);
      else bars.set(b, [text]);
    }
    return new Map([...bars].map(([b, own]) => [b, own.sort().join()]));
  });

function found(ctx: CheckContext, from: number, length: number, times: number): RawFinding {
  const { song, section, meter } = ctx;
  const drums = song.parts.find((p) => p.role === "drums");
  const last = from + 2 * length - 1;
  return {
    tick: from * meter.bar,
    duration: times * length * meter.bar,
    parts: playingIn(ctx).map((p) => p.part.id),
    notes: [],
    message:
      `${counted(length, "bar")} come ${times} times note for note from ` + `${positionText(meter, from * meter.bar)}.`,
    amount: `${times} times`,
    fixes:
      drums && section.groove.lanes.length
        ? [
            {
              label: `A fill in bar ${last + 1}`,
              edit: {
                do: "setDrums",
                section: section.id,
                lanes: withFill(section.groove.lanes, meter, last, { length: 1, seed: 1 }),
              },
            },
          ]
        : [],
  };
}
