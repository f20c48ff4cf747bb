import { firstOf, sure } from "../../../base/list";
import { because } from "../../../song/reasons";
import { DRUM_KINDS } from "../../../theory/instrument/drums";
import { chordAt, type CounterContext } from "../context";
import { COSTS, type CounterSlot, type CounterStyle } from "../style";

type Rule = CounterContext["settings"]["hits"];
const TITLES: Record<Rule, string> = { few: "Few pitches", chord: "Up and down the chord", line: "A line by step" };
const rulesFrom = (first: Rule): Rule[] => [first, ...(Object.keys(TITLES) as Rule[]).filter((r) => r !== first)];

export const percussion: CounterStyle = {
  id: "percussion",
  title: "With the drum",
  explanation:
    "It takes the hits of one drum, every one, and gives them pitches: as few as it can, up and down the " +
    "chord, or a line by step. So a melodic layer and the drums become one.",
  source: "common practice",
  targets: { hits: true, chordTime: 0.6 },
  costs: { ...COSTS, repeat: 0 },
  uses: ["drum", "hits", "side"],
  titles: ({ settings }) => rulesFrom(settings.hits).map((r) => TITLES[r]),
  reason: ({ ctx, note, own }) =>
    ctx.hits.includes(note.start) ? because("withDrum", { ...own, drum: DRUM_KINDS[ctx.drum].title }) : null,
  slots(ctx, _seed, attempt) {
    const rule = rulesFrom(ctx.settings.hits)[attempt];
    if (!rule) return [];
    const beat = firstOf(ctx.meter.beats).duration;
    return ctx.hits
      .filter((at) => chordAt(ctx, at)?.chord)
      .map((start, i, all): CounterSlot => {
        const chord = sure(chordAt(ctx, start));
        const room = Math.min(all[i + 1] ?? ctx.length, chord.start + chord.duration) - start;
        const bar = Math.floor(start / ctx.meter.bar);
        return {
          start,
          duration: Math.max(60, Math.min(room, beat)),
          ...(rule === "few" ? { keeps: true } : {}),
          // Up and down the chord by turns, a bar each way.
          ...(rule === "chord" ? { way: bar % 2 ? (-1 as const) : (1 as const) } : {}),
          ...(rule === "line" ? { passes: true, way: Math.floor(bar / 2) % 2 ? (1 as const) : (-1 as const) } : {}),
        };
      });
  },
  nothing: (ctx) => ({
    message: `The ${DRUM_KINDS[ctx.drum].title} strikes nowhere under a chord in ${ctx.section.name}`,
    hint: "Choose a drum that has hits, or paint some in Groove.",
  }),
};
