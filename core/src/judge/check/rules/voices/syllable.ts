import { HELD } from "../../../../hear/lyrics/words";
import { onceFor } from "../../../../base/once";
import { positionText } from "../../../../theory/time/meter";
import { isWritten } from "../../../../song/document";
import type { RealizedNote } from "../../../../song/realize";
import type { CheckContext, RawFinding, Rule } from "../../rule";
import { sungTogether, TOGETHER, type Sung } from "./sungTogether";

/** So many syllables that are the same at least say that two sing the same words. */
const SAME_WORDS = 4;

export const syllable: Rule = {
  id: "syllable",
  title: "A syllable is missing or another one",
  family: "voices",
  explanation:
    "Two singers sing the same words together, but for one note: there one of them has no syllable, or another " +
    "one. It is nearly always a slip of the pen, and heard at once. A syllable that is held over several notes has " +
    "its line and is not told.",
  source: "common practice of engraving and of rehearsal",
  severity: { chorale: "warning", band: "warning", jazz: "warning", loop: "note" },
  find: (ctx) => sungTogether(ctx).flatMap(([a, b]) => differing(ctx, a, b)),
};

/** The letters of a syllable: signs and capitals make no other word. */
const letters = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}]/gu, "");
const textOf = (note: RealizedNote, verse: number): string => note.lyrics?.[verse] ?? "";
/** A syllable as it is told. */
const told = (text: string): string => `“${text.replace(/[-.,;:!?]+$/, "")}”`;

/** How many verses a singer has. */
const versesOf = ({ notes }: Sung): number =>
  onceFor([notes], "verses", () => notes.reduce((most, n) => Math.max(most, n.lyrics?.length ?? 0), 0));

function differing(ctx: CheckContext, a: Sung, b: Sung): RawFinding[] {
  const verses = Math.max(versesOf(a), versesOf(b));
  if (!verses) return [];
  const pairs = a.notes.flatMap((n) => {
    const other = b.at.get(n.start);
    return other ? [{ a: n, b: other }] : [];
  });
  return Array.from({ length: verses }, (_, verse) => verse).flatMap((verse): RawFinding[] => {
    const worded = pairs
      .map((p) => ({ ...p, own: textOf(p.a, verse), other: textOf(p.b, verse) }))
      .filter((p) => letters(p.own) !== letters(p.other) || letters(p.own));
    const alike = worded.filter((p) => letters(p.own) === letters(p.other));
    if (alike.length < SAME_WORDS || alike.length < TOGETHER * worded.length) return [];
    return worded
      .filter((p) => letters(p.own) !== letters(p.other) && p.own !== HELD && p.other !== HELD)
      .map((p): RawFinding => {
        // Who has none lacks it; of two different ones the upper voice is taken to be right.
        const [has, lacks] = letters(p.own) ? [a, b] : [b, a];
        const note = lacks === b ? p.b : p.a;
        const [right, wrong] = lacks === b ? [p.own, p.other] : [p.other, p.own];
        const where = positionText(ctx.meter, note.start);
        const sings = letters(wrong) ? told(wrong) : "no syllable";
        return {
          tick: note.start,
          duration: note.duration,
          parts: [lacks.part.id, has.part.id],
          notes: [note.id],
          message:
            `${lacks.part.name} sings ${sings} on ${note.pitch} at ${where}, where ${has.part.name} sings ` +
            `${told(right)}.`,
          amount: letters(wrong) ? "another syllable" : "no syllable",
          fixes: isWritten(lacks.part)
            ? [
                {
                  label: `${told(right)} for ${lacks.part.name}`,
                  edit: {
                    ...{ do: "changeNotes", section: ctx.section.id, part: lacks.part.id },
                    notes: [{ id: note.id, lyrics: withVerse(note, verse, right) }],
                  },
                },
              ]
            : [],
        };
      });
  });
}

const withVerse = (note: RealizedNote, verse: number, text: string): string[] =>
  Array.from({ length: Math.max(verse + 1, note.lyrics?.length ?? 0) }, (_, v) =>
    v === verse ? text : textOf(note, v),
  );
