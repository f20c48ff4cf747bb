import { useMemo } from "react";
import { Fact, type Part, Pitch, type Section, type Song, Tune } from "../../../core/src/index";
import { factsNow } from "../../app/store/sectionData";
import { useStored } from "../../app/store/song";
import { Fold } from "../../kit/Fold";
import { MeasureTable, measureRow } from "../../kit/MeasureTable";
import { NoteReason } from "../../kit/NoteReason";
import { OwnFindings } from "../../kit/OwnFindings";
import type { PartProps } from "../../kit/partProps";

/** Sections in which the part lies where it lies in this one, and why one would say so. */
function useAlike(song: Song, section: Section, part: Part["id"]): { name: string; why: string }[] {
  return useMemo(() => {
    const read = factsNow(song);
    const here = read.get(Fact.tune, section.id, part);
    return song.sections.flatMap((other) => {
      const there = other.id === section.id ? null : read.get(Fact.tune, other.id, part);
      const why = here && there ? Tune.samePlace(here, there) : null;
      return why ? [{ name: other.name, why }] : [];
    });
  }, [song, section.id, part]);
}

/** What a line is, measured; a counter melody is set against its style as well. */
export function ReportTab({ data, part }: PartProps) {
  const { song, section } = useStored(data.section.id);
  const tune = factsNow(song).get(Fact.tune, section.id, part.id);
  const alike = useAlike(song, section, part.id);
  const measures = tune ? Tune.measure(tune) : [];
  if (!measures.length)
    return (
      <p>
        {part.name} has no note in {section.name}. Click into its lane to write one, press N there, or go to Enter.
      </p>
    );
  return (
    <>
      <NoteReason data={data} part={part.id} />
      <p className="small">What the line is. A measure shows its notes when you press it.</p>
      <MeasureTable part={part.id} rows={measures.map(({ how, ...m }) => ({ ...m, hint: how }))} />
      <Neighbors song={song} section={section} part={part} />
      {alike.map(({ name, why }) => (
        <p key={name} className="small" role="note">
          {section.name} and {name} sit in one place: {Pitch.typesetAll(why)}. Where one should lift out of the other,
          move it by a third or more, or change how dense it is.
        </p>
      ))}
      {part.role === "counter" && <AgainstTune data={data} part={part} />}
      <OwnFindings data={data} part={part.id} />
    </>
  );
}

/** The tune of the sections before and after, in the order of the form. */
function Neighbors({ song, section, part }: { song: Song; section: Section; part: Part }) {
  const ids = song.form.map((p) => p.sectionId);
  const at = ids.indexOf(section.id);
  const found = [
    ["before", ids.slice(0, Math.max(0, at)).findLast((id) => id !== section.id)],
    ["after", ids.slice(at + 1).find((id) => id !== section.id)],
  ].flatMap(([where, id]) => {
    const tune = id === undefined ? null : factsNow(song).get(Fact.tune, id, part.id);
    const name = song.sections.find((s) => s.id === id)?.name;
    return tune?.notes.length ? [{ where, name, text: Tune.inShort(tune) }] : [];
  });
  if (!found.length) return null;
  return (
    <>
      <h3>Beside it</h3>
      {found.map(({ where, name, text }) => (
        <p key={where} className="small">
          {name}, {where}: {Pitch.typesetAll(text)}.
        </p>
      ))}
    </>
  );
}

/** A counter melody against the line it answers, and against what its style aims at. */
function AgainstTune({ data, part }: PartProps) {
  const { song } = useStored(data.section.id);
  const verdict = factsNow(song).get(Fact.counter, data.section.id, part.id);
  if (!verdict.ok) return null;
  return (
    <Fold title="against the tune and its style" open>
      <MeasureTable part={part.id} rows={verdict.value.measures.map((m) => measureRow(m, data))} />
    </Fold>
  );
}
