import { firstOf } from "../../../src/base/list";
import type { Rule } from "../../../src/judge/check/rule";
import { beatsText } from "../../../src/theory/time/meter";

/** A section on whose first beat nobody plays. */
export const silentBeginning: Rule = {
  id: "silent-beginning",
  title: "Nobody plays on the first beat",
  family: "room",
  explanation:
    "A section that begins with a rest is heard to begin later than it does: the ear takes the first sound for " +
    "the first beat, until the meter sets it right.",
  source: "common practice",
  severity: { chorale: "note", band: "note", jazz: "off", loop: "warning" },
  find({ section, sliced, meter }) {
    const { parts, hits } = sliced.real;
    const starts = [...parts.flatMap((p) => p.notes), ...hits].map((x) => x.start);
    const first = Math.min(...starts);
    if (!starts.length || first < firstOf(meter.beats).duration) return [];
    const rest = beatsText(meter, first);
    const message = `${section.name} begins with ${rest} of silence.`;
    return [{ tick: 0, duration: first, parts: [], notes: [], fixes: [], amount: rest, message }];
  },
};
