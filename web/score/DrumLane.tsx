import { memo, useRef, useState } from "react";
import { type Drum, Drums, type Hit, Meter, nth, Pitch } from "../../core/src/index";
import { hitsNow } from "../app/commands/drums";
import { usePlayback } from "../app/store/playback";
import { usePreferences } from "../app/store/preferences";
import { barsInSight, inSight, type Axis, type Window } from "./axis";
import { drumKey, type Cursor } from "./drumKeys";
import type { DrumData } from "./laneData";
import { RADIUS, rowsOf } from "./layout";
import { useDrumGestures } from "./useDrumGestures";

interface Props {
  data: DrumData;
  axis: Axis;
  window: Window;
  /** Height of a row. */
  row: number;
}

/** Height of the softest stem, and what is left above the loudest. */
const SOFTEST = 3;
const ABOVE = 3;

/** The drum grid: every hit is a stem on the line of its row, as tall as it is loud. */
export const DrumLane = memo(function DrumLane({ data, axis, window, row }: Props) {
  const preview = usePlayback((s) => s.preview !== null);
  const step = usePreferences((s) => s.drumGrid);
  const svg = useRef<SVGSVGElement>(null);
  const [cursor, setCursor] = useState<Cursor | null>(null);
  const rows = rowsOf(data);
  const height = rows.length * row;
  const gestures = useDrumGestures({ svg, data, axis, rows, row, step, moveCursor: setCursor });
  const at = cursor ?? { row: rows.length - 1, start: 0 };
  return (
    <svg
      ref={svg}
      className="lane-svg drums editable"
      width={axis.width}
      height={height}
      role="application"
      aria-label={`Drums: ${cursor ? cursorText(data, rows, cursor) : "arrow keys move, Enter sets a hit"}`}
      tabIndex={0}
      onPointerDown={preview ? undefined : gestures.onPointerDown}
      onPointerMove={gestures.onPointerMove}
      onPointerUp={gestures.onPointerUp}
      onPointerCancel={gestures.onPointerUp}
      onKeyDown={(e) => {
        if (!drumKey(e, { data, rows, step, cursor: at, moveCursor: setCursor })) return;
        e.preventDefault();
        e.stopPropagation();
      }}
      onFocus={() => setCursor(at)}
    >
      <Grid data={data} axis={axis} window={window} row={row} step={step} height={height} />
      {rows.map((drum, i) => (
        <Row key={drum} drum={drum} foot={(i + 1) * row - 1} row={row} data={data} axis={axis} window={window} />
      ))}
      {!data.hits.length && (
        <text className="invite" x={axis.x(0) + 10} y={(rows.length - 0.5) * row}>
          Click in this row to paint a kick
        </text>
      )}
      {cursor && (
        <rect
          className="cursor"
          x={axis.x(cursor.start) + RADIUS - 8}
          y={cursor.row * row + 0.5}
          width={16}
          height={row - 1}
          rx={3}
        />
      )}
    </svg>
  );
});

/** What stands where the keyboard is, to be said. */
function cursorText(data: DrumData, rows: readonly Drum[], { row, start }: Cursor): string {
  const drum = nth(rows, row);
  const hit = hitsNow(data.section.id, drum).find((h) => h.start === start);
  const main = drum === "kick" && data.kicks.some((k) => k.main && k.start === start);
  const what = hit ? `velocity ${hit.velocity}${main ? ", main accent" : ""}` : "empty";
  return `${Drums.laneName(data, drum)}, ${Meter.position(data.meter, start)}, ${what}`;
}

function Grid({ data, axis, window, step, height }: Props & { step: number; height: number }) {
  const { meter, section } = data;
  const beats = new Set(meter.beats.map((b) => b.start));
  return barsInSight(axis, window, section.bars, meter).flatMap((b) =>
    Array.from({ length: meter.bar / step }, (_, i) => {
      const x = axis.x(b * meter.bar + i * step);
      let kind: "bar-line" | "beat-line" | "step-line";
      if (i === 0) kind = "bar-line";
      else if (beats.has(i * step)) kind = "beat-line";
      else kind = "step-line";
      return <line key={`${b}.${i}`} className={kind} x1={x} x2={x} y1={0} y2={height} />;
    }),
  );
}

function Row({ drum, foot, row, data, axis, window }: Props & { drum: Drum; foot: number }) {
  const mains = drum === "kick" ? new Set(data.kicks.filter((k) => k.main).map((k) => k.start)) : null;
  const hits = data.groove.lanes.find((l) => l.drum === drum)?.hits ?? [];
  return (
    <g className={`row ${drum}`}>
      <line className="row-line" x1={axis.x(0)} x2={axis.x(data.length)} y1={foot} y2={foot} />
      {hits
        .filter((h) => h.start < data.length && inSight(axis, window, h.start, h.start))
        .map((h) => {
          const x = axis.x(h.start + (h.offset ?? 0)) + RADIUS;
          const tall = SOFTEST + (h.velocity / 127) * (row - ABOVE - SOFTEST);
          return (
            <g key={h.start} className={`hit${mains?.has(h.start) ? " main" : ""}`} data-hit={`${drum}@${h.start}`}>
              <line className="stem" x1={x} x2={x} y1={foot} y2={foot - tall} />
              <title>{hitText(data, drum, h)}</title>
            </g>
          );
        })}
    </g>
  );
}

const hitText = (data: DrumData, drum: Drum, h: Hit): string => {
  const timing = () => {
    if (h.offset) {
      if (h.offset > 0) return "late";
      return "early";
    }
    return "";
  };
  return [
    Drums.laneName(data, drum),
    Meter.position(data.meter, h.start),
    `velocity ${h.velocity}`,
    timing(),
    h.pitch ? Pitch.typeset(h.pitch) : "",
  ]
    .filter(Boolean)
    .join(", ");
};
