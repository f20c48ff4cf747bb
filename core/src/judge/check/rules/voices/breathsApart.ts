import { firstOf } from "../../../../base/list";
import { listed } from "../../../../theory/words/english";
import { beatsText, positionText, type Ticks } from "../../../../theory/time/meter";
import { isWritten } from "../../../../song/document";
import type { Edit } from "../../../../song/edits";
import type { RealizedNote } from "../../../../song/realize";
import type { Part } from "../../../../song/schema";
import { endOf } from "../lines";
import type { CheckContext, RawFinding, Rule } from "../../rule";
import { sungTogether, type Sung } from "./sungTogether";

/** A rest of half a beat is a breath that is written; what is shorter than this sounds through. */
const BREATH_BEATS = 0.5;
const THROUGH = 60;

/** A note of a part before a moment at which all attack again. */
interface Before {
  part: Part;
  note: RealizedNote;
}
interface Moment {
  breathe: Map<string, Before>;
  hold: Map<string, Before>;
}

export const breathsApart: Rule = {
  id: "breaths-apart",
  title: "One breathes where another sings on",
  family: "voices",
  explanation:
    "Singers with one rhythm begin and end a word together. Where one has a rest and another holds on, the end of " +
    "the word comes twice. Either all breathe, or nobody does; a choir that breathes one by one does it without a " +
    "rest in the notes.",
  source: "common practice of choirs",
  severity: { chorale: "note", band: "note", jazz: "note", loop: "off" },
  heard: 0.7,
  find(ctx) {
    const moments = new Map<Ticks, Moment>();
    const chances = new Set<Ticks>();
    for (const pair of sungTogether(ctx)) meetings(ctx, pair, { moments, chances });
    return [...moments].map(([tick, moment]) => foundAt(ctx, tick, { ...moment, chances: chances.size }));
  },
};

/** Where the two attack together after a note that they began together, and one of them has breathed. */
function meetings(
  ctx: CheckContext,
  [a, b]: [Sung, Sung],
  { moments, chances }: { moments: Map<Ticks, Moment>; chances: Set<Ticks> },
): void {
  const least = BREATH_BEATS * firstOf(ctx.meter.beats).duration;
  a.notes.forEach((after, i) => {
    const before = a.notes[i - 1];
    if (!before || !b.at.has(after.start)) return;
    const beside = b.at.get(before.start);
    // Something that began between is a rhythm of its own.
    if (!beside || b.before.get(after.start) !== beside) return;
    const gaps = [after.start - endOf(before), after.start - endOf(beside)];
    if (gaps.some((g) => g >= least)) chances.add(after.start);
    if (!(gaps.some((g) => g >= least) && gaps.some((g) => g < THROUGH))) return;
    const moment = moments.get(after.start) ?? { breathe: new Map<string, Before>(), hold: new Map<string, Before>() };
    moments.set(after.start, moment);
    for (const [own, note, gap] of [
      [a, before, gaps[0] ?? 0],
      [b, beside, gaps[1] ?? 0],
    ] as const)
      (gap >= least ? moment.breathe : moment.hold).set(own.part.id, { part: own.part, note });
  });
}

function foundAt(ctx: CheckContext, tick: Ticks, at: Moment & { chances: number }): RawFinding {
  const [breathe, hold] = [[...at.breathe.values()], [...at.hold.values()]];
  const names = (of: readonly Before[]) => listed(of.map((x) => x.part.name));
  const verb = (of: readonly Before[], one: string, many: string) => (of.length === 1 ? one : many);
  const end = Math.max(...breathe.map((x) => endOf(x.note)));
  const where = positionText(ctx.meter, tick);
  const until = (of: readonly Before[], to: Ticks): Edit => ({
    do: "all",
    label: "breathe together",
    edits: of.map(({ part, note }): Edit => ({
      ...{ do: "changeNotes", section: ctx.section.id, part: part.id },
      notes: [{ id: note.id, duration: to - note.start }],
    })),
  });
  const written = [...breathe, ...hold].every((x) => isWritten(x.part));
  return {
    tick: end,
    duration: tick - end,
    parts: [...breathe, ...hold].map((x) => x.part.id),
    notes: [...breathe, ...hold].map((x) => x.note.id),
    message:
      `${names(breathe)} ${verb(breathe, "breathes", "breathe")} before ${where}, where ${names(hold)} ` +
      `${verb(hold, "sings", "sing")} on.`,
    amount: beatsText(ctx.meter, tick - end),
    chances: at.chances,
    fixes: written
      ? [
          { label: `All breathe before ${where}`, edit: until(hold, end) },
          { label: `Nobody breathes before ${where}`, edit: until(breathe, tick) },
        ]
      : [],
  };
}
