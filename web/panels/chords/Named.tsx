import { isSure, type Reading } from "../../../core/src/index";
import type { ScoreData } from "../../score/data";
import { useSong } from "../../store/song";
import { useView } from "../../store/view";
import { ChordName } from "../../ui/ChordName";
import { afterText, put, sound, type Where } from "./put";

const percent = (score: number): string => `${Math.round(score * 100)} %`;

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
export function Named({ data, readings, shape }: { data: ScoreData; readings: Reading[]; shape?: Reading[] }) {
  const focus = useView((s) => s.chord);
  const song = useSong((s) => s.song)!;
  if (!readings.length) return null;
  const sure = isSure(readings);
  const event = data.section.chords.find((c) => c.id === focus);
  const places: [Where, string][] = [
    ...(event ? ([["instead", `in place of ${event.symbol}`]] as [Where, string][]) : []),
    ["after", afterText(data)],
  ];
  return (
    <div className="named">
      {shape?.[0] && (
        <p className="small">
          The shape is <ChordName symbol={shape[0].symbol} />; with the capo it sounds:
        </p>
      )}
      <table className="measures readings-table">
        <tbody>
          {readings
            .filter((r, i) => i < 3 || r.score >= 0.01)
            .slice(0, 5)
            .map((r, i) => (
              <tr key={r.symbol + String(r.rootless)}>
                <th scope="row">
                  <button type="button" title="Hear it" onClick={() => sound(song, r.symbol)}>
                    <ChordName symbol={r.symbol} />
                  </button>
                  <span className="small"> {readingText(r)}</span>
                </th>
                <td>
                  {percent(r.score)}
                  {i === 0 && !sure ? " ?" : ""}
                </td>
              </tr>
            ))}
        </tbody>
      </table>
      {places.map(([where, text]) => (
        <div key={where} className="put-row">
          <button type="button" className={where === places[0]![0] ? "primary" : ""} onClick={() => put(data, readings[0]!.symbol, where)}>
            Put <ChordName symbol={readings[0]!.symbol} /> {text}
          </button>
        </div>
      ))}
      {readings.length > 1 && (
        <div className="put-row">
          <button
            type="button"
            title="The chord is written with all its readings; you decide later"
            onClick={() =>
              put(
                data,
                readings[0]!.symbol,
                event ? "instead" : "after",
                readings.slice(0, 4).map((r) => r.symbol),
              )
            }
          >
            not sure: keep the readings with it
          </button>
        </div>
      )}
    </div>
  );
}
