import type { Finding } from "../../core/src/index";
import type { Axis, ScoreData } from "./data";
import { HEAD } from "./NoteMark";

/** The kick's hits run up through the bass lane, so that a coincidence is seen. */
export function KickLines({ data, axis, height, from, to }: { data: ScoreData; axis: Axis; height: number; from: number; to: number }) {
  return (
    <>
      {data.kicks
        .filter((k) => axis.x(k.start) >= from - 20 && axis.x(k.start) <= to)
        .map((kick) => (
          <line
            key={kick.start}
            className={`kick-line${kick.main ? " main" : ""}`}
            x1={axis.x(kick.start) + HEAD}
            x2={axis.x(kick.start) + HEAD}
            y1={0}
            y2={height}
          />
        ))}
    </>
  );
}

/** Main accents without a bass note, numbered like their findings. */
export function OpenAccents({ axis, height, findings }: { axis: Axis; height: number; findings: readonly Finding[] }) {
  return (
    <>
      {findings.map(
        (f, i) =>
          f.rule === "uncovered-accent" &&
          f.waived === undefined && (
            <g key={f.id} className="ghost" aria-hidden="true">
              <circle cx={axis.x(f.where.tick) + HEAD} cy={height / 2} r={HEAD} />
              <text className="finding-mark" x={axis.x(f.where.tick) + HEAD + 12} y={height / 2 - 8}>
                {i + 1}
              </text>
            </g>
          ),
      )}
    </>
  );
}
