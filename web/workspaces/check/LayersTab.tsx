import Table from "react-bootstrap/Table";
import { Fact, type Song } from "../../../core/src/index";
import { usePlayback } from "../../app/store/playback";
import { factsNow, type SectionData } from "../../app/store/sectionData";
import { useStored } from "../../app/store/song";
import { Toggle } from "../../kit/Toggle";
import { percent } from "../../kit/texts";

/** Everybody but one part. */
const without = (song: Song, part: string): string[] => song.parts.map((p) => p.id).filter((id) => id !== part);

/** What each part brings that no other does, and the section without it. */
export function LayersTab({ data }: { data: SectionData }) {
  const { song, section } = useStored(data.section.id);
  const rows = factsNow(song).get(Fact.brings, section.id);
  const solo = usePlayback((s) => s.solo);
  if (!rows.length) return <p>No part has a note in {section.name} yet.</p>;
  const spare = rows.filter((r) => r.spare !== null);
  return (
    <>
      <p className="small">
        A layer earns its place by what only it brings: attacks where nobody else strikes, an octave or a tone that
        nobody else has then. Hear the section without it to decide.
      </p>
      <Table bsPrefix="measures" className="brings">
        <thead>
          <tr>
            <th scope="col">part</th>
            <th scope="col">attacks</th>
            <th scope="col">octaves</th>
            <th scope="col">tones</th>
            <th scope="col" />
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => {
            const others = without(song, r.part);
            const on = others.length > 0 && others.length === solo.length && others.every((id) => solo.includes(id));
            return (
              <tr key={r.part}>
                <th scope="row">{r.name.split(",")[0]}</th>
                <td>{percent(r.ownAttacks)}</td>
                <td>{percent(r.ownOctaves)}</td>
                <td>{percent(r.ownTones)}</td>
                <td>
                  <Toggle
                    on={on}
                    label={`Hear it without ${r.name}`}
                    press={() => usePlayback.setState({ solo: on ? [] : others })}
                  >
                    without
                  </Toggle>
                </td>
              </tr>
            );
          })}
        </tbody>
      </Table>
      {spare.map((r) => (
        <p key={r.part} className="small">
          {r.name} could be left out here: {r.spare}.
        </p>
      ))}
    </>
  );
}
