import { useState } from "react";
import Table from "react-bootstrap/Table";
import { Chord, type Reading } from "../../../core/src/index";
import { afterText, type Where } from "../../app/commands/chords";
import { soundPitches } from "../../app/commands/voicings";
import type { SectionData } from "../../app/store/sectionData";
import { useSelection } from "../../app/store/selection";
import { ChordName } from "../../kit/ChordName";
import { Select } from "../../kit/Select";
import { percent } from "../../kit/texts";
import { putPlayed, voiceFor, type Hands } from "./hands";
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

interface Props {
  data: SectionData;
  readings: Reading[];
  /** Readings of the shape as if there were no capo. */
  shape?: Reading[];
  hands: Hands;
  /** What is to be done when the chord is put. */
  done?(): void;
}

/** Readings of what hands played: one is put into the section with its notes, or all are kept until later. */
export function Named({ data, readings, shape, hands, done }: Props) {
  const focus = useSelection((s) => s.chord);
  const [bars, setBars] = useState(1);
  const [chosen, choose] = useState<string | null>(null);
  const first = readings.find((r) => r.symbol === chosen) ?? readings[0];
  if (!first) return null;
  const event = data.section.chords.find((c) => c.id === focus);
  const places: [Where, string][] = [["after", afterText(data, focus)]];
  if (event) places.push(["instead", `in place of ${event.symbol}`]);
  const length = Math.round(bars * data.meter.bar);
  const go = (where: Where, unsure: Reading[] = []) => {
    const others = unsure.length ? { readings: unsure.slice(0, KEPT).map((r) => r.symbol) } : {};
    if (putPlayed(data, { symbol: first.symbol, where, hands }, { length, ...others })) done?.();
  };
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
                  <Button
                    title="Put it under this name"
                    aria-pressed={r === first}
                    onClick={() => {
                      choose(r.symbol);
                      soundPitches(voiceFor(data, hands), hands.pitches);
                    }}
                  >
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
      <div className="controls">
        <Select
          label="How long it lasts"
          text="lasts"
          value={bars}
          choices={[
            [0.5, "half a bar"],
            [1, "a bar"],
            [2, "two bars"],
          ]}
          set={setBars}
        />
      </div>
      {places.map(([where, text], i) => (
        <div key={where} className="put-row">
          <Button className={i === 0 ? "primary" : ""} onClick={() => go(where)}>
            Put <ChordName symbol={first.symbol} /> {text}
          </Button>
        </div>
      ))}
      {readings.length > 1 && (
        <div className="put-row">
          <Button
            title="The chord is written with all its readings; you decide later"
            onClick={() => go("after", readings)}
          >
            not sure: keep the readings with it
          </Button>
        </div>
      )}
    </div>
  );
}
