import { describeReason, noteRoles, positionText, reasonOf, typesetNames } from "../../../core/src/index";
import { partOfReal, type ScoreData } from "../../score/data";
import { useView } from "../../store/view";

/** Why the chosen bass note is there. */
export function NoteReason({ data, part }: { data: ScoreData; part: string }) {
  const selected = useView((s) => s.selected);
  if (selected.part !== part || selected.ids.length !== 1) return null;
  const real = partOfReal(data, part);
  const note = real.notes.find((n) => n.id === selected.ids[0]);
  if (!note) return null;
  const spans = noteRoles(data.real, real).get(note) ?? [];
  const reason = reasonOf(
    note,
    spans,
    data.kicks.some((k) => k.start === note.start),
  );
  return (
    <p className="reason">
      <b>
        {typesetNames(note.pitch)}, {positionText(data.meter, note.start)}:
      </b>{" "}
      {reason ? describeReason(reason) : "no reason found: outside the chord and not led anywhere"}.
    </p>
  );
}
