import { nth } from "../../../../base/list";
import { positionText } from "../../../../theory/time/meter";
import { counted } from "../../../../theory/words/english";
import { isSung } from "../../../../hear/singer/range";
import type { RawFinding, Rule } from "../../rule";
import { attacksByBar, doubles, playingIn } from "./pairs";

/** So many parts striking everything together for so many bars (common practice). */
const PARTS = 4;
const BARS = 8;
const SAME = 0.9;

export const allTogether: Rule = {
  id: "all-together",
  title: "Everyone strikes together",
  family: "room",
  explanation:
    "Four or more parts have one rhythm for eight bars or longer, the tune among them: nothing answers, " +
    "nothing carries on while another holds. A chorale is written so; a band sounds stiff. A riff that all " +
    "play in unison counts as one part.",
  source: "common practice of arranging",
  severity: { chorale: "off", band: "note", jazz: "note", loop: "off" },
  heard: 0.6,
  find(ctx) {
    const { song, section, meter } = ctx;
    const all = playingIn(ctx);
    const voices = all.filter((p, i) => !all.slice(0, i).some((q) => doubles(p, q, meter.bar)));
    if (voices.length < PARTS || voices.every((p) => isSung(song, p.part))) return [];
    const attacks = voices.map((p) => attacksByBar(p.notes, meter.bar, section.bars));
    const together = (b: number) => {
      const own = attacks.map((a) => nth(a, b)).filter((a) => a.size > 0);
      if (own.length < PARTS) return false;
      const sizes = own.map((a) => a.size);
      if (Math.min(...sizes) < SAME * Math.max(...sizes)) return false;
      const union = new Set(own.flatMap((a) => [...a]));
      return union.size > 1 && own.every((a) => a.size >= SAME * union.size);
    };
    const out: RawFinding[] = [];
    for (let bar = 0; bar < section.bars;) {
      let end = bar;
      while (end < section.bars && together(end)) end++;
      if (end - bar >= BARS)
        out.push({
          tick: bar * meter.bar,
          duration: (end - bar) * meter.bar,
          parts: voices.map((p) => p.part.id),
          notes: [],
          message:
            `${counted(voices.length, "part")} strike everything together for ${counted(end - bar, "bar")} from ` +
            `${positionText(meter, bar * meter.bar)}.`,
          amount: counted(end - bar, "bar"),
          fixes: [],
        });
      bar = Math.max(end, bar + 1);
    }
    return out;
  },
};
