import Modal from "react-bootstrap/Modal";
import Table from "react-bootstrap/Table";
import { Chord, Song, sure } from "../../../core/src/index";
import { resolveConflict } from "../../app/store/autosave";
import { useSong } from "../../app/store/song";
import { Button } from "../../kit/Button";
import { keyText } from "../../kit/texts";

/** What can be compared of a song, by name. */
function facts(song: Song): [string, string][] {
  return [
    ["Title", song.title],
    ["Key", keyText(song.key)],
    ["Tempo, meter", `${song.tempo} bpm, ${song.meter}`],
    ...song.sections.flatMap((s): [string, string][] => [
      [`${s.name}: chords`, s.chords.length ? Chord.writeLine(s.chords, Song.meterOf(song, s), s.bars) : "none"],
      ...song.parts
        .filter((p) => (s.notes[p.id] ?? []).length)
        .map((p): [string, string] => [
          `${s.name}: ${p.name}`,
          `${sure(s.notes[p.id]).length} notes, ${sure(s.notes[p.id])
            .slice(0, 10)
            .map((n) => n.pitch)
            .join(" ")} …`,
        ]),
      [`${s.name}: drums`, `${s.groove.lanes.reduce((n, l) => n + l.hits.length, 0)} hits`],
    ]),
  ];
}

/** Both versions side by side, after somebody else (or another window) saved first. */
export function Conflict({ mine }: { mine: Song }) {
  const conflict = useSong((s) => s.conflict);
  if (!conflict) return null;
  const joined = conflict.base && Song.join(conflict.base, mine, conflict.song);
  const left = new Map(facts(mine));
  const right = new Map(facts(conflict.song));
  const names = [...new Set([...left.keys(), ...right.keys()])];
  return (
    <Modal
      show
      centered
      scrollable
      size="xl"
      backdrop="static"
      keyboard={false}
      role="alertdialog"
      aria-labelledby="conflict-title"
    >
      <Modal.Header>
        <Modal.Title id="conflict-title" as="h2">
          This song was changed elsewhere
        </Modal.Title>
      </Modal.Header>
      <Modal.Body className="conflict">
        <p>
          It was saved from another place while you were working. Nothing is lost: choose how it goes on. What was
          stored stays among the earlier versions.
        </p>
        {joined && (
          <p>
            Both changed: <b>{joined.apart.join("; ")}</b>. Everything else goes together.
          </p>
        )}
        <Table bsPrefix="versions">
          <thead>
            <tr>
              <th />
              <th scope="col">In this window</th>
              <th scope="col">Stored</th>
            </tr>
          </thead>
          <tbody>
            {names.map((n) => (
              <tr key={n} className={left.get(n) === right.get(n) ? "same" : "different"}>
                <th scope="row">{n}</th>
                <td>{left.get(n) ?? "–"}</td>
                <td>{right.get(n) ?? "–"}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      </Modal.Body>
      <Modal.Footer className="controls">
        {joined && (
          <Button className="primary" onClick={() => void resolveConflict("both")}>
            Join both; of what both changed, this window’s
          </Button>
        )}
        <Button className={joined ? "" : "primary"} onClick={() => void resolveConflict("mine")}>
          Go on with this window’s version
        </Button>
        <Button onClick={() => void resolveConflict("stored")}>Take the stored version</Button>
      </Modal.Footer>
    </Modal>
  );
}
