import { inSight, type Axis, type Window } from "./axis";
import type { Numbered } from "./findings";
import type { LaneData } from "./laneData";
import { RADIUS } from "./layout";

/** The kick's hits run up through the bass lane, so that a coincidence is seen. */
export const KickLines = ({
  data,
  axis,
  height,
  window,
}: {
  data: Pick<LaneData, "kicks">;
  axis: Axis;
  height: number;
  window: Window;
}) =>
  data.kicks
    .filter((k) => inSight(axis, window, k.start, k.start))
    .map((kick) => (
      <line
        key={kick.start}
        className={`kick-line${kick.main ? " main" : ""}`}
        x1={axis.x(kick.start) + RADIUS}
        x2={axis.x(kick.start) + RADIUS}
        y1={0}
        y2={height}
      />
    ));

/** Main accents without a bass note, numbered like their findings. */
export const OpenAccents = ({ axis, height, found }: { axis: Axis; height: number; found: readonly Numbered[] }) =>
  found.flatMap(({ finding: f, number }) =>
    f.rule === "uncovered-accent"
      ? f.places.map((p) => (
          <g key={p.id} className="ghost" aria-hidden="true">
            <circle cx={axis.x(p.tick) + RADIUS} cy={height / 2} r={RADIUS} />
            <text className="finding-mark" x={axis.x(p.tick) + RADIUS + 12} y={height / 2 - 8}>
              {number}
            </text>
          </g>
        ))
      : [],
  );
