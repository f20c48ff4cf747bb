import { nth } from "../../../../base/list";
import { positionText } from "../../../../theory/time/meter";
import { counted } from "../../../../theory/words/english";
import type { RawFinding, Rule } from "../../rule";
import { attacksByBar, playingIn } from "./pairs";

/** So many rhythms of their own at once are more than one can follow (common practice: three things that move). */
const MOST = 4;
/**
 * Attacks a bar from which a part moves rather than holds, by beat; and the share of attacks in common from which two
 * parts have one rhythm.
 */
const MOVES_PER_BEAT = 0.75;
const SAME = 0.6;
const FEWEST_BARS = 2;

export const crowded: Rule = {
  id: "crowded",
  title: "Too much moves at once",
  family: "room",
  explanation:
    "Four or more parts move at once, each in a rhythm of its own. One follows about three things: a tune, a " +
    "bass, and one that accompanies. Let one of them hold, rest, or take the rhythm of another. Parts that " +
    "strike together count as one.",
  source: "common practice of arranging",
  severity: { chorale: "off", band: "note", jazz: "note", loop: "note" },
  heard: 0.6,
  find(ctx) {
    const { section, meter } = ctx;
    const parts = playingIn(ctx).map((p) => ({
      part: p.part,
      attacks: attacksByBar(p.notes, meter.bar, section.bars),
    }));
    const least = MOVES_PER_BEAT * meter.beats.length;
    const movingIn = (bar: number) => {
      const here = parts
        .map((p) => ({ part: p.part, at: nth(p.attacks, bar) }))
        .filter((p) => p.at.size >= least)
        .sort((a, b) => b.at.size - a.at.size);
      const own: typeof here = [];
      for (const p of here)
        if (!own.some((q) => [...p.at].filter((t) => q.at.has(t)).length >= SAME * p.at.size)) own.push(p);
      return own.map((p) => p.part);
    };
    const out: RawFinding[] = [];
    for (let bar = 0; bar < section.bars;) {
      const first = movingIn(bar);
      let end = bar + 1;
      while (first.length >= MOST && end < section.bars && movingIn(end).length >= MOST) end++;
      if (first.length >= MOST && end - bar >= FEWEST_BARS)
        out.push({
          tick: bar * meter.bar,
          duration: (end - bar) * meter.bar,
          parts: first.map((p) => p.id),
          notes: [],
          message:
            `${first.map((p) => p.name).join(", ")} each move in a rhythm of their own for ` +
            `${counted(end - bar, "bar")} from ${positionText(meter, bar * meter.bar)}.`,
          amount: counted(end - bar, "bar"),
          fixes: [],
        });
      bar = end;
    }
    return out;
  },
};
