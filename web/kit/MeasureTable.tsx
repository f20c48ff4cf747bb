import Table from "react-bootstrap/Table";
import { type Measure, Meter, type Part, Pitch } from "../../core/src/index";
import type { SectionData } from "../app/store/sectionData";
import { chooseNotes } from "../app/store/selection";
import { Button } from "./Button";

/** One row of a report. */
export interface MeasureRow {
  id: string;
  title: string;
  value: string;
  /** Ids of the notes it points at. */
  notes: readonly string[];
  /** What is said of it where the mouse rests. */
  hint: string;
  /** What it should be, where it is not. */
  missed?: string | undefined;
}

/** Places of a measure that are told. */
const PLACES = 3;

/** A measure of a written line as a row: how it is worked out, its aim and its places stand in the hint. */
export function measureRow(measure: Measure, { meter }: SectionData): MeasureRow {
  const { id, title, value, notes, ticks, target, met, how } = measure;
  const places = ticks.slice(0, PLACES).map((t) => Meter.position(meter, t));
  const hint = Pitch.typesetAll(
    [how, target && `aims at ${target}`, places.length && `at ${places.join("; ")}`].filter(Boolean).join(". "),
  );
  return { id, title, value, notes, hint, missed: met === false ? (target ?? undefined) : undefined };
}

/** Measures of a line; each shows its notes when it is pressed. */
export function MeasureTable({ part, rows }: { part: Part["id"]; rows: readonly MeasureRow[] }) {
  return (
    <Table bsPrefix="measures" className="report">
      <tbody>
        {rows.map((row) => (
          <Row key={row.id} part={part} row={row} />
        ))}
      </tbody>
    </Table>
  );
}

function Row({ part, row: { title, value, notes, hint, missed } }: { part: Part["id"]; row: MeasureRow }) {
  return (
    <tr className={missed ? "off" : ""} title={hint}>
      <th scope="row">
        {notes.length ? (
          <Button title={`${hint}${hint ? ". " : ""}Show the notes`} onClick={() => chooseNotes(part, [...notes])}>
            {title}
          </Button>
        ) : (
          title
        )}
        {missed && <span className="aim">aims at {Pitch.typesetAll(missed)}</span>}
      </th>
      <td>
        {missed && <span aria-label="outside the target">! </span>}
        {Pitch.typesetAll(value)}
      </td>
    </tr>
  );
}
