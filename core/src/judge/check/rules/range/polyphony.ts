import { counted, inSentence } from "../../../../theory/words/english";
import { positionText, type Ticks } from "../../../../theory/time/meter";
import { instrumentOf } from "../../../../theory/instrument/instruments";
import type { RealizedNote } from "../../../../song/realize";
import type { RawFinding, Rule } from "../../rule";
import { endOf } from "../lines";

export const polyphony: Rule = {
  id: "polyphony",
  title: "More notes than the instrument has",
  family: "range",
  explanation:
    "The part asks for more notes at once than the instrument or the voice can sound. Notes that only touch at " +
    "their ends do not count.",
  source: "orchestration handbooks, as the instrument list has it",
  severity: { chorale: "fault", band: "fault", jazz: "fault", loop: "warning" },
  find({ song, section, sliced, meter }) {
    return song.parts.flatMap((part): RawFinding[] => {
      const { polyphony: most, title } = instrumentOf(part.instrument, song);
      const notes = sliced.real.parts.find((p) => p.id === part.id)?.notes ?? [];
      if (part.role === "drums" || part.link || notes.length <= most) return [];
      let held: RealizedNote[] = [];
      const out: RawFinding[] = [];
      let said: Ticks = -1;
      for (const note of notes) {
        held = [...held.filter((n) => endOf(n) > note.start), note];
        if (held.length <= most || note.start < said) continue;
        said = Math.min(...held.map(endOf));
        const over = held.filter((n) => n.start < note.start);
        out.push({
          tick: note.start,
          duration: said - note.start,
          parts: [part.id],
          notes: held.map((n) => n.id),
          message:
            `${part.name}: ${held.map((n) => n.pitch).join(", ")} at once at ${positionText(meter, note.start)}; ` +
            `the ${inSentence(title)} sounds ${counted(most, "note")}.`,
          amount: `${held.length} instead of ${most}`,
          fixes: over.length
            ? [
                {
                  label: "End what is held where the next begins",
                  edit: {
                    do: "changeNotes",
                    section: section.id,
                    part: part.id,
                    notes: over.map((n) => ({ id: n.id, duration: note.start - n.start })),
                  },
                },
              ]
            : [
                {
                  label: `Keep the top ${most === 1 ? "note" : `${most} notes`}`,
                  edit: {
                    do: "removeNotes",
                    section: section.id,
                    part: part.id,
                    notes: [...held]
                      .sort((a, b) => b.midi - a.midi)
                      .slice(most)
                      .map((n) => n.id),
                  },
                },
              ],
        });
      }
      return out;
    });
  },
};
