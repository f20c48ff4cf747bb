import { useRecord } from "../app/commands/record";
import type { Axis } from "./axis";
import type { LaneScale } from "./laneScale";

/** What is played in just now, where it sounds: taken later, or dropped. */
export function LiveNotes({ part, axis, scale }: { part: string; axis: Axis; scale: LaneScale }) {
  const live = useRecord((s) => (s.part === part ? s.live : null));
  if (!live?.length) return null;
  return (
    <g className="live-notes" aria-hidden="true">
      {live.map((n, i) => (
        <rect
          key={i}
          x={axis.x(n.start)}
          y={scale.y(Math.min(scale.high, Math.max(scale.low, n.midi))) - 4}
          width={Math.max(4, (n.end - n.start) * axis.scale)}
          height={8}
          rx={4}
        />
      ))}
    </g>
  );
}

interface Point {
  x: number;
  y: number;
}

/** The box that is drawn around notes. */
export const Box = ({ from, to }: { from: Point; to: Point }) => (
  <rect
    className="box"
    x={Math.min(from.x, to.x)}
    y={Math.min(from.y, to.y)}
    width={Math.abs(to.x - from.x)}
    height={Math.abs(to.y - from.y)}
  />
);
