import { counted } from "../../../../theory/words/english";
import type { RawFinding, Rule } from "../../rule";
import { isWritten } from "../../../../song/document";
import { playingIn } from "./pairs";

/** From so many parts and bars on somebody should rest somewhere (common practice). */
const PARTS = 5;
const BARS = 8;

export const nobodyRests: Rule = {
  id: "nobody-rests",
  title: "Nobody rests",
  family: "room",
  explanation:
    "Five or more parts sound in every bar of a section of eight bars or longer. Where nobody ever rests " +
    "nothing can come in, and the section stays at one weight. A part that enters late, or leaves, makes room.",
  source: "common practice of arranging",
  severity: { chorale: "off", band: "note", jazz: "note", loop: "note" },
  heard: 0.5,
  find(ctx) {
    const { section, meter } = ctx;
    const parts = playingIn(ctx);
    if (section.bars < BARS || parts.length < PARTS) return [];
    const rests = ({ notes }: (typeof parts)[number]) => {
      const sounds = new Set<number>();
      for (const n of notes)
        for (let b = Math.floor(n.start / meter.bar); b * meter.bar < n.start + n.duration; b++) sounds.add(b);
      return Array.from({ length: section.bars }, (_, b) => b).some((b) => !sounds.has(b));
    };
    if (parts.some(rests)) return [];
    const half = Math.floor(section.bars / 2);
    // A part that only accompanies is the first that may wait.
    const waits =
      parts.findLast((p) => p.part.role === "counter") ??
      parts.findLast((p) => isWritten(p.part) && p.part.role === "chords");
    const early = waits?.notes.filter((n) => n.start < half * meter.bar) ?? [];
    return [
      {
        tick: 0,
        duration: section.bars * meter.bar,
        parts: parts.map((p) => p.part.id),
        notes: [],
        message: `All ${parts.length} parts sound in each of the ${counted(section.bars, "bar")}.`,
        amount: `${parts.length} parts, ${counted(section.bars, "bar")}`,
        fixes:
          waits && isWritten(waits.part) && early.length && early.length < waits.notes.length
            ? [
                {
                  label: `${waits.part.name.split(",")[0]} enters in bar ${half + 1}`,
                  edit: { do: "removeNotes", section: section.id, part: waits.part.id, notes: early.map((n) => n.id) },
                },
              ]
            : [],
      },
    ] satisfies RawFinding[];
  },
};
