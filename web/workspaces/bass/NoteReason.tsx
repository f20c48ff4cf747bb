import { describeReason, noteRoles, positionText, reasonOf, typesetNames } from "../../../core/src/index";
import { partOfReal, type SectionData } from "../../store/sectionData";
import { useSelection } from "../../store/selection";

/** Why the chosen bass note is there. */
export function NoteReason({ data, part }: { data: SectionData; part: string }) {
  const chosen = useSelection((s) => s.notes);
  if (chosen.part !== part || chosen.ids.length !== 1) return null;
  const real = partOfReal(data, part);
  const note = real.notes.find((n) => n.id === chosen.ids[0]);
  if (!note) return null;
  const spans = noteRoles(data.real, real).get(note) ?? [];
  const onKick = data.kicks.some((k) => k.start === note.start);
  const reason = reasonOf(note, spans, onKick);
  return (
    <p className="reason">
      <b>
        {typesetNames(note.pitch)}, {positionText(data.meter, note.start)}:
      </b>{" "}
      {reason ? typesetNames(describeReason(reason)) : "no reason found: outside the chord and not led anywhere"}.
    </p>
  );
}
