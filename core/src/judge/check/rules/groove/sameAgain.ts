import { counted } from "../../../../theory/words/english";
import { positionText } from "../../../../theory/time/meter";
import { withFill } from "../../../../arrange/groove/patterns";
import type { Rule } from "../../rule";

/**
 * So many bars one rhythm may come back note for note before it is told (common practice: a fill or a change marks
 * every fourth or eighth bar).
 */
const BARS = 12;

export const sameAgain: Rule = {
  id: "same-again",
  title: "The drums repeat without a change",
  family: "groove",
  explanation:
    "The drums play the same bar again and again, with no fill, no hit left out or added. A change every " +
    "fourth or eighth bar tells where one is. Where a loop is the style, this is not said.",
  source: "common practice",
  severity: { chorale: "off", band: "note", jazz: "note", loop: "off" },
  find({ song, section, sliced, meter }) {
    const drums = song.parts.find((p) => p.role === "drums");
    if (!drums || section.bars < BARS) return [];
    const bars = Array.from({ length: section.bars }, (): string[] => []);
    for (const h of sliced.real.hits) bars[Math.floor(h.start / meter.bar)]?.push(`${h.drum}@${h.start % meter.bar}`);
    const texts = bars.map((b) => b.sort().join());
    let from = 0;
    for (let bar = 1; bar <= texts.length; bar++) {
      if (bar < texts.length && texts[bar] === texts[from]) continue;
      const count = bar - from;
      if (texts[from] && count >= BARS) {
        const fill = from + (count >= 8 ? 7 : count - 1);
        return [
          {
            tick: from * meter.bar,
            duration: count * meter.bar,
            parts: [drums.id],
            notes: [],
            message: `The drums play one bar ${count} times from ${positionText(meter, from * meter.bar)}.`,
            amount: counted(count, "bar"),
            fixes: [
              {
                label: `A fill in bar ${fill + 1}`,
                edit: {
                  do: "setDrums",
                  section: section.id,
                  lanes: withFill(section.groove.lanes, meter, fill, { length: 1, seed: 1 }),
                },
              },
            ],
          },
        ];
      }
      from = bar;
    }
    return [];
  },
};
