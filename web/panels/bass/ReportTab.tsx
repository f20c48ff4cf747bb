import { BASS_STYLES, positionText, typesetNames, type Measure, type Part } from "../../../core/src/index";
import type { ScoreData } from "../../score/data";
import { useView } from "../../store/view";
import { FindingList } from "../FindingList";
import { NoteReason } from "./NoteReason";

/** What a line measures against what its style aims at; each measure shows its notes. */
export function ReportTab({ data, part }: { data: ScoreData; part: Part }) {
  const { report: verdict, findings } = useView();
  const own = findings.filter((f) => f.where.parts.includes(part.id) && f.waived === undefined);
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
      {own.length > 0 && (
        <>
          <hr />
          <FindingList data={data} findings={own} all={findings} />
        </>
      )}
    </>
  );
}

function Row({ measure: m, part, data }: { measure: Measure; part: string; data: ScoreData }) {
  const set = useView((s) => s.set);
  const places = m.ticks.slice(0, 3).map((t) => positionText(data.meter, t));
  const title = [m.target && `Aims at ${m.target}`, places.length && `at ${places.join("; ")}`].filter(Boolean).join(". ");
  return (
    <tr className={m.met === false ? "off" : ""} title={typesetNames(title)}>
      <th scope="row">
        {m.notes.length ? (
          <button
            type="button"
            title={`${title}${title ? ". " : ""}Show the notes`}
            onClick={() => set({ selected: { part, ids: m.notes } })}
          >
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
