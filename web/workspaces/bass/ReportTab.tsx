import { Bass } from "../../../core/src/index";
import { useResults } from "../../app/store/results";
import { MeasureTable, measureRow } from "../../kit/MeasureTable";
import { NoteReason } from "../../kit/NoteReason";
import { OwnFindings } from "../../kit/OwnFindings";
import type { PartProps } from "../../kit/partProps";

/** What a line measures against what its style aims at; each measure shows its notes. */
export function ReportTab({ data, part }: PartProps) {
  const verdict = useResults((s) => s.report);
  if (!verdict || verdict.part !== part.id || !verdict.report.notes)
    return <p className="small">No bass notes yet. Write lines, or click into the bass lane.</p>;
  const style = Bass.STYLES.find((s) => s.id === verdict.style);
  return (
    <>
      <NoteReason data={data} part={part.id} />
      <p className="small">
        Measured against {style?.title.toLowerCase()} and its settings. A measure shows its notes when you press it.
      </p>
      <MeasureTable part={part.id} rows={verdict.measures.map((m) => measureRow(m, data))} />
      <OwnFindings data={data} part={part.id} />
    </>
  );
}
