import { BASS_STYLES, positionText, typesetNames, type Measure } from "../../../core/src/index";
import { useResults } from "../../store/results";
import type { SectionData } from "../../store/sectionData";
import { chooseNotes } from "../../store/selection";
import type { BassProps } from "./props";
import { NoteReason } from "./NoteReason";
import { OwnFindings } from "./OwnFindings";

/** Places of a measure that are told. */
const PLACES = 3;

/** What a line measures against what its style aims at; each measure shows its notes. */
export function ReportTab({ data, part }: BassProps) {
  const verdict = useResults((s) => s.report);
  if (!verdict || verdict.part !== part.id || !verdict.report.notes)
    return <p className="small">No bass notes yet. Write lines, or click into the bass lane.</p>;
  const style = BASS_STYLES.find((s) => s.id === verdict.style);
  return (
    <>
      <NoteReason data={data} part={part.id} />
      <p className="small">Measured against {style?.title.toLowerCase()} and its settings. A measure shows its notes when you press it.</p>
      <table className="measures report">
        <tbody>
          {verdict.measures.map((m) => (
            <Row key={m.id} measure={m} part={part.id} data={data} />
          ))}
        </tbody>
      </table>
      <OwnFindings data={data} part={part.id} />
    </>
  );
}

function Row({ measure: m, part, data }: { measure: Measure; part: string; data: SectionData }) {
  const places = m.ticks.slice(0, PLACES).map((t) => positionText(data.meter, t));
  const title = typesetNames([m.target && `Aims at ${m.target}`, places.length && `at ${places.join("; ")}`].filter(Boolean).join(". "));
  return (
    <tr className={m.met === false ? "off" : ""} title={title}>
      <th scope="row">
        {m.notes.length ? (
          <button type="button" title={`${title}${title ? ". " : ""}Show the notes`} onClick={() => chooseNotes(part, m.notes)}>
            {m.title}
          </button>
        ) : (
          m.title
        )}
        {m.met === false && m.target && <span className="aim">aims at {typesetNames(m.target)}</span>}
      </th>
      <td>
        {m.met === false && <span aria-label="outside the target">! </span>}
        {typesetNames(m.value)}
      </td>
    </tr>
  );
}
