import type { Shape } from "../../core/src/index";

const GAP = 8;
const FRET = 9;
const SHOWN = 5;

/**
 * A shape as it is drawn for players: strings upright, lowest drawn string on the left, the nut (or a fret number) on
 * top.
 */
export function FretDiagram({
  shape,
  scale = 1,
}: {
  shape: Pick<Shape, "frets"> & Partial<Pick<Shape, "barre">>;
  scale?: number;
}) {
  const { frets, barre } = shape;
  const fretted = frets.filter((f): f is number => f !== null && f > 0);
  const first = fretted.length && Math.max(...fretted) > SHOWN ? Math.min(...fretted) : 1;
  const width = (frets.length - 1) * GAP + 22;
  const height = SHOWN * FRET + 16;
  const x = (s: number) => 15 + s * GAP;
  const y = (f: number) => 12 + (f - first + 0.5) * FRET;
  const words = `Frets ${frets.map((f) => f ?? "x").join(" ")}${barre ? `, barre at fret ${barre.fret}` : ""}`;
  return (
    <svg
      className="fret-diagram"
      width={width * scale}
      height={height * scale}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={words}
    >
      {Array.from({ length: SHOWN + 1 }, (_, f) => (
        <line
          key={f}
          className={f === 0 && first === 1 ? "nut" : "wire"}
          x1={x(0)}
          x2={x(frets.length - 1)}
          y1={12 + f * FRET}
          y2={12 + f * FRET}
        />
      ))}
      {first > 1 && (
        <text x={10} y={y(first) + 3} textAnchor="end">
          {first}
        </text>
      )}
      {barre && <line className="barre" x1={x(barre.from)} x2={x(barre.to)} y1={y(barre.fret)} y2={y(barre.fret)} />}
      {frets.map((f, s) => (
        <g key={s}>
          <line className="wire" x1={x(s)} x2={x(s)} y1={12} y2={12 + SHOWN * FRET} />
          {f === null && (
            <text x={x(s)} y={9} textAnchor="middle">
              ×
            </text>
          )}
          {f === 0 && <circle className="open" cx={x(s)} cy={6.5} r={2.2} />}
          {!!f && <circle cx={x(s)} cy={y(f)} r={3.2} />}
        </g>
      ))}
    </svg>
  );
}
