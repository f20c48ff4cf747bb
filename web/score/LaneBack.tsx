import { memo } from "react";
import { Chord, Harmony, Key, Meter, type Midi, Pitch, type RealizedChord, sure } from "../../core/src/index";
import { useResults } from "../app/store/results";
import { useSelection } from "../app/store/selection";
import { barsInSight, inSight, type Axis, type Window } from "./axis";
import type { BackData } from "./laneData";
import type { LaneScale } from "./laneScale";

interface Props {
  data: BackData;
  axis: Axis;
  scale: LaneScale;
  height: number;
  window: Window;
  /** Show the tones of each chord as lines. */
  lined: boolean;
  /** Show tensions of the chosen chord: lines above the chords have a use for them. */
  colors: boolean;
}

/** Pixels a chord must be wide for the names of its lines, and for its tensions. */
const NAMED = 60;
const COLORED = 40;

/** Bar and beat lines, and the tones of each chord as lines of its own: root and fifth heavier and named. */
export const LaneBack = memo(function LaneBack({ data, axis, scale, height, window, lined, colors }: Props) {
  const chosen = useSelection((s) => s.chord);
  const harmony = useResults((s) => s.harmony);
  const { meter } = data;
  const keyOf = (id: string): Key => {
    const local = Key.parse(harmony?.chords.find((x) => x.id === id)?.key ?? "");
    return local.ok ? local.value : data.key;
  };
  return (
    <g aria-hidden="true">
      {axis.pickup > 0 && <rect className="pickup" x={0} y={0} width={axis.x(0)} height={height} />}
      {barsInSight(axis, window, data.section.bars, meter).flatMap((b) =>
        meter.beats.map((beat) => {
          const x = axis.x(b * meter.bar + beat.start);
          return (
            <line
              key={`${b}.${beat.start}`}
              className={beat.start === 0 ? "bar-line" : "beat-line"}
              x1={x}
              x2={x}
              y1={0}
              y2={height}
            />
          );
        }),
      )}
      {lined &&
        data.real.chords
          .filter((c) => c.chord && inSight(axis, window, c.start, c.start + c.duration))
          .map((c) => (
            <g key={c.id + c.start}>
              <Tones chord={c} axis={axis} scale={scale} />
              {colors && c.id === chosen && c.duration * axis.scale > COLORED && (
                <Tensions chord={c} keyOf={keyOf(c.id)} axis={axis} scale={scale} />
              )}
            </g>
          ))}
    </g>
  );
});

/** Pitches of a lane that belong to a class. */
const pitchesIn = ({ low, high }: LaneScale, pc: number): Midi[] => {
  const out = [];
  for (let m = low; m <= high; m++) if (Pitch.mod(m, 12) === pc) out.push(m);
  return out;
};

const Tones = memo(function Tones({ chord: c, axis, scale }: { chord: RealizedChord; axis: Axis; scale: LaneScale }) {
  const root = Chord.rootPc(sure(c.chord));
  const end = axis.x(c.start + c.duration);
  return Chord.pitchClasses(sure(c.chord)).flatMap((pc) => {
    const above = Pitch.mod(pc - root, 12);
    const strong = above === 0 || above === 7;
    return pitchesIn(scale, pc).map((m) => (
      <g key={m}>
        <line
          className={strong ? "tone strong" : "tone"}
          x1={axis.x(c.start)}
          x2={end}
          y1={scale.y(m)}
          y2={scale.y(m)}
        />
        {strong && c.duration * axis.scale > NAMED && (
          <text className="tone-name" x={end - 4} y={scale.y(m) - 2}>
            {above === 0 ? "R" : "5"}
          </text>
        )}
      </g>
    ));
  });
});

/** Tensions of a chord in its key, and the notes to avoid. */
function Tensions({
  chord: c,
  keyOf,
  axis,
  scale,
}: {
  chord: RealizedChord;
  keyOf: Key;
  axis: Axis;
  scale: LaneScale;
}) {
  return Harmony.tensions(sure(c.chord), keyOf).flatMap((t) =>
    pitchesIn(scale, t.pc).map((m) => (
      <g key={m} className={t.available ? "tension" : "tension avoid"}>
        <line x1={axis.x(c.start)} x2={axis.x(c.start + c.duration)} y1={scale.y(m)} y2={scale.y(m)} />
        <text x={axis.x(c.start) + 3} y={scale.y(m) - 2}>
          {t.available ? Pitch.typeset(t.role) : `avoid ${Pitch.typeset(t.role)}`}
        </text>
      </g>
    )),
  );
}

/** Whether beats are wide enough to be told apart. */
export const showsBeats = (axis: Axis): boolean => axis.scale * Meter.QUARTER > COLORED;
