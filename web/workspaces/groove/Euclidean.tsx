import { useState } from "react";
import { type Drum, Drums, Groove } from "../../../core/src/index";
import { usePreferences } from "../../app/store/preferences";
import type { SectionData } from "../../app/store/sectionData";
import { edit } from "../../app/store/song";
import { NumberBox } from "../../kit/NumberBox";
import { Select } from "../../kit/Select";
import { Button } from "../../kit/Button";

const MOST_STEPS = 32;
/** Steps that fit one row. */
const ROW = 16;

/** Pulses spread evenly over steps, put into a lane. */
export function Euclidean({ data }: { data: SectionData }) {
  const grid = usePreferences((s) => s.drumGrid);
  const [drum, setDrum] = useState<Drum>("rim");
  const [{ pulses, steps, rotation }, setShape] = useState({ pulses: 5, steps: 16, rotation: 0 });
  const row = Groove.euclid(pulses, steps, rotation);
  const set = (change: Partial<{ pulses: number; steps: number; rotation: number }>) => {
    const next = { pulses, steps, rotation, ...change };
    setShape({ ...next, pulses: Math.min(next.pulses, next.steps), rotation: Math.min(next.rotation, next.steps - 1) });
  };
  const put = () => {
    const hits = Groove.steps(row, grid, data.length, Drums.KINDS[drum].velocity[1]);
    edit({ do: "setLane", section: data.section.id, drum, change: { hits } });
  };
  return (
    <>
      <h3>Spread evenly</h3>
      <div className="controls euclid">
        <label>
          pulses <NumberBox label="pulses" min={0} max={steps} value={pulses} set={(n) => set({ pulses: n })} />
        </label>
        <label>
          over <NumberBox label="over" min={2} max={MOST_STEPS} value={steps} set={(n) => set({ steps: n })} />
        </label>
        <label>
          rotated by{" "}
          <NumberBox label="rotated by" min={0} max={steps - 1} value={rotation} set={(n) => set({ rotation: n })} />
        </label>
      </div>
      <p
        className="step-grid"
        style={{ gridTemplateColumns: `repeat(${Math.min(ROW, steps)}, 1fr)` }}
        role="img"
        aria-label={row.map((x) => (x ? "hit" : "silent")).join(" ")}
      >
        {row.map((x, i) => (
          <i key={i} className={`step ${x ? "hard" : "rest"}`} />
        ))}
      </p>
      <div className="controls">
        <Select
          label="Lane for it"
          text="into"
          value={drum}
          choices={Drums.ALL.map((d) => [d, Drums.KINDS[d].title])}
          set={setDrum}
        />
        <Button onClick={put}>Put it there</Button>
        <span className="small">in steps of the grid</span>
      </div>
    </>
  );
}
