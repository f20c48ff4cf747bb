import { counted, listed } from "../../../../theory/words/english";
import type { Pass } from "../../../../song/schema";
import type { RealizedSong } from "../../../../song/realize";
import type { CheckContext, Rule } from "../../rule";

/**
 * So many passes may be the same note for note before it is told (common practice: the third time something should be
 * new).
 */
const TIMES = 3;
const FEWEST_BARS = 4;

export const passAgain: Rule = {
  id: "pass-again",
  title: "A section comes back unchanged",
  family: "form",
  explanation:
    "A section is played three times or more, and all parts and the drums play the same in each, note for " +
    "note. A layer more or less, another ending, a busier rhythm or a step higher tells the third time from " +
    "the first. Words of several verses are a variation. A loop lives of it, so it is not told there.",
  source: "common practice of arranging",
  severity: { chorale: "off", band: "note", jazz: "note", loop: "off" },
  heard: 0.5,
  find(ctx) {
    const { song, section, meter } = ctx;
    const passes = song.form.filter((p) => p.sectionId === section.id);
    if (passes.length < TIMES || section.bars < FEWEST_BARS) return [];
    const groups = new Map<string, Pass[]>();
    for (const pass of passes) {
      const text = soundOf(ctx, pass);
      if (text) groups.set(text, [...(groups.get(text) ?? []), pass]);
    }
    return [...groups.values()]
      .filter((group) => group.length >= TIMES)
      .map((group) => ({
        tick: 0,
        duration: section.bars * meter.bar,
        parts: [],
        notes: [],
        message:
          `${section.name} is played ${counted(group.length, "time")} note for note in all parts: ` +
          `${listed(group.map((p) => p.name ?? `time ${passes.indexOf(p) + 1}`))}.`,
        amount: counted(group.length, "time"),
        fixes: [],
      }));
  },
};

const known = new WeakMap<RealizedSong, string>();

/**
 * All that sounds in a pass, as text; empty where several verses are sung, or nothing sounds. Passes that differ in
 * nothing are one object.
 */
function soundOf(ctx: CheckContext, pass: Pass): string {
  const real = ctx.pass(pass.id);
  let text = known.get(real);
  if (text === undefined) {
    const notes = real.parts.flatMap((p) => p.notes.map((n) => `${p.id}${n.start}:${n.duration}:${n.midi}`));
    const verses = real.parts.some((p) => p.notes.some((n) => (n.lyrics?.length ?? 0) > 1));
    text = verses || !notes.length ? "" : [...notes, ...real.hits.map((h) => `${h.drum}${h.start}`)].sort().join();
    known.set(real, text);
  }
  return text;
}
