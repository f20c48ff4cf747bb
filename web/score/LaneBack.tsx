import { memo } from "react";
import { chordPitchClasses, mod, parseKey, rootPc, tensions, typeset, type Midi, type RealizedNote } from "../../core/src/index";
import { useView } from "../store/view";
import type { Axis, ScoreData } from "./data";
import { HEAD } from "./NoteMark";

interface BackProps {
  data: ScoreData;
  axis: Axis;
  low: Midi;
  high: Midi;
  height: number;
  foot: number;
  from: number;
  to: number;
  /** Show tensions of the chosen chord: lines above the chords have a use for them. */
  colors: boolean;
}

/** Bar and beat lines, and the tones of each chord as lines of its own: root and fifth heavier and named. */
export const LaneBack = memo(function LaneBack({ data, axis, low, high, height, foot, from, to, colors }: BackProps) {
  const y = (midi: number) => HEAD + 3 + ((high - midi) / (high - low)) * (foot - 2 * HEAD - 6);
  const chosen = useView((s) => s.chord);
  const harmony = useView((s) => s.harmony);
  const bars = Array.from({ length: data.section.bars }, (_, b) => b).filter(
    (b) => axis.x((b + 1) * data.meter.bar) >= from && axis.x(b * data.meter.bar) <= to,
  );
  return (
    <g aria-hidden="true">
      {axis.pickup > 0 && <rect className="pickup" x={0} y={0} width={axis.x(0)} height={height} />}
      {bars.flatMap((b) =>
        data.meter.beats.map((beat) => {
          const x = axis.x(b * data.meter.bar + beat.start);
          return (
            <line key={`${b}.${beat.start}`} className={beat.start === 0 ? "bar-line" : "beat-line"} x1={x} x2={x} y1={0} y2={height} />
          );
        }),
      )}
      {data.real.chords
        .filter((c) => c.chord && axis.x(c.start + c.duration) >= from && axis.x(c.start) <= to)
        .map((c) => {
          const pcs = chordPitchClasses(c.chord!);
          const root = rootPc(c.chord!);
          const lines = [];
          for (let m = low; m <= high; m++) {
            if (!pcs.includes(mod(m, 12))) continue;
            const above = mod(m - root, 12);
            const strong = above === 0 || above === 7;
            lines.push(
              <line
                key={m}
                className={strong ? "tone strong" : "tone"}
                x1={axis.x(c.start)}
                x2={axis.x(c.start + c.duration)}
                y1={y(m)}
                y2={y(m)}
              />,
            );
            if (strong && c.duration * axis.scale > 60)
              lines.push(
                <text key={`t${m}`} className="tone-name" x={axis.x(c.start + c.duration) - 4} y={y(m) - 2}>
                  {above === 0 ? "R" : "5"}
                </text>,
              );
          }
          // The chosen chord also shows its tensions, and the notes to avoid.
          if (colors && c.id === chosen && c.duration * axis.scale > 40) {
            const local = parseKey(harmony?.chords.find((x) => x.id === c.id)?.key ?? "");
            for (const t of tensions(c.chord!, local.ok ? local.value : data.key))
              for (let m = low; m <= high; m++)
                if (mod(m, 12) === t.pc)
                  lines.push(
                    <g key={`x${m}`} className={t.available ? "tension" : "tension avoid"}>
                      <line x1={axis.x(c.start)} x2={axis.x(c.start + c.duration)} y1={y(m)} y2={y(m)} />
                      <text x={axis.x(c.start) + 3} y={y(m) - 2}>
                        {t.available ? typeset(t.role) : `avoid ${typeset(t.role)}`}
                      </text>
                    </g>,
                  );
          }
          return <g key={c.id + c.start}>{lines}</g>;
        })}
    </g>
  );
});

/** Height that is left for notes: words take two lines of their own. */
export const laneFoot = (notes: readonly RealizedNote[], height: number): number => (notes.some((n) => n.lyric) ? height - 24 : height);

/** Octave marks for the header of a lane. */
export function octaves(low: Midi, high: Midi): Midi[] {
  const marks = [];
  for (let m = Math.ceil(low / 12) * 12; m <= high; m += 12) marks.push(m);
  return marks;
}
