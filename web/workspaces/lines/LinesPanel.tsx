import { useMemo } from "react";
import { samePlace, tuneIn, tuneReport, typesetNames, type Part } from "../../../core/src/index";
import { hearLine, heardBeside, lineParts, linePartOf, type LineHearing } from "../../commands/lines";
import { usePlayback } from "../../store/playback";
import type { SectionData } from "../../store/sectionData";
import { chooseNotes, useSelection } from "../../store/selection";
import { PanelHead } from "../../ui/PanelHead";
import { Select } from "../../ui/Select";
import { Switches } from "../../ui/Switches";

const HEARINGS: readonly [LineHearing, string][] = [
  ["alone", "alone"],
  ["chords", "with the chords"],
  ["lines", "all lines"],
  ["all", "with all"],
];

/** The tune and what answers it: what a line is, measured, and whether sections sit in one place. */
export function LinesPanel({ data }: { data: SectionData }) {
  const id = useSelection((s) => s.linePart);
  const lines = lineParts(data.song);
  const part = linePartOf(data.song, id);
  return (
    <>
      <PanelHead title={`Lines, ${data.section.name.toLowerCase()}`}>
        {lines.length > 1 && part && (
          <div className="controls">
            <Select
              label="Line"
              value={part.id}
              choices={lines.map((p) => [p.id, p.name])}
              set={(chosen) => useSelection.setState({ linePart: chosen })}
            />
          </div>
        )}
        {part && <Hearing data={data} part={part} more={lines.length > 1} />}
      </PanelHead>
      {part ? <Report data={data} part={part} /> : <p>There is no line yet: add a voice or a counter melody at the label of any lane.</p>}
    </>
  );
}

function Hearing({ data, part, more }: { data: SectionData; part: Part; more: boolean }) {
  const solo = usePlayback((s) => s.solo);
  const heard = heardBeside(data.song, part.id, solo);
  return (
    <div className="controls">
      <span className="muted">hear it</span>
      <Switches<LineHearing | "">
        label="Heard with"
        value={heard ?? ""}
        choices={HEARINGS.filter(([what]) => more || what !== "lines")}
        set={(what) => what && hearLine(data.song, part.id, what)}
      />
    </div>
  );
}

function Report({ data, part }: { data: SectionData; part: Part }) {
  const { song, section } = data;
  const tune = useMemo(() => tuneIn(song, section.id, part.id), [song, section.id, part.id]);
  const alike = useMemo(
    () =>
      song.sections.flatMap((other) => {
        const there = other.id === section.id ? null : tuneIn(song, other.id, part.id);
        const why = tune && there ? samePlace(tune, there) : null;
        return why ? [{ name: other.name, why }] : [];
      }),
    [song, section.id, part.id, tune],
  );
  const measures = tune ? tuneReport(tune) : [];
  if (!measures.length)
    return (
      <p>
        {part.name} has no note in {section.name}. Click into its lane to write one, or press N there.
      </p>
    );
  return (
    <>
      <p className="small">What the line is. A measure shows its notes when you press it.</p>
      <table className="measures report">
        <tbody>
          {measures.map((m) => (
            <tr key={m.id} title={m.how}>
              <th scope="row">
                {m.notes.length ? (
                  <button type="button" onClick={() => chooseNotes(part.id, m.notes)}>
                    {m.title}
                  </button>
                ) : (
                  m.title
                )}
              </th>
              <td>{typesetNames(m.value)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {alike.map(({ name, why }) => (
        <p key={name} className="small" role="note">
          {section.name} and {name} sit in one place: {typesetNames(why)}. Where one should lift out of the other, move it by a third or
          more, or change how dense it is.
        </p>
      ))}
    </>
  );
}
