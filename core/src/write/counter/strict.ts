import type { Ticks } from "../../theory/time/meter";
import type { CounterContext } from "./context";
import { BROKEN, speciesNode, speciesStep } from "./species";

/** What a line breaks of the rules of first species, where it stands against notes of the tune. */
export function strictBreaks(ctx: CounterContext): { tick: Ticks; words: string }[] {
  const line = ctx.notes
    .filter((n, i) => ctx.notes[i + 1]?.start !== n.start)
    .map((n) => ({ start: n.start, duration: n.duration, midi: n.midi, tune: ctx.tuneAt(n.start)?.midi ?? null }));
  return line.flatMap((slot, i): { tick: Ticks; words: string }[] => {
    if (slot.tune === null) return [];
    const out: string[] = [];
    const cost = speciesNode(ctx, slot, slot.midi);
    if (cost === Infinity) out.push("a dissonance, or a tone outside the key");
    else if (cost >= BROKEN) out.push("no perfect consonance at an end, or a unison inside");
    const before = line[i - 1];
    if (before && before.tune !== null && speciesStep(line, i - 1, before.midi, slot.midi) >= BROKEN)
      out.push("a parallel or direct perfect interval, or a leap that is not sung");
    return out.map((words) => ({ tick: slot.start, words }));
  });
}
