import { useState } from "react";
import { DRUM_KINDS, DRUMS, euclid, stepHits, type Drum } from "../../../core/src/index";
import type { ScoreData } from "../../score/data";
import { useSong } from "../../store/song";
import { useView } from "../../store/view";

/** Pulses spread evenly over steps, put into a lane. */
export function Euclidean({ data }: { data: ScoreData }) {
  const edit = useSong((s) => s.edit);
  const [drum, setDrum] = useState<Drum>("rim");
  const [pulses, setPulses] = useState(5);
  const [steps, setSteps] = useState(16);
  const [rotation, setRotation] = useState(0);
  const grid = useView((s) => s.drumGrid);
  const row = euclid(pulses, steps, rotation);
  const number = (label: string, value: number, low: number, high: number, take: (n: number) => void) => (
    <label>
      {label}{" "}
      <input
        type="number"
        min={low}
        max={high}
        value={value}
        onKeyDown={(e) => e.stopPropagation()}
        onChange={(e) => Number.isInteger(Number(e.target.value)) && take(Math.max(low, Math.min(high, Number(e.target.value))))}
      />
    </label>
  );
  return (
    <>
      <h3>Spread evenly</h3>
      <div className="controls euclid">
        {number("pulses", pulses, 0, steps, setPulses)}
        {number("over", steps, 2, 32, (n) => {
          setSteps(n);
          setPulses(Math.min(pulses, n));
        })}
        {number("rotated by", rotation, 0, steps - 1, setRotation)}
      </div>
      <p
        className="step-grid"
        style={{ gridTemplateColumns: `repeat(${Math.min(16, steps)}, 1fr)` }}
        role="img"
        aria-label={row.map((x) => (x ? "struck" : "silent")).join(" ")}
      >
        {row.map((x, i) => (
          <i key={i} className={`step ${x ? "hard" : "rest"}`} />
        ))}
      </p>
      <div className="controls">
        <label>
          into{" "}
          <select value={drum} onChange={(e) => setDrum(e.target.value as Drum)}>
            {DRUMS.map((d) => (
              <option key={d} value={d}>
                {DRUM_KINDS[d].title}
              </option>
            ))}
          </select>
        </label>
        <button
          type="button"
          onClick={() =>
            edit({
              do: "setLane",
              section: data.section.id,
              drum,
              change: { hits: stepHits(row, grid, data.length, DRUM_KINDS[drum].velocity[1]) },
            })
          }
        >
          Put it there
        </button>
        <span className="small">in steps of the grid</span>
      </div>
    </>
  );
}
