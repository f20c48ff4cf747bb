import { useMemo } from "react";
import { samePlace, tuneAt, tuneReport, typesetNames, type Part } from "../../../core/src/index";
import { LINE_HEARINGS, lineParts, linePartOf } from "../../commands/lines";
import { factsNow, type SectionData } from "../../store/sectionData";
import { useSelection } from "../../store/selection";
import { HeardWith } from "../../ui/HeardWith";
import { MeasureTable } from "../../ui/MeasureTable";
import { PanelHead } from "../../ui/PanelHead";
import { Select } from "../../ui/Select";

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
        {part && (
          <HeardWith
            label="Hear the line"
            song={data.song}
            part={part.id}
            hearings={LINE_HEARINGS.filter((h) => lines.length > 1 || h.id !== "lines")}
          />
        )}
      </PanelHead>
      {part ? <Report data={data} part={part} /> : <p>There is no line yet: add a voice or a counter melody at the label of any lane.</p>}
    </>
  );
}

/** Sections in which the part lies where it lies in this one, and why one would say so. */
function useAlike({ song, section }: SectionData, part: Part["id"]): { name: string; why: string }[] {
  return useMemo(() => {
    const read = factsNow(song);
    const here = read.get(tuneAt, section.id, part);
    return song.sections.flatMap((other) => {
      const there = other.id === section.id ? null : read.get(tuneAt, other.id, part);
      const why = here && there ? samePlace(here, there) : null;
      return why ? [{ name: other.name, why }] : [];
    });
  }, [song, section.id, part]);
}

function Report({ data, part }: { data: SectionData; part: Part }) {
  const { song, section } = data;
  const tune = factsNow(song).get(tuneAt, section.id, part.id);
  const alike = useAlike(data, part.id);
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
      <MeasureTable part={part.id} rows={measures.map(({ how, ...m }) => ({ ...m, hint: how }))} />
      {alike.map(({ name, why }) => (
        <p key={name} className="small" role="note">
          {section.name} and {name} sit in one place: {typesetNames(why)}. Where one should lift out of the other, move it by a third or
          more, or change how dense it is.
        </p>
      ))}
    </>
  );
}
