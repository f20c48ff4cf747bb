import { type Part, Pitch } from "../../core/src/index";
import { chooseNotes } from "../app/store/selection";

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

/** Measures of a line; each shows its notes when it is pressed. */
export function MeasureTable({ part, rows }: { part: Part["id"]; rows: readonly MeasureRow[] }) {
  return (
    <table className="measures report">
      <tbody>
        {rows.map((row) => (
          <Row key={row.id} part={part} row={row} />
        ))}
      </tbody>
    </table>
  );
}

function Row({ part, row: { title, value, notes, hint, missed } }: { part: Part["id"]; row: MeasureRow }) {
  return (
    <tr className={missed ? "off" : ""} title={hint}>
      <th scope="row">
        {notes.length ? (
          <button
            type="button"
            title={`${hint}${hint ? ". " : ""}Show the notes`}
            onClick={() => chooseNotes(part, [...notes])}
          >
            {title}
          </button>
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
