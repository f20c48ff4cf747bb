import { type Midi, nth, Pitch, type Seconds, type VoiceRange } from "../../core/src/index";

interface Props {
  label: string;
  range: VoiceRange;
  /** Seconds on each pitch. */
  time: ReadonlyMap<Midi, Seconds>;
  width?: number;
}

const HEIGHT = 30;
const NAMES = ["C", "Db", "D", "Eb", "E", "F", "Gb", "G", "Ab", "A", "Bb", "B"];
const named = (midi: Midi): string => Pitch.typeset(Pitch.name(midi, nth(NAMES, midi % 12)));

/**
 * Where a voice spends its time, low to high: its comfortable range as a band, its ends as lines, a bar for each pitch.
 */
export function RangeStrip({ label, range: { comfortable, extremes }, time, width = 150 }: Props) {
  const sung = [...time.keys()];
  const low = Math.min(extremes[0], ...sung) - 1;
  const high = Math.max(extremes[1], ...sung) + 1;
  const step = width / (high - low + 1);
  const x = (midi: number) => (midi - low) * step;
  const most = Math.max(...time.values(), 0.001);
  const outside = (m: Midi) => m < extremes[0] || m > extremes[1];
  const words = sung.length
    ? `${label}: ${named(Math.min(...sung))} to ${named(Math.max(...sung))}, at ease from ` +
      `${named(comfortable[0])} to ${named(comfortable[1])}`
    : `${label}: at ease from ${named(comfortable[0])} to ${named(comfortable[1])}`;
  return (
    <svg className="range-strip" width={width} height={HEIGHT} role="img" aria-label={words}>
      <title>{words}</title>
      <rect
        className="ease"
        x={x(comfortable[0])}
        width={x(comfortable[1] + 1) - x(comfortable[0])}
        y={0}
        height={HEIGHT - 8}
      />
      {[extremes[0], extremes[1] + 1].map((m) => (
        <line key={m} x1={x(m)} x2={x(m)} y1={0} y2={HEIGHT - 8} />
      ))}
      {[...time].map(([midi, seconds]) => {
        const height = Math.max(1.5, (seconds / most) * (HEIGHT - 10));
        const near = midi < comfortable[0] || midi > comfortable[1] ? "edge" : "in";
        return (
          <rect
            key={midi}
            className={outside(midi) ? "out" : near}
            x={x(midi) + 0.5}
            width={Math.max(1, step - 1)}
            y={HEIGHT - 8 - height}
            height={height}
          >
            <title>{`${named(midi)}: ${seconds.toFixed(1)} s`}</title>
          </rect>
        );
      })}
      {Array.from({ length: high - low + 1 }, (_, i) => low + i)
        .filter((m) => m % 12 === 0)
        .map((m) => (
          <line key={m} className="octave" x1={x(m) + step / 2} x2={x(m) + step / 2} y1={HEIGHT - 8} y2={HEIGHT - 5} />
        ))}
    </svg>
  );
}
