import { useState } from "react";
import { useView } from "../store/view";
import type { Axis, ScoreData } from "./data";

/** Bar numbers and beats; dragging over bars loops them. */
export function Ruler({ data, axis, from, to }: { data: ScoreData; axis: Axis; from: number; to: number }) {
  const { loop, set } = useView();
  const [ruling, setRuling] = useState<number | null>(null);
  const bars = Array.from({ length: data.section.bars }, (_, b) => b).filter(
    (b) => axis.x((b + 1) * data.meter.bar) >= from && axis.x(b * data.meter.bar) <= to,
  );
  const ruleTo = (bar: number, first: number) => {
    const a = Math.min(bar, first);
    const b = Math.max(bar, first) + 1;
    set({ loop: { on: true, from: a * data.meter.bar, to: b * data.meter.bar } });
  };
  return (
    <div className="ruler" onPointerUp={() => setRuling(null)} onPointerLeave={() => setRuling(null)}>
      {loop && (
        <div
          className={`loop-range${loop.on ? "" : " off"}`}
          style={{ left: axis.x(loop.from), width: (loop.to - loop.from) * axis.scale }}
        />
      )}
      {bars.map((b) => (
        <div
          key={b}
          className="bar-number"
          style={{ left: axis.x(b * data.meter.bar), width: data.meter.bar * axis.scale }}
          title="Drag over bars to loop them, double click to loop the whole section"
          onPointerDown={() => {
            setRuling(b);
            ruleTo(b, b);
          }}
          onPointerEnter={() => ruling !== null && ruleTo(b, ruling)}
          onDoubleClick={() => set({ loop: null })}
        >
          {b + 1}
          {axis.scale * 480 > 40 &&
            data.meter.beats.slice(1).map((beat, i) => (
              <span key={beat.start} style={{ left: beat.start * axis.scale }}>
                {i + 2}
              </span>
            ))}
        </div>
      ))}
    </div>
  );
}
