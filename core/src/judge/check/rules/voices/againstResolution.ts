import { nth } from "../../../../base/list";
import { mod } from "../../../../theory/pitch/pitch";
import { beatsText, positionText } from "../../../../theory/time/meter";
import { textbookKind } from "../../../../hear/slice/roles";
import type { RealizedNote } from "../../../../song/realize";
import type { CheckContext, Line, RawFinding, Rule } from "../../rule";
import { waysOut } from "../../ways/ways";
import { goesOn, linesOf, noteAt, opening } from "../lines";

/** Where a note is a suspension, and the note it falls to. */
function suspended(ctx: CheckContext, { part, notes }: Line, i: number): { tick: number; falls: RealizedNote } | null {
  const [note, falls] = [nth(notes, i), notes[i + 1]];
  const span = ctx.sliced.roles
    .get(part.id)
    ?.get(note)
    ?.find((s) => textbookKind(s) === "suspension");
  return span && falls && goesOn(ctx, note, falls) ? { tick: span.start, falls } : null;
}

export const againstResolution: Rule = {
  id: "against-resolution",
  title: "A suspension against its own resolution",
  family: "voices",
  explanation:
    "While a voice still holds a suspension another one already has the note it falls to: the dissonance loses its " +
    "point. The bass may have it, a ninth below and more.",
  source: "Kostka & Payne, Tonal Harmony (suspensions); any textbook of counterpoint",
  severity: { chorale: "warning", band: "off", jazz: "off", loop: "off" },
  find(ctx) {
    const lines = linesOf(ctx);
    return lines.flatMap((line) =>
      line.notes.flatMap((note, i): RawFinding[] => {
        const held = suspended(ctx, line, i);
        if (!held) return [];
        const { tick, falls } = held;
        return lines.flatMap((other): RawFinding[] => {
          const has = other === line ? undefined : noteAt(other, tick);
          if (!has || mod(has.midi - falls.midi, 12) !== 0 || note.midi - has.midi > 12) return [];
          return [
            {
              tick,
              duration: falls.start - tick,
              parts: [line.part.id, other.part.id],
              notes: [note.id, falls.id, has.id],
              message:
                `${opening(line.name)} holds ${note.pitch} over to ${falls.pitch}, and ${other.name} already has ` +
                `${has.pitch} at ${positionText(ctx.meter, tick)}.`,
              amount: beatsText(ctx.meter, falls.start - tick),
              lighter: Math.max(line.lighter, other.lighter),
              fixes: waysOut(ctx, { notes: [has], clear: (p) => mod(p(has) - falls.midi, 12) !== 0 }),
            },
          ];
        });
      }),
    );
  },
};
