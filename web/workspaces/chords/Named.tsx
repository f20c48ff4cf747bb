import Table from "react-bootstrap/Table";
import { Chord, firstOf, type Reading } from "../../../core/src/index";
import { afterText, put, soundChord, type Where } from "../../app/commands/chords";
import type { SectionData } from "../../app/store/sectionData";
import { useSelection } from "../../app/store/selection";
import { ChordName } from "../../kit/ChordName";
import { percent } from "../../kit/texts";
import { Button } from "../../kit/Button";

/** Readings that are shown: the first three, then those that are likely enough. */
const SURELY = 3;
const SHOWN = 5;
const LIKELY = 0.01;
/** Readings that are kept with a chord one is not sure of. */
const KEPT = 4;

/** What a reading leaves out, adds or understands, in words. */
export function readingText(r: Reading): string {
  return [
    r.rootless ? "root understood" : "",
    ...r.omitted.filter((o) => o !== "R").map((o) => `without ${o}`),
    ...r.added.map((a) => `${a} added`),
    r.equals.length ? `same notes as ${r.equals.join(", ")}` : "",
  ]
    .filter(Boolean)
    .join(", ");
}

/** Readings of some notes; one is chosen and put into the section, or all are kept until later. */
export function Named({ data, readings, shape }: { data: SectionData; readings: Reading[]; shape?: Reading[] }) {
  const focus = useSelection((s) => s.chord);
  const [first] = readings;
  if (!first) return null;
  const event = data.section.chords.find((c) => c.id === focus);
  const places: [Where, string][] = [["after", afterText(data, focus)]];
  if (event) places.unshift(["instead", `in place of ${event.symbol}`]);
  return (
    <div className="named">
      {shape?.[0] && (
        <p className="small">
          The shape is <ChordName symbol={shape[0].symbol} />; with the capo it sounds:
        </p>
      )}
      <Table bsPrefix="measures" className="readings-table">
        <tbody>
          {readings
            .filter((r, i) => i < SURELY || r.score >= LIKELY)
            .slice(0, SHOWN)
            .map((r, i) => (
              <tr key={r.symbol + String(r.rootless)}>
                <th scope="row">
                  <Button title="Hear it" onClick={() => soundChord(r.symbol)}>
                    <ChordName symbol={r.symbol} />
                  </Button>
                  <span className="small"> {readingText(r)}</span>
                </th>
                <td>
                  {percent(r.score)}
                  {i === 0 && !Chord.isSure(readings) ? " ?" : ""}
                </td>
              </tr>
            ))}
        </tbody>
      </Table>
      {places.map(([where, text], i) => (
        <div key={where} className="put-row">
          <Button className={i === 0 ? "primary" : ""} onClick={() => put(data, first.symbol, where)}>
            Put <ChordName symbol={first.symbol} /> {text}
          </Button>
        </div>
      ))}
      {readings.length > 1 && (
        <div className="put-row">
          <Button
            title="The chord is written with all its readings; you decide later"
            onClick={() =>
              put(
                data,
                first.symbol,
                firstOf(places)[0],
                readings.slice(0, KEPT).map((r) => r.symbol),
              )
            }
          >
            not sure: keep the readings with it
          </Button>
        </div>
      )}
    </div>
  );
}
